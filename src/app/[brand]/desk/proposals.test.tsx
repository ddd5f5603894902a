// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { WaitingProposal } from '@/usecases/proposals/proposals';
import { fakeServer, renderScreen } from '@/ui/testScreen';
import { Proposals } from './Proposals';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const waiting = (id: string): WaitingProposal => ({
  id,
  pieceId: 'piece',
  pieceTitle: 'Rings',
  channelId: 'pl',
  format: 'text',
  headline: '',
  caption: `The words of ${id}.`,
  parts: 0,
  kind: null,
  hasCard: false,
  isFolded: false,
});

describe('what was drawn up', () => {
  it('takes the keys that follow “change” at once, and is accepted with what was typed', async () => {
    const server = fakeServer(() => ({ value: { postId: 'post', date: null, time: null } }));
    renderScreen(<Proposals proposals={[waiting('one'), waiting('two')]} />);
    const [row] = screen.getAllByRole('listitem');
    row!.focus();
    fireEvent.keyDown(row!, { key: 'c' });
    const field = screen.getByRole('textbox');
    expect(document.activeElement).toBe(field);
    fireEvent.change(field, { target: { value: 'As I would say it.' } });
    fireEvent.keyDown(field, { key: 'Escape' });
    expect(document.activeElement).toBe(row);
    fireEvent.keyDown(row!, { key: 'a' });
    await waitFor(() => expect(server.calls).toHaveLength(1));
    expect(server.calls[0]).toMatchObject({ body: { deed: 'keep', caption: 'As I would say it.' } });
    expect(screen.getAllByRole('listitem')).toHaveLength(1);
  });
});
