import { describe, expect, it } from 'vitest';
import { SHIPPED_RULE_SHEETS } from '../rulesheets/shipped';
import { holdsFor, holdsOn, readFits, type Fits } from '../shelf/fits';
import { callsOn, withCalls, type CallGround } from './calls';
import type { FanOutPost } from './ground';

const post = (at: number, date: string | null, caption = `Point ${at}.`): FanOutPost & { date: string | null } => ({
  ...{ key: `k${at}`, row: 0, number: at, channelId: 'benchfeed', format: 'text', offset: 0, gap: 7, from: [], date },
  drafts: [{ variant: null, words: { caption, hashtags: '', link: '' }, parts: [], sentences: [] }],
});
const ground = (fits: Fits, more: Partial<CallGround> = {}): CallGround => ({
  ...{ kind: 'talk', title: 'A night of stars', calls: [{ text: 'Come up.', fits }], under: null, seed: 1 },
  sheets: new Map(SHIPPED_RULE_SHEETS.map((sheet) => [sheet.slug, sheet])),
  ...more,
});
const captions = (posts: readonly FanOutPost[]) => posts.map(({ drafts }) => drafts[0]!.words.caption);
// 2026-12-03 is a Thursday.
const WEEK = [
  post(0, '2026-12-08'),
  post(1, '2026-12-03'),
  post(2, '2026-12-04'),
  post(3, '2026-12-07'),
  post(4, null),
];

describe('a call to action', () => {
  it('ends at most every third post, in the order of their dates', () => {
    const called = withCalls(WEEK, ground({}));
    expect(captions(called)).toEqual(['Point 0.', 'Point 1.', 'Point 2.', 'Point 3.\n\nCome up.', 'Point 4.']);
    expect(called[3]!.drafts[0]!.sentences).toEqual([{ field: 'caption', text: 'Come up.', origin: 'shelf' }]);
    const many = withCalls(
      Array.from({ length: 9 }, (_, at) => post(at, '2026-12-03')),
      ground({}),
    );
    expect(captions(many).filter((caption) => caption!.includes('Come up'))).toHaveLength(3);
  });

  it('stands nowhere where none holds, and only where it holds', () => {
    const calledIn = (fits: Fits) => captions(withCalls(WEEK, ground(fits))).filter((one) => one!.includes('Come up'));
    expect(calledIn({ kinds: ['article'] })).toEqual([]);
    expect(calledIn({ networks: ['glassrow'] })).toEqual([]);
    expect(calledIn({ about: 'harbour, ferry' })).toEqual([]);
    expect(calledIn({ about: 'harbour, stars' })).toHaveLength(1);
    expect(calledIn({ until: '2026-12-02' })).toEqual([]);
    expect(calledIn({ weekdays: [2] })).toEqual(['Point 0.\n\nCome up.']);
    expect(calledIn({ weekdays: [6] })).toEqual([]);
  });

  it('is left off where it does not fit', () => {
    const full = WEEK.map((one) => ({ ...one, drafts: post(one.number, one.date, 'x'.repeat(2_325)).drafts }));
    expect(withCalls(full, ground({}))).toEqual(full);
    expect(captions(withCalls(WEEK, ground({}, { under: 12 })))).toEqual(captions(WEEK));
  });
});

describe('what else of the shelf ends drafts', () => {
  const item = (kind: 'callToAction' | 'quote' | 'link' | 'reply', fits: Fits) => ({
    ...{ kind, fits, title: 'The map', text: kind === 'link' ? 'https://sky.example/map' : 'It was quiet.' },
    source: kind === 'quote' ? 'Ana' : '',
  });

  it('is a testimonial or a link that says for what it holds, and nothing else', () => {
    expect(callsOn(['callToAction', 'quote', 'link', 'reply'].map((kind) => item(kind as 'quote', {})))).toEqual([
      { text: 'It was quiet.', fits: {} },
    ]);
    const fits = { about: 'stars' };
    expect(callsOn([item('quote', fits), item('link', fits), item('reply', fits)])).toEqual([
      { text: '“It was quiet.” (Ana)', fits },
      { text: 'The map: https://sky.example/map', fits, isLink: true },
    ]);
  });

  it('is no link where nobody can follow it', () => {
    const calls = callsOn([item('link', { about: 'stars' })]);
    const on = (channelId: string) =>
      captions(
        withCalls(
          WEEK.map((one) => ({ ...one, channelId })),
          ground({}, { calls }),
        ),
      ).filter((one) => one!.includes('sky.example'));
    expect([on('benchfeed').length, on('glassrow').length]).toEqual([1, 0]);
  });

  it('is told with its post, so that it can be looked at again where that is moved', () => {
    const [called] = withCalls(WEEK, ground({ weekdays: [2] })).filter(({ call }) => call);
    expect([called!.key, called!.call]).toEqual(['k0', { text: 'Come up.', fits: { weekdays: [2] } }]);
    expect(['2026-12-08', '2026-12-09', null].map((date) => holdsOn(called!.call!.fits, date))).toEqual([
      true,
      false,
      false,
    ]);
  });
});

describe('for what an item holds', () => {
  it('is checked, and what says nothing is left out', () => {
    expect(readFits({ kinds: [], networks: [], weekdays: [5, 4, 5], about: '  star   night ' })).toEqual({
      ok: true,
      value: { weekdays: [4, 5], about: 'star night' },
    });
    expect(readFits({ weekdays: [0] })).toMatchObject({ ok: false, refusal: { field: 'fits' } });
    expect(readFits({ until: '2026-02-30' })).toMatchObject({ ok: false });
    expect(readFits({ about: 'x'.repeat(201) })).toMatchObject({ ok: false, refusal: { code: 'longText' } });
  });

  it('asks for a date where it asks for days', () => {
    const undated = { kind: 'talk' as const, network: 'pithline', date: null, words: '' };
    expect(holdsFor({}, undated)).toBe(true);
    expect(holdsFor({ weekdays: [1, 2, 3, 4, 5, 6, 7] }, undated)).toBe(false);
    expect(holdsFor({ until: '2027-01-01' }, undated)).toBe(false);
  });
});
