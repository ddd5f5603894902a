// @vitest-environment jsdom
import { act, cleanup } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { ofEachText } from '@/core/posts/texts';
import type { PostSheet } from '@/core/posts/sheet';
import { keepDraft, listDrafts } from '@/ui/drafts';
import { fakeServer, renderOnScreen, type Call, type Reply } from '@/ui/testScreen';
import type { ChangedPost } from '../calendar/changed';
import { usePostEditor, writtenSheet } from './usePostEditor';

const AT = '/api/posts/a';
const PART = '11111111-1111-4111-8111-111111111111';
const SHEET: PostSheet = {
  id: 'a',
  pieceId: 'p',
  pieceTitle: 'Rings',
  channelId: 'pl',
  format: 'thread',
  title: 'Rings',
  ...ofEachText(() => ''),
  caption: 'Edge on',
  parts: [{ id: PART, text: 'One', pictureId: null }],
  date: '2026-12-01',
  time: '10:00',
  stage: 'drafting',
  setAsideReason: '',
  ownerId: 'mana',
  pillarId: null,
  campaignId: null,
  repeat: null,
  window: null,
  takenDown: null,
  publishedAt: null,
  address: '',
  version: 1,
  deleted: false,
  archived: false,
  pictures: [],
  pieceSaid: 0,
  pieceNeeds: [],
  steps: [],
  drafted: [],
  waived: [],
  signOff: { state: 'notAsked', last: null },
  maybeOut: [],
  notSent: null,
  delivery: null,
};

let stored: PostSheet;
const answered = (): Reply => ({ value: { outcome: {}, sheet: stored, slip: { id: 'a', version: stored.version } } });
const serve = ({ method, body: { version, partTexts, ...change } }: Call): Reply => {
  if (method === 'GET') return { value: stored };
  if (version !== stored.version)
    return { refusal: { code: 'stale', message: 'Somebody changed this.' }, current: stored };
  const texts = (partTexts ?? {}) as Record<string, string>;
  stored = {
    ...stored,
    ...change,
    parts: stored.parts.map((part) => ({ ...part, text: texts[part.id] ?? part.text })),
    version: stored.version + 1,
  };
  return answered();
};
const writes = () => server.calls.filter(({ method }) => method !== 'GET');

let server: ReturnType<typeof fakeServer>;
const changed = vi.fn<(post: ChangedPost) => void>();
beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
  sessionStorage.clear();
  changed.mockClear();
  stored = SHEET;
  server = fakeServer(serve);
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const wait = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));
async function open(initial: PostSheet | null = SHEET) {
  const hook = renderOnScreen(() => usePostEditor('a', initial, changed));
  await wait(0);
  return hook;
}

describe('a text of a post', () => {
  it('is saved half a second after the last keystroke, with what is known of it', async () => {
    const { result } = await open();
    act(() => result.current.type('caption', 'Edge'));
    await wait(300);
    act(() => result.current.type('caption', 'Edge on, tonight'));
    expect(result.current.saveState).toBe('unsaved');
    await wait(500);
    expect(writes().map(({ body }) => body)).toEqual([{ version: 1, caption: 'Edge on, tonight' }]);
    expect([result.current.saveState, result.current.sheet?.version]).toEqual(['saved', 2]);
    expect(changed).toHaveBeenCalledTimes(1);
  });

  it('goes with the others that were typed, parts by their ids', async () => {
    const { result } = await open();
    act(() => result.current.type('title', 'Edge'));
    act(() => result.current.type(`part:${PART}`, 'Two'));
    await wait(500);
    expect(writes().map(({ body }) => body)).toEqual([{ version: 1, title: 'Edge', partTexts: { [PART]: 'Two' } }]);
  });

  it('is kept and tried again while the server is gone', async () => {
    const { result } = await open();
    server.answer = () => 'gone';
    act(() => result.current.type('caption', 'Kept'));
    await wait(500);
    expect(result.current.saveState).toBe('unreachable');
    expect(listDrafts(AT).map(({ text }) => text)).toEqual(['Kept']);
    server.answer = serve;
    await wait(3_000);
    expect([stored.caption, result.current.saveState, listDrafts()]).toEqual(['Kept', 'saved', []]);
  });

  it.each(['broken', 'diskFull'])('refused because the server is %s is tried again, with the reason', async (code) => {
    const { result } = await open();
    server.answer = () => ({ refusal: { code, message: 'An error of its own.' } });
    act(() => result.current.type('caption', 'Kept'));
    await wait(500);
    expect([result.current.saveState, result.current.problem?.message]).toEqual(['unsaved', 'An error of its own.']);
    server.answer = serve;
    await wait(3_000);
    expect([stored.caption, result.current.saveState, result.current.problem]).toEqual(['Kept', 'saved', null]);
  });

  it('that the browser has no room for is not said to be kept', async () => {
    const { result } = await open();
    expect(result.current.isKept).toBe(true);
    vi.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError');
    });
    act(() => result.current.type('caption', 'Not kept'));
    vi.restoreAllMocks();
    expect(result.current.isKept).toBe(false);
  });

  it('that is refused stays as it was typed, with the reason', async () => {
    const { result } = await open();
    server.answer = () => ({ refusal: { code: 'textTooLong', field: 'caption', message: 'Shorten it.' } });
    act(() => result.current.type('caption', 'Too long'));
    await wait(500);
    expect([result.current.texts?.caption, result.current.problem?.message]).toEqual(['Too long', 'Shorten it.']);
    expect(result.current.saveState).toBe('unsaved');
  });

  it('typed before a reload is taken up', async () => {
    keepDraft({ at: AT, field: 'caption', text: 'Before', base: 'Edge on', version: 1 });
    const { result } = await open();
    expect([result.current.texts?.caption, stored.caption]).toEqual(['Before', 'Before']);
  });

  it('typed before a reload that the server has already is let go', async () => {
    keepDraft({ at: AT, field: 'caption', text: 'Edge on', base: 'Older', version: 0 });
    await open();
    expect([writes(), listDrafts()]).toEqual([[], []]);
  });

  it('is saved when the sheet is closed before its time', async () => {
    const { result, unmount } = await open();
    act(() => result.current.type('caption', 'Closing'));
    unmount();
    await wait(0);
    expect(stored.caption).toBe('Closing');
  });
});

describe('a text that somebody else changed meanwhile', () => {
  const clash = async () => {
    const hook = await open();
    stored = { ...stored, caption: 'Theirs', version: 2 };
    act(() => hook.result.current.type('caption', 'Mine'));
    await wait(500);
    return hook.result;
  };

  it('shows both, and overwrites nothing', async () => {
    const editor = await clash();
    expect(editor.current.conflicts).toEqual([{ field: 'caption', mine: 'Mine', theirs: 'Theirs' }]);
    await wait(10_000);
    expect([stored.caption, editor.current.saveState]).toEqual(['Theirs', 'unsaved']);
  });

  it.each([
    ['mine', 'Mine'],
    ['theirs', 'Theirs'],
  ] as const)('is settled as %s', async (keep, text) => {
    const editor = await clash();
    act(() => editor.current.settle(editor.current.conflicts[0]!, keep));
    await wait(500);
    expect([stored.caption, editor.current.texts?.caption, editor.current.conflicts]).toEqual([text, text, []]);
  });

  it('does not concern a field that nobody else touched', async () => {
    const { result } = await open();
    stored = { ...stored, title: 'Theirs', version: 2 };
    act(() => result.current.type('caption', 'Mine'));
    await wait(500);
    expect([stored.caption, stored.title, result.current.texts?.title]).toEqual(['Mine', 'Theirs', 'Theirs']);
    expect(result.current.conflicts).toEqual([]);
  });
});

describe('a change beside the texts', () => {
  it('comes after what was typed, on the version that left', async () => {
    const { result } = await open();
    act(() => result.current.type('caption', 'First'));
    await act(async () => {
      await result.current.change('POST', `${AT}/move`, (version) => ({ version, date: '2026-12-02' }));
    });
    expect(writes().map(({ body }) => body)).toEqual([
      { version: 1, caption: 'First' },
      { version: 2, date: '2026-12-02' },
    ]);
    expect(result.current.sheet?.date).toBe('2026-12-02');
  });

  it('comes after the change before it, however quick', async () => {
    const { result } = await open();
    await act(async () => {
      await Promise.all(
        ['2026-12-02', '2026-12-03'].map((date) =>
          result.current.change('POST', `${AT}/move`, (version) => ({ version, date })),
        ),
      );
    });
    expect(writes().map(({ body }) => body.version)).toEqual([1, 2]);
    expect(stored.date).toBe('2026-12-03');
  });

  it('that is refused as late shows the present state', async () => {
    const { result } = await open();
    stored = { ...stored, time: '12:00', version: 5 };
    await act(async () => {
      await result.current.change('POST', `${AT}/move`, (version) => ({ version, date: '2026-12-02' }));
    });
    expect([result.current.sheet?.time, result.current.sheet?.version]).toEqual(['12:00', 5]);
  });
});

describe('a step back', () => {
  it('is taken in the field it was typed in, forward again, and after a reload', async () => {
    const { result, unmount } = await open();
    act(() => result.current.type('caption', 'Shut'));
    await wait(2_000);
    act(() => void result.current.step('caption', 'undo'));
    expect(result.current.texts?.caption).toBe('Edge on');
    act(() => void result.current.step('caption', 'redo'));
    expect(result.current.texts?.caption).toBe('Shut');
    await wait(500);
    unmount();
    const again = (await open(stored)).result;
    act(() => void again.current.step('caption', 'undo'));
    await wait(500);
    expect(stored.caption).toBe('Edge on');
  });

  it('is none where nothing was typed', async () => {
    const { result } = await open();
    expect(result.current.step('caption', 'undo')).toBe(false);
  });
});

describe('a sheet that is not there yet', () => {
  it('is loaded, and tried again while the server is gone', async () => {
    server.answer = () => 'gone';
    const { result } = await open(null);
    expect(result.current.sheet).toBeNull();
    server.answer = serve;
    await wait(3_000);
    expect(result.current.texts?.caption).toBe('Edge on');
  });

  it('says when it is not there at all', async () => {
    server.answer = () => ({ refusal: { code: 'notFound', message: 'That post is not there.' } });
    const { result } = await open(null);
    expect([result.current.sheet, result.current.problem?.message]).toEqual([null, 'That post is not there.']);
  });

  it('that was open already follows what others saved', async () => {
    const { result } = await open();
    stored = { ...stored, stage: 'published', version: 9 };
    act(() => result.current.reload());
    await wait(0);
    expect(result.current.sheet?.stage).toBe('published');
  });

  it('keeps what was changed while it was loaded anew', async () => {
    const { result } = await open();
    let late = (_reply: Reply) => {};
    const old = { value: stored };
    server.answer = (asked) =>
      asked.method === 'GET' ? new Promise<Reply>((resolve) => (late = resolve)) : serve(asked);
    act(() => result.current.reload());
    await act(() => result.current.change('PATCH', AT, (version) => ({ version, title: 'Rings, cropped' })));
    late(old);
    await wait(0);
    expect([result.current.sheet?.title, result.current.texts?.title]).toEqual(['Rings, cropped', 'Rings, cropped']);
  });
});

it('a sheet as it is typed holds the texts in their places', () => {
  const written = writtenSheet(SHEET, { caption: 'New', [`part:${PART}`]: 'Two' });
  expect([written.caption, written.parts[0]!.text, Object.keys(written)]).toEqual(['New', 'Two', Object.keys(SHEET)]);
});
