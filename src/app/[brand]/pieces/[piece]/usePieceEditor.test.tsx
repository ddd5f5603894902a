// @vitest-environment jsdom
import { act, cleanup } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Piece } from '@/data/pieces/pieces';
import { chosenDraft, keepDraft, listDrafts } from '@/ui/drafts';
import { fakeServer, renderOnScreen, type Call, type Reply } from '@/ui/testScreen';
import { usePieceEditor } from './usePieceEditor';

const PIECE: Piece = {
  id: 'a',
  brandId: 'b',
  title: 'Rings',
  note: 'Four posts',
  link: '',
  sourceText: '',
  kind: 'message',
  prepDay: null,
  ownerId: 'mana',
  createdAt: '2026-11-01T10:00:00.000Z',
  setAsideAt: null,
  setAsideReason: '',
  deletedAt: null,
  version: 1,
  suggestedChannelIds: [],
  livePosts: 0,
};

/** The piece as the server has it: each change is based on its version, or refused. */
let stored: Piece;
const save = ({ body: { version, channelIds, ...change } }: Call): Reply => {
  if (version !== stored.version)
    return { refusal: { code: 'stale', message: 'Somebody changed this.' }, current: { piece: stored, steps: [] } };
  stored = {
    ...stored,
    ...change,
    ...(channelIds ? { suggestedChannelIds: channelIds as string[] } : {}),
    version: stored.version + 1,
  };
  return { value: { piece: stored, steps: [] } };
};

let server: ReturnType<typeof fakeServer>;
beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
  stored = PIECE;
  server = fakeServer(save);
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

/** The editor as it stands once it has looked for what was typed before. */
async function open() {
  const { result } = renderOnScreen(() => usePieceEditor(PIECE, NO_STEPS));
  await wait(0);
  return result;
}
const NO_STEPS = [] as const;
const wait = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));

describe('a choice', () => {
  it('stays shown while what was typed before is answered', async () => {
    server.answer = (call) => new Promise((answered) => setTimeout(() => answered(save(call)), 100));
    const shown: number[] = [];
    const { result } = renderOnScreen(() => {
      const editor = usePieceEditor(PIECE, NO_STEPS);
      shown.push(editor.piece.suggestedChannelIds.length);
      return editor;
    });
    await wait(0);
    act(() => {
      result.current.type('title', 'Rings, edge on');
      result.current.save();
      void result.current.change({ channelIds: ['c'] });
    });
    for (let turn = 0; turn < 10; turn++) await wait(50);
    expect(stored).toMatchObject({ title: 'Rings, edge on', suggestedChannelIds: ['c'] });
    expect(shown.slice(shown.indexOf(1))).not.toContain(0);
    expect(shown.at(-1)).toBe(1);
  });
});

describe('a text of a piece', () => {
  it('is saved a moment after the last keystroke, once', async () => {
    const editor = await open();
    act(() => editor.current.type('note', 'Five'));
    await wait(400);
    act(() => editor.current.type('note', 'Five posts'));
    expect(server.calls).toEqual([]);
    await wait(700);
    expect(server.calls.map(({ body }) => body)).toEqual([{ version: 1, note: 'Five posts' }]);
    expect(editor.current.piece.version).toBe(2);
  });

  it('that may be refused half-written is saved when its field is left', async () => {
    const editor = await open();
    act(() => editor.current.type('link', 'https://a.ex'));
    await wait(5_000);
    expect(server.calls).toEqual([]);
    act(() => editor.current.save());
    await wait(0);
    expect(stored.link).toBe('https://a.ex');
  });

  it('is kept in the browser until the server has it', async () => {
    const editor = await open();
    act(() => editor.current.type('note', 'Five posts'));
    expect(listDrafts('/api/pieces/a')).toEqual([
      { at: '/api/pieces/a', field: 'note', text: 'Five posts', base: 'Four posts', version: 1 },
    ]);
    await wait(700);
    expect(listDrafts()).toEqual([]);
  });

  it('is tried again while the server is gone, and says so', async () => {
    const editor = await open();
    server.answer = () => 'gone';
    act(() => editor.current.type('note', 'Five posts'));
    await wait(700);
    expect(editor.current.problem?.message).toContain('It is kept here and tried again.');
    server.answer = save;
    await wait(3_000);
    expect([stored.note, editor.current.problem]).toEqual(['Five posts', null]);
  });

  it('is tried again where the server broke, and says so', async () => {
    const editor = await open();
    server.answer = () => ({ refusal: { code: 'broken', message: 'An error of its own.' } });
    act(() => editor.current.type('note', 'Five posts'));
    await wait(700);
    expect(editor.current.problem?.message).toBe('An error of its own. It is kept here and tried again.');
    server.answer = save;
    await wait(3_000);
    expect([stored.note, editor.current.problem]).toEqual(['Five posts', null]);
  });

  it('that is refused says why, and does not hold up the others', async () => {
    const editor = await open();
    server.answer = (call) =>
      'link' in call.body ? { refusal: { code: 'badLink', field: 'link', message: 'No link.' } } : save(call);
    act(() => editor.current.type('link', 'moor'));
    act(() => editor.current.type('sourceText', 'Edge on'));
    await wait(700);
    expect(editor.current.problem).toEqual({ field: 'link', message: 'No link.' });
    expect(stored.sourceText).toBe('Edge on');
    expect(editor.current.texts.link).toBe('moor');
    act(() => editor.current.type('link', ''));
    expect(editor.current.problem).toBeNull();
  });

  it('typed before a reload is taken up and saved', async () => {
    keepDraft({ at: '/api/pieces/a', field: 'note', text: 'Before', base: 'Four posts', version: 1 });
    const editor = await open();
    await wait(0);
    expect([editor.current.texts.note, stored.note]).toEqual(['Before', 'Before']);
    expect(listDrafts()).toEqual([]);
  });

  it('saved before a reload by a request whose answer never came is no conflict with itself', async () => {
    keepDraft({ at: '/api/pieces/a', field: 'note', text: 'Before', base: 'Four posts', version: 1 });
    stored = { ...PIECE, note: 'Before', version: 2 };
    const editor = await open();
    await wait(0);
    expect([editor.current.problem, editor.current.texts.note, editor.current.piece.version]).toEqual([
      null,
      'Before',
      2,
    ]);
    expect(listDrafts()).toEqual([]);
  });

  it('follows what the server made of it', async () => {
    const editor = await open();
    server.answer = (call) => {
      const answer = save(call);
      stored = { ...stored, title: 'Rings edge on' };
      return typeof answer === 'object' && 'value' in answer ? { value: { piece: stored, steps: [] } } : answer;
    };
    act(() => editor.current.type('title', ' Rings  edge on '));
    act(() => editor.current.save());
    await wait(0);
    expect(editor.current.texts.title).toBe('Rings edge on');
  });
});

describe('a text that somebody else changed meanwhile', () => {
  const clash = async () => {
    const editor = await open();
    stored = { ...stored, note: 'Theirs', version: 2 };
    act(() => editor.current.type('note', 'Mine'));
    await wait(700);
    return editor;
  };

  it('is shown beside what was typed, and nothing is written', async () => {
    const editor = await clash();
    expect(editor.current.problem).toEqual({ field: 'note', message: 'Somebody changed this.', theirs: 'Theirs' });
    expect([editor.current.texts.note, stored.note]).toEqual(['Mine', 'Theirs']);
    await wait(10_000);
    expect(stored.note).toBe('Theirs');
  });

  it.each([
    ['mine', 'Mine'],
    ['theirs', 'Theirs'],
  ] as const)('is settled as %s', async (keep, text) => {
    const editor = await clash();
    act(() => editor.current.settle('note', keep));
    await wait(700);
    expect([editor.current.texts.note, stored.note, editor.current.problem]).toEqual([text, text, null]);
    expect(listDrafts()).toEqual([]);
  });

  it('is told from a change of another field, on which it is saved', async () => {
    const editor = await open();
    stored = { ...stored, title: 'Theirs', version: 2 };
    act(() => editor.current.type('note', 'Mine'));
    await wait(700);
    await wait(10);
    await wait(10);
    expect([stored.note, stored.title, editor.current.texts.title]).toEqual(['Mine', 'Theirs', 'Theirs']);
  });

  it('while it was not open is shown when it is opened again', async () => {
    keepDraft({ at: '/api/pieces/a', field: 'note', text: 'Mine', base: 'Older', version: 0 });
    const editor = await open();
    await wait(700);
    expect(editor.current.problem).toMatchObject({ field: 'note', theirs: 'Four posts' });
    expect(stored.note).toBe('Four posts');
  });
});

describe('a choice', () => {
  it('shows at once and is saved after the one before it', async () => {
    const editor = await open();
    act(() => void editor.current.change({ kind: 'talk' }));
    act(() => void editor.current.change({ channelIds: ['pl'] }));
    expect([editor.current.piece.kind, editor.current.piece.suggestedChannelIds]).toEqual(['talk', ['pl']]);
    await wait(0);
    expect(server.calls.map(({ body }) => body)).toEqual([
      { version: 1, kind: 'talk' },
      { version: 2, channelIds: ['pl'] },
    ]);
  });

  it('that was not to be is taken back', async () => {
    const editor = await open();
    server.answer = () => ({ refusal: { code: 'badDate', field: 'prepDay', message: 'There is no such day.' } });
    act(() => void editor.current.change({ prepDay: '2026-02-31' }));
    expect(editor.current.piece.prepDay).toBe('2026-02-31');
    await wait(0);
    expect([editor.current.piece.prepDay, editor.current.problem?.message]).toEqual([null, 'There is no such day.']);
  });

  it('that met a change of something else is saved on that', async () => {
    const editor = await open();
    stored = { ...stored, title: 'Theirs', version: 2 };
    act(() => void editor.current.change({ kind: 'talk' }));
    for (let n = 0; n < 3; n++) await wait(10);
    expect([stored.kind, editor.current.piece.kind, editor.current.texts.title]).toEqual(['talk', 'talk', 'Theirs']);
  });

  it('made just before a reload, while the one before it was under way, is taken up and saved', async () => {
    const editor = await open();
    server.answer = () => 'gone';
    act(() => void editor.current.change({ channelIds: ['pl'] }));
    await wait(0);
    cleanup();
    server.answer = save;
    const again = await open();
    await wait(0);
    expect([stored.suggestedChannelIds, again.current.piece.suggestedChannelIds]).toEqual([['pl'], ['pl']]);
    expect(listDrafts()).toEqual([]);
  });

  it('is given up where somebody chose otherwise while it was not open', async () => {
    keepDraft(chosenDraft('/api/pieces/a', 'kind', 'video', 'talk', 0));
    await open();
    expect([stored.kind, server.calls, listDrafts()]).toEqual(['message', [], []]);
  });

  it('is tried again while the server is gone', async () => {
    const editor = await open();
    server.answer = () => 'gone';
    act(() => void editor.current.change({ kind: 'talk' }));
    await wait(0);
    server.answer = save;
    await wait(3_000);
    expect(stored.kind).toBe('talk');
  });
});

it('takes in what the page was read anew with', () => {
  const hook = renderOnScreen((piece: Piece) => usePieceEditor(piece, NO_STEPS), PIECE);
  hook.rerender({ ...PIECE, suggestedChannelIds: ['pl'], note: 'Theirs' });
  expect(hook.result.current.piece.suggestedChannelIds).toEqual(['pl']);
  expect(hook.result.current.texts.note).toBe('Theirs');
});
