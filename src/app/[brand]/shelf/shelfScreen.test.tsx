// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { useState } from 'react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Name, ShelfItem } from '@/core/shelf/shelf';
import { fakeServer, renderScreen } from '@/ui/testScreen';
import { ItemList } from './ItemList';
import { NameList } from './NameList';

let server: ReturnType<typeof fakeServer>;
beforeEach(() => void (server = fakeServer(() => ({ value: [] }))));
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const item = (change: Partial<ShelfItem> = {}): ShelfItem => ({
  id: 'i',
  kind: 'quote',
  title: 'On fog',
  text: 'Fog is a cloud that came to visit.',
  source: 'Wen Sato',
  fits: {},
  uses: 0,
  lastUsedAt: null,
  version: 2,
  ...change,
});
const name = (change: Partial<Name> = {}): Name => ({
  id: 'n',
  kind: 'person',
  name: 'Wen Sato',
  handles: { pithline: '@wen-sato' },
  version: 1,
  ...change,
});

function Items({ start }: { start: ShelfItem[] }) {
  const [items, setItems] = useState(start);
  return <ItemList kind="quote" items={items} onChange={setItems} />;
}
function Names({ start }: { start: Name[] }) {
  const [names, setNames] = useState(start);
  return <NameList names={names} onChange={setNames} />;
}

const press = (label: string) => fireEvent.click(screen.getByRole('button', { name: label }));
const fill = (label: string, value: string) => fireEvent.change(screen.getByLabelText(label), { target: { value } });

describe('the items of one kind', () => {
  it.each([
    [item(), 'not used yet'],
    [item({ uses: 1, lastUsedAt: '2026-11-12T09:00:00.000Z' }), 'in 1 post, last 12 Nov'],
    [item({ uses: 4, lastUsedAt: '2026-11-12T09:00:00.000Z' }), 'in 4 posts, last 12 Nov'],
  ])('say how often each was used, and when last', (one, words) => {
    renderScreen(<Items start={[one]} />);
    expect(screen.getByText(words)).toBeTruthy();
  });

  it('say what they are for while there is none', () => {
    renderScreen(<Items start={[]} />);
    expect(screen.getByText(/No quote yet/)).toBeTruthy();
  });

  it('take a new one, and leave the line empty for the next', async () => {
    server.answer = () => ({ value: [item()] });
    renderScreen(<Items start={[]} />);
    fill('Name', 'On fog');
    fill('Text', 'Fog is a cloud that came to visit.');
    fill('Who said it', 'Wen Sato');
    press('Add the quote');
    expect(await screen.findByText('On fog')).toBeTruthy();
    expect(server.calls[0]).toMatchObject({
      method: 'POST',
      body: { known: null, kind: 'quote', title: 'On fog', source: 'Wen Sato' },
    });
    expect(screen.getByLabelText('Name')).toHaveProperty('value', '');
  });

  it('are changed in their place, based on the version that shows', async () => {
    server.answer = () => ({ value: [item({ title: 'Fog', version: 3 })] });
    renderScreen(<Items start={[item()]} />);
    press('Edit');
    const form = within(screen.getByRole('form', { name: 'Change On fog' }));
    fireEvent.change(form.getByLabelText('Name'), { target: { value: 'Fog' } });
    press('Keep the change');
    expect(await screen.findByText('Fog')).toBeTruthy();
    expect(server.calls[0]!.body.known).toEqual({ id: 'i', version: 2 });
    expect(screen.queryByRole('form', { name: /^Change/ })).toBeNull();
  });

  it('that may not be kept say why, with what was typed still there', async () => {
    server.answer = () => ({ refusal: { code: 'emptyTitle', message: 'A title is missing.' } });
    renderScreen(<Items start={[]} />);
    fill('Text', 'Fog');
    press('Add the quote');
    expect(await screen.findByText('A title is missing.')).toBeTruthy();
    expect(screen.getByLabelText('Text')).toHaveProperty('value', 'Fog');
  });

  it('are taken away and put back', async () => {
    server.answer = ({ body }) => ({ value: body.dropped ? [] : [item()] });
    renderScreen(<Items start={[item()]} />);
    press('Remove');
    expect(await screen.findByText('Removed “On fog” from the shelf.')).toBeTruthy();
    expect(screen.queryByText('On fog')).toBeNull();
    press('Put it back');
    expect(await screen.findByText('On fog')).toBeTruthy();
    expect(server.calls.map(({ method, body }) => [method, body.id, body.dropped])).toEqual([
      ['DELETE', 'i', true],
      ['DELETE', 'i', false],
    ]);
  });

  it('stay where they are while the server is gone', async () => {
    server.answer = () => 'gone';
    renderScreen(<Items start={[item()]} />);
    press('Remove');
    expect(await screen.findByText(/Bimlo cannot be reached/)).toBeTruthy();
    expect(screen.getByText('On fog')).toBeTruthy();
  });
});

describe('the names', () => {
  it('show how somebody is called on each network that knows them', () => {
    renderScreen(<Names start={[name(), name({ id: 'p', name: 'The moor', kind: 'place', handles: {} })]} />);
    const rows = screen.getAllByRole('listitem').map((row) => row.textContent);
    expect(rows[0]).toContain('@wen-sato Pithline');
    expect(rows[1]).toContain('The moor place');
  });

  it('take somebody new with a handle of each network', async () => {
    server.answer = () => ({ value: [name()] });
    renderScreen(<Names start={[]} />);
    press('Add somebody or some place');
    fill('Name', 'Wen Sato');
    fill('Pithline', '@wen-sato');
    press('Add the name');
    await waitFor(() => expect(screen.getByRole('button', { name: 'Add somebody or some place' })).toBeTruthy());
    expect(server.calls[0]).toMatchObject({
      path: '/api/names',
      body: { known: null, kind: 'person', name: 'Wen Sato', handles: { pithline: '@wen-sato' } },
    });
  });

  it('are taken away and put back', async () => {
    server.answer = ({ body }) => ({ value: body.dropped ? [] : [name()] });
    renderScreen(<Names start={[name()]} />);
    press('Remove');
    expect(await screen.findByText('Removed Wen Sato from the list.')).toBeTruthy();
    press('Put it back');
    expect(await screen.findByText('@wen-sato')).toBeTruthy();
  });
});
