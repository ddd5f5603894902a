// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import type { ShownCorrection } from '@/usecases/corrections/reading';
import { fakeServer, renderScreen } from '@/ui/testScreen';
import { SourceChanged } from '../../../sheet/SourceChanged';
import { SourceChanges } from './SourceChanges';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const post = (id: string, part: Partial<ShownCorrection> = {}): ShownCorrection => ({
  ...{ id, version: 3, channelId: 'c1', format: 'text', title: `Post ${id}`, date: '2026-12-24', time: '10:00' },
  ...{ stage: 'drafting', address: '', isSignedOff: false, gone: [] },
  texts: [{ of: 'caption', before: 'We go at 14:30.', after: 'We go at 15:15.' }],
  ...part,
});
const FOUND = [
  post('a'),
  post('b', { stage: 'scheduled', isSignedOff: true }),
  post('c', { texts: [], gone: ['Bring boots.'] }),
  post('d', { stage: 'published', address: 'https://pith.example/1' }),
];
const outcome = { changeId: 'x', label: 'Corrected a post of “Walk”', postIds: ['b'], refused: [], notes: [] };

it('shows the posts that say what a piece said, before and after, and corrects the chosen ones in one step', async () => {
  const server = fakeServer(({ method }) =>
    method === 'GET' ? { value: FOUND } : { value: { outcome, slips: [], gone: [] } },
  );
  const onDone = vi.fn();
  renderScreen(<SourceChanges piece={{ id: 'p', title: 'Walk', version: 2 }} hasPosts onDone={onDone} />);
  await screen.findByText(/3 posts to come and 1 published post/);
  fireEvent.click(screen.getByRole('button', { name: 'Show what differs…' }));
  const dialog = screen.getByRole('dialog');
  const [before] = within(dialog).getAllByLabelText('As it is');
  const [after] = within(dialog).getAllByLabelText('Corrected');
  expect([before!.textContent, after!.textContent]).toEqual(['We go at 14:30.', 'We go at 15:15.']);
  within(dialog).getByText(/The piece no longer says/);
  const [first, , third] = within(dialog).getAllByRole('checkbox') as HTMLInputElement[];
  expect(third).toHaveProperty('disabled', true);
  fireEvent.click(first!);
  fireEvent.click(within(dialog).getByRole('button', { name: 'Correct 1 post' }));
  await waitFor(() => expect(onDone).toHaveBeenCalledOnce());
  expect(server.calls.find(({ method }) => method === 'POST')!.body).toEqual({
    deed: 'correct',
    posts: [{ id: 'b', version: 3 }],
  });
  fireEvent.click(within(dialog).getByRole('button', { name: 'Leave all as they are' }));
  await waitFor(() => expect(onDone).toHaveBeenCalledTimes(2));
  expect(server.calls.findLast(({ method }) => method === 'POST')!.body).toMatchObject({
    deed: 'leave',
    posts: FOUND.map(({ id }) => ({ id, version: 3 })),
  });
});

it('asks nothing for a piece without posts', async () => {
  const server = fakeServer(() => ({ value: [] }));
  renderScreen(<SourceChanges piece={{ id: 'p', title: 'Walk', version: 2 }} hasPosts={false} onDone={vi.fn()} />);
  await new Promise((resolve) => setTimeout(resolve, 900));
  expect(server.calls).toEqual([]);
});

it.each([
  ['drafting', 'Correct this post'],
  ['scheduled', 'Correct and schedule again'],
])('says so on the sheet of a post that is %s', async (stage, name) => {
  const server = fakeServer(({ method }) =>
    method === 'GET' ? { value: FOUND } : { value: { outcome, slips: [], gone: [] } },
  );
  const onDone = vi.fn();
  renderScreen(<SourceChanged post={{ id: 'a', pieceId: 'p', version: 3, stage }} onDone={onDone} />);
  fireEvent.click(await screen.findByRole('button', { name }));
  await waitFor(() => expect(onDone).toHaveBeenCalledOnce());
  expect(server.calls.at(-1)!.body).toEqual({ deed: 'correct', posts: [{ id: 'a', version: 3 }] });
});

it('offers no correction of a post that is out', async () => {
  fakeServer(() => ({ value: FOUND }));
  renderScreen(<SourceChanged post={{ id: 'd', pieceId: 'p', version: 3, stage: 'published' }} onDone={vi.fn()} />);
  await screen.findByRole('button', { name: 'Leave it as it is' });
  expect(screen.queryByRole('button', { name: /Correct/ })).toBeNull();
});
