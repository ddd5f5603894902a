// @vitest-environment jsdom
import { act, cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { afterEach, beforeAll, describe, expect, it, vi } from 'vitest';
import { takeApart } from '@/core/extracts/takeApart';
import { plainlyKept } from '@/core/reading/readSource';
import type { PieceReading, ShownExtract } from '@/usecases/extracts/reading';
import { PROGRESS_TYPE } from '@/ui/progress';
import { fakeServer, renderOnScreen, renderScreen } from '@/ui/testScreen';
import { Extracts } from './Extracts';
import { marksOf } from './ExtractList';
import { moment } from '@/core/extracts/moments';
import { moveEdge, nameMarks, runsOf, snapped, wordsOf } from './marks';
import { placesOf, ReadingPane } from './ReadingPane';
import { useReading } from './useReading';

const SOURCE = `## Edge on

Every fifteen years the planet tips far enough that we look along the plane of its rings. A small telescope on the terrace shows a planet with nothing round it.

The log book of the observatory holds sixty years of evenings in pencil. Children count the moons that the glare of the rings hides in other years.`;
const apart = takeApart(plainlyKept(SOURCE));
const { extracts, clips: _clips, ...text } = apart;
const READING: PieceReading = { ...text, kept: [], proposed: extracts, proposedClips: [], isTimed: false };
const keptOf = (words: string, state: ShownExtract['state'] = 'accepted'): ShownExtract => {
  const start = text.text.indexOf(words);
  return { id: `id-${start}`, kind: 'point', state, start, end: start + words.length, reason: '', text: words };
};

beforeAll(() => {
  Element.prototype.scrollIntoView = () => undefined;
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

describe('marks in a text', () => {
  it('have a letter and a number, and part the text at their edges', () => {
    const marks = nameMarks([
      { key: 'b', kind: 'quote', state: 'accepted', start: 10, end: 20 },
      { key: 'a', kind: 'quote', state: 'proposed', start: 0, end: 12 },
      { key: 'c', kind: 'clip', state: 'proposed', start: 5, end: 30 },
    ]);
    expect(marks.map(({ key, sign }) => [key, sign])).toEqual([
      ['a', 'Q1'],
      ['c', 'C1'],
      ['b', 'Q2'],
    ]);
    const runs = runsOf(0, 25, marks);
    expect(runs.map(({ start, end, marks: own }) => [start, end, own.map(({ key }) => key).join('')])).toEqual([
      [0, 5, 'a'],
      [5, 10, 'ac'],
      [10, 12, 'acb'],
      [12, 20, 'cb'],
      [20, 25, 'c'],
    ]);
    expect(runs.map(({ ending }) => ending.map(({ key }) => key).join(''))).toEqual(['', '', 'a', 'b', '']);
  });

  it('keep the names that they have, and give no other the same', () => {
    const marks = nameMarks(
      [
        { key: 'a', kind: 'point', state: 'proposed', start: 0, end: 5 },
        { key: 'b', kind: 'point', state: 'accepted', start: 10, end: 20, sign: 'P1' },
        { key: 'c', kind: 'point', state: 'proposed', start: 30, end: 35 },
      ],
      [{ sign: 'P3' }],
    );
    expect(marks.map(({ sign }) => sign)).toEqual(['P2', 'P1', 'P4']);
  });

  it('snap to sentences, move by sentences, and never turn inside out', () => {
    const sentences = [0, 10, 20].map((start) => ({ start, end: start + 9 }));
    expect(snapped({ start: 3, end: 12 }, sentences)).toEqual({ start: 0, end: 19 });
    expect(moveEdge({ start: 0, end: 9 }, 'end', 1, sentences)).toEqual({ start: 0, end: 19 });
    expect(moveEdge({ start: 0, end: 9 }, 'start', 1, sentences)).toEqual({ start: 0, end: 9 });
    expect(moveEdge({ start: 10, end: 29 }, 'end', 1, sentences)).toEqual({ start: 10, end: 29 });
    const words = wordsOf('One two  three.');
    expect(moveEdge({ start: 4, end: 7 }, 'end', 1, words)).toEqual({ start: 4, end: 15 });
    expect(moveEdge({ start: 4, end: 7 }, 'start', -1, words)).toEqual({ start: 0, end: 7 });
    expect([moment(372_000), moment(3_723_000)]).toEqual(['06:12', '1:02:03']);
  });

  it('of what is looked for stand whatever the case, and where letters grow with it', () => {
    expect(placesOf('Rings and rings', 'RINGS')).toHaveLength(2);
    expect(placesOf('İİ rings', 'rings')).toEqual([{ start: 3, end: 8 }]);
    expect(placesOf('rings', 'r')).toEqual([]);
  });
});

function Page({ initial = READING }: { initial?: PieceReading }) {
  const { reading, ...deeds } = useReading('p1', initial, SOURCE);
  const marks = marksOf(reading);
  return (
    <Extracts
      piece={{ id: 'p1' }}
      reading={reading}
      marks={marks}
      deeds={deeds}
      shown={null}
      onShow={() => undefined}
    />
  );
}

describe('the list of extracts', () => {
  it('is gone through by keyboard: Enter accepts, Delete rejects, and the focus stays in it', async () => {
    const server = fakeServer(({ method, body }) =>
      method === 'GET' ? { value: READING } : { value: { id: `kept-${String(body.start)}`, ...body } },
    );
    renderScreen(<Page />);
    await screen.findByText(/0 accepted/);
    const rows = () => within(screen.getByRole('list', { name: 'Extracts' })).getAllByRole('listitem');
    const [first] = rows();
    act(() => first!.focus());
    fireEvent.keyDown(first!, { key: 'Enter' });
    await screen.findByText(/1 accepted/);
    await waitFor(() => expect(document.activeElement?.getAttribute('aria-label')).toMatch(/proposed/));
    fireEvent.keyDown(document.activeElement!, { key: 'Delete' });
    await screen.findByText('1 rejected one');
    await waitFor(() =>
      expect(server.calls.filter(({ method }) => method === 'POST').map(({ body }) => body.state)).toEqual([
        'accepted',
        'rejected',
      ]),
    );
    expect(server.calls.find(({ method }) => method === 'POST')!.body).toMatchObject({
      start: extracts[0]!.start,
      end: extracts[0]!.end,
      kind: extracts[0]!.kind,
    });
  });

  it('moves the edges of one by a sentence, and takes it away', async () => {
    const kept = keptOf('Every fifteen years the planet tips far enough that we look along the plane of its rings.');
    const reading = { ...READING, proposed: [], kept: [kept] };
    const server = fakeServer(({ method }) => ({ value: method === 'GET' ? reading : {} }));
    renderScreen(<Page initial={reading} />);
    fireEvent.click(screen.getByRole('button', { name: 'End a sentence later' }));
    await waitFor(() =>
      expect(server.calls.find(({ method }) => method === 'PATCH')?.body).toEqual({
        start: kept.start,
        end: text.sentences[1]!.end,
      }),
    );
    fireEvent.click(screen.getByRole('button', { name: /^Remove [A-Z]\d+$/ }));
    await waitFor(() =>
      expect(server.calls.some(({ method, path }) => method === 'DELETE' && path === `/api/extracts/${kept.id}`)).toBe(
        true,
      ),
    );
  });

  it('says why a verdict was not kept, and shows what stands', async () => {
    fakeServer(({ method }) =>
      method === 'GET'
        ? { value: READING }
        : { refusal: { code: 'noStretch', message: 'The text has changed there.' } },
    );
    renderScreen(<Page />);
    fireEvent.click((await screen.findAllByRole('button', { name: /^Accept [A-Z]\d+$/ }))[0]!);
    await screen.findByText('The text has changed there.');
    await screen.findByText(/0 accepted/);
  });
});

describe('the text', () => {
  it('is chosen sentence by sentence with the arrow keys, and kept', () => {
    const onKeep = vi.fn();
    renderScreen(
      <ReadingPane
        reading={READING}
        marks={marksOf(READING)}
        find=""
        shown={null}
        onShow={() => undefined}
        onKeep={onKeep}
      />,
    );
    const pane = screen.getByRole('region', { name: 'The text' });
    expect(pane.textContent).toContain('1 · Edge on');
    fireEvent.keyDown(pane, { key: 'ArrowDown' });
    fireEvent.keyDown(pane, { key: 'ArrowDown', shiftKey: true });
    fireEvent.keyDown(pane, { key: 'Enter' });
    const bar = screen.getByRole('toolbar');
    expect(document.activeElement).toBe(within(bar).getAllByRole('button')[0]);
    expect(within(bar).queryByRole('button', { name: 'clip' })).toBeNull();
    fireEvent.click(within(bar).getByRole('button', { name: 'point' }));
    expect(onKeep).toHaveBeenCalledWith({ start: text.sentences[0]!.start, end: text.sentences[1]!.end }, 'point');
    expect(screen.queryByRole('toolbar')).toBeNull();
  });

  it('says how far it is, and stops when asked', async () => {
    let say: (line: object) => void = () => undefined;
    let signal: AbortSignal | undefined | null;
    vi.stubGlobal('fetch', async (_path: string, init: RequestInit) => {
      signal = init.signal;
      const body = new ReadableStream<Uint8Array>({
        start: (lines) => void (say = (line) => lines.enqueue(new TextEncoder().encode(`${JSON.stringify(line)}\n`))),
      });
      return new Response(body, { headers: { 'content-type': PROGRESS_TYPE } });
    });
    renderScreen(<Page />);
    await waitFor(() => expect(signal).toBeDefined());
    say({ share: 0.4 });
    const bar = await screen.findByRole('progressbar', { name: 'How much of the text has been read' });
    expect(bar).toHaveProperty('value', 0.4);
    fireEvent.click(screen.getByRole('button', { name: 'Stop' }));
    expect(signal!.aborted).toBe(true);
    expect(screen.queryByRole('progressbar')).toBeNull();
    expect(screen.getByRole('button', { name: 'Propose more' })).toBeDefined();
    expect(screen.queryByRole('alert')).toBeNull();
  });

  it('is read anew when its text is another', async () => {
    const server = fakeServer(() => ({ value: READING }));
    const { rerender } = renderOnScreen(({ source }: { source: string }) => useReading('p1', READING, source), {
      source: SOURCE,
    });
    await waitFor(() => expect(server.calls).toHaveLength(1));
    rerender({ source: `${SOURCE} More.` });
    await waitFor(() => expect(server.calls).toHaveLength(2));
  });
});
