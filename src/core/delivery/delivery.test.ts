import { AS_IT_IS } from '../media/fit';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SHIPPED_RULE_SHEETS } from '../rulesheets/shipped';
import { msBetween } from '../time/plan';
import { fitnessOf, type DepartureFacts } from './departure';
import { afterTry, isLeaving, JITTER_SHARE, nextStep, RETRY_DELAYS_MS } from './delivery';
import { differsFromParcel, makeParcel } from './parcel';

const NOW = '2026-11-23T14:30:00.000Z';

describe('what to do with a due delivery', () => {
  const due = { attempts: 0, unsure: false, nextTryAt: NOW };
  it.each([
    ['never tried, on time', due, 'send'],
    ['never tried, 30 minutes late', { ...due, nextTryAt: '2026-11-23T14:00:00.000Z' }, 'send'],
    ['never tried, later than that', { ...due, nextTryAt: '2026-11-23T13:59:59.000Z' }, 'hold'],
    ['tried before, however late', { ...due, attempts: 1, nextTryAt: '2026-11-20T00:00:00.000Z' }, 'send'],
    ['perhaps out already', { ...due, attempts: 1, unsure: true }, 'askFirst'],
    ['perhaps out already, and late', { attempts: 1, unsure: true, nextTryAt: '2026-11-20T00:00:00.000Z' }, 'askFirst'],
  ])('%s', (_name, delivery, step) => expect(nextStep(delivery, NOW)).toBe(step));
});

describe('after a try', () => {
  it('is sent when accepted', () =>
    expect(afterTry({ kind: 'accepted', address: '/x' }, 3, NOW, 0)).toEqual({
      state: 'sent',
      unsure: false,
      nextTryAt: null,
      address: '/x',
      words: null,
    }));
  it('fails at once when refused', () =>
    expect(afterTry({ kind: 'refused', words: 'no' }, 1, NOW, 0)).toMatchObject({
      state: 'failed',
      unsure: false,
      words: 'no',
    }));
  it('waits 1, 5 and 15 minutes, then gives up', () => {
    const waits = [1, 2, 3, 4].map((attempt) => afterTry({ kind: 'tryLater', words: 'busy' }, attempt, NOW, 0));
    expect(waits.map(({ state, nextTryAt }) => [state, nextTryAt && msBetween(NOW, nextTryAt) / 60_000])).toEqual([
      ['waiting', 1],
      ['waiting', 5],
      ['waiting', 15],
      ['failed', null],
    ]);
  });
  it('is unsure when no answer came, also when it gives up', () => {
    expect(afterTry({ kind: 'unknown', words: '…' }, 1, NOW, 0)).toMatchObject({ state: 'waiting', unsure: true });
    expect(afterTry({ kind: 'unknown', words: '…' }, 4, NOW, 0)).toMatchObject({ state: 'failed', unsure: true });
  });
  it('adds a bounded jitter, never less than the wait', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 3 }), fc.double({ min: 0, max: 0.999, noNaN: true }), (attempt, chance) => {
        const { nextTryAt } = afterTry({ kind: 'tryLater', words: '' }, attempt, NOW, chance);
        const wait = msBetween(NOW, nextTryAt!);
        const least = RETRY_DELAYS_MS[attempt - 1]!;
        return wait >= least && wait <= least * (1 + JITTER_SHARE) + 1;
      }),
    );
  });
});

it('is leaving while it is sent, or may have been', () => {
  expect(isLeaving(null)).toBe(false);
  expect(isLeaving({ state: 'sending', unsure: false })).toBe(true);
  expect(isLeaving({ state: 'waiting', unsure: true })).toBe(true);
  expect(isLeaving({ state: 'waiting', unsure: false })).toBe(false);
  expect(isLeaving({ state: 'failed', unsure: true })).toBe(false);
});

describe('a parcel', () => {
  const sheet = SHIPPED_RULE_SHEETS.find((candidate) => candidate.slug === 'pithline')!;
  const picture = {
    sha256: 'a'.repeat(64),
    mime: 'image/png',
    alt: 'The dome',
    fileName: 'dome.png',
    bytes: 10,
    width: 900,
    height: 900,
    ...AS_IT_IS,
  };
  const post = {
    headline: '',
    caption: 'Open',
    hashtags: 'Sky',
    link: 'https://a.example',
    format: 'text' as const,
    pictures: [picture],
  };
  const parcel = makeParcel(post, { account: '@moor', sheet });

  it('holds the composed text', () =>
    expect(parcel).toMatchObject({
      network: 'pithline',
      account: '@moor',
      texts: [{ name: 'caption', text: 'Open\n\nhttps://a.example\n\n#Sky' }],
      hashtags: ['#Sky'],
    }));
  it.each([
    ['nothing', {}, false],
    ['the caption', { caption: 'Shut' }, true],
    ['hashtags', { hashtags: '' }, true],
    ['the link', { link: '' }, true],
    ['the format', { format: 'photo' as const }, true],
    ['an alt text', { pictures: [{ ...picture, alt: 'Dome' }] }, true],
    ['a picture less', { pictures: [] }, true],
    ['a crop', { pictures: [{ ...picture, crop: { x: 0, y: 0, width: 0.5, height: 1 } }] }, true],
    ['the type it is converted to', { pictures: [{ ...picture, toMime: 'image/jpeg' }] }, true],
  ])('differs when one changes %s', (_name, change, expected) =>
    expect(differsFromParcel({ ...post, ...change }, parcel)).toBe(expected),
  );
});

describe('how a departure stands', () => {
  const scheduled: DepartureFacts = {
    stage: 'scheduled',
    mode: 'automatic',
    state: 'waiting',
    unsure: false,
    attempts: 0,
    dueAt: NOW,
    blocks: [],
  };
  const block = { code: 'noText', field: 'caption', short: 'no caption', message: 'x' } as const;
  it.each([
    ['fit', {}, 'fit'],
    ['tried once', { attempts: 1 }, 'retrying'],
    ['under way', { state: 'sending' as const }, 'sending'],
    ['failed', { state: 'failed' as const }, 'failed'],
    ['held', { state: 'held' as const }, 'held'],
    ['out', { stage: 'published' as const, state: 'sent' as const }, 'out'],
    ['by hand, due', { mode: 'byHand' as const }, 'handOver'],
    ['by hand, to come', { mode: 'byHand' as const, dueAt: '2026-11-23T14:31:00.000Z' }, 'handOverToCome'],
    ['only dated', { stage: 'ready' as const, state: null }, 'notScheduled'],
    ['dated and blocked', { stage: 'making' as const, state: null, blocks: [block] }, 'notFit'],
  ])('%s', (_name, change, expected) => expect(fitnessOf({ ...scheduled, ...change }, NOW)).toBe(expected));
});
