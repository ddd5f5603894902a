// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import type { PieceMedium } from '@/usecases/media/reading';
import { fakeServer, renderScreen } from '@/ui/testScreen';
import { PictureLines } from './PictureLines';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const PICTURES = ['a', 'b', 'c'].map((id) => ({ id, sha256: id, fileName: `${id}.jpg`, alt: '' })) as PieceMedium[];

function draw() {
  const [onSaved, onDone] = [vi.fn(), vi.fn()];
  const server = fakeServer(({ path, body }) => ({ value: [{ id: path.split('/').at(-1), alt: body.alt }] }));
  renderScreen(<PictureLines pieceId="p" pictures={PICTURES} onSaved={onSaved} onDone={onDone} onClose={vi.fn()} />);
  const inputs = screen.getAllByRole('textbox') as HTMLInputElement[];
  const type = (at: number, value: string) => {
    fireEvent.change(inputs[at]!, { target: { value } });
    fireEvent.keyDown(inputs[at]!, { key: 'Enter' });
  };
  return { server, onSaved, onDone, inputs, type };
}

it('a line for each picture is typed in one round: Enter goes on, and behind the last the posts come', async () => {
  const { server, onSaved, onDone, inputs, type } = draw();
  expect(document.activeElement).toBe(inputs[0]);
  type(0, 'The dome at dusk');
  expect(document.activeElement).toBe(inputs[1]);
  type(1, ' ');
  type(2, 'The mirror, uncovered');
  await waitFor(() => expect(onDone).toHaveBeenCalledOnce());
  expect(server.calls.map(({ path, body }) => [path, body.alt])).toEqual([
    ['/api/pieces/p/media/a', 'The dome at dusk'],
    ['/api/pieces/p/media/c', 'The mirror, uncovered'],
  ]);
  expect(onSaved).toHaveBeenCalledTimes(2);
});

it('it can be gone on without any', () => {
  const { server, onDone } = draw();
  fireEvent.click(screen.getByRole('button', { name: 'Go on without' }));
  expect(onDone).toHaveBeenCalledOnce();
  expect(server.calls).toEqual([]);
});
