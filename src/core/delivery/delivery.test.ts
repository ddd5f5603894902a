import { AS_IT_IS } from '../media/fit';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SHIPPED_RULE_SHEETS } from '../rulesheets/shipped';
import { msBetween } from '../time/plan';
import { fitnessOf, type DepartureFacts } from './departure';
import { afterTry, isLeaving, isSettled, JITTER_SHARE, nextStep, RETRY_DELAYS_MS } from './delivery';
import { differsFromParcel, makeParcel } from './parcel';

const NOW = '2026-11-23T14:30:00.000Z';

describe('what to do with a due delivery', () => {
  const due = { unsureSince: null, lateFrom: NOW };
  const [halfAnHour, longer] = ['2026-11-23T14:00:00.000Z', '2026-11-23T13:59:59.000Z'];
  it.each([
    ['on time', due, 'send'],
    ['30 minutes late', { ...due, lateFrom: halfAnHour }, 'send'],
    ['later than that', { ...due, lateFrom: longer }, 'hold'],
    ['may be published already', { ...due, unsureSince: halfAnHour }, 'askFirst'],
    ['may be published already, and late', { unsureSince: longer, lateFrom: longer }, 'askThenHold'],
  ])('%s', (_name, delivery, step) => expect(nextStep(delivery, NOW)).toBe(step));
});

describe('after a try', () => {
  it('is sent when accepted', () =>
    expect(afterTry({ kind: 'accepted', address: '/x' }, 3, NOW, NOW, 0)).toEqual({
      state: 'sent',
      unsureSince: null,
      isDoubted: false,
      nextTryAt: null,
      askAt: null,
      words: null,
    }));
  it('fails at once when refused', () =>
    expect(afterTry({ kind: 'refused', words: 'no' }, 1, null, NOW, 0)).toMatchObject({
      state: 'failed',
      unsureSince: null,
      words: 'no',
    }));
  it('waits 1, 5 and 15 minutes, then gives up', () => {
    const waits = [1, 2, 3, 4].map((attempt) => afterTry({ kind: 'tryLater', words: 'busy' }, attempt, null, NOW, 0));
    expect(waits.map(({ state, nextTryAt }) => [state, nextTryAt && msBetween(NOW, nextTryAt) / 60_000])).toEqual([
      ['waiting', 1],
      ['waiting', 5],
      ['waiting', 15],
      ['failed', null],
    ]);
  });
  it('is unsure when no answer came, and unknown, not failed, when it gives up', () => {
    const silence = { kind: 'unknown', words: '…' } as const;
    expect(afterTry(silence, 1, null, NOW, 0)).toMatchObject({ state: 'waiting', unsureSince: NOW, askAt: null });
    expect(afterTry(silence, 4, null, NOW, 0)).toMatchObject({
      state: 'unknown',
      unsureSince: NOW,
      askAt: '2026-11-23T14:35:00.000Z',
    });
  });
  it('stays unsure where an earlier try was, until that is known', () => {
    const earlier = '2026-11-23T14:25:00.000Z';
    const busy = { kind: 'tryLater', words: 'busy' } as const;
    expect(afterTry(busy, 2, earlier, NOW, 0)).toMatchObject({ state: 'waiting', unsureSince: earlier });
    expect(afterTry(busy, 4, earlier, NOW, 0)).toMatchObject({ state: 'unknown', unsureSince: earlier });
  });
  it('adds a bounded jitter, never less than the wait', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 3 }), fc.double({ min: 0, max: 0.999, noNaN: true }), (attempt, chance) => {
        const { nextTryAt } = afterTry({ kind: 'tryLater', words: '' }, attempt, null, NOW, chance);
        const wait = msBetween(NOW, nextTryAt!);
        const least = RETRY_DELAYS_MS[attempt - 1]!;
        return wait >= least && wait <= least * (1 + JITTER_SHARE) + 1;
      }),
    );
  });
});

it('is leaving while it is sent, or is tried again because nobody knows', () => {
  const waiting = { state: 'waiting', unsure: false, awaitsRelease: false, attempts: 0 } as const;
  expect(isLeaving(null)).toBe(false);
  expect(isLeaving({ ...waiting, state: 'sending' })).toBe(true);
  expect(isLeaving({ ...waiting, unsure: true, attempts: 1 })).toBe(true);
  // After a restore nobody knows, but nothing is under way.
  expect(isLeaving({ ...waiting, unsure: true })).toBe(false);
  expect(isLeaving(waiting)).toBe(false);
  expect(isLeaving({ state: 'unknown', unsure: true, attempts: 4 })).toBe(false);
});

it('a network that has nothing is believed a minute after the call that got no answer', () => {
  expect(isSettled(null, NOW)).toBe(true);
  expect(isSettled('2026-11-23T14:29:00.000Z', NOW)).toBe(true);
  expect(isSettled('2026-11-23T14:29:01.000Z', NOW)).toBe(false);
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
    awaitsRelease: false,
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
    ['kept back since a restore', { awaitsRelease: true }, 'awaitsRelease'],
    ['may be published', { state: 'unknown' as const, unsure: true }, 'unknown'],
    ['out', { stage: 'published' as const, state: 'sent' as const }, 'out'],
    ['by hand, due', { mode: 'byHand' as const }, 'handOver'],
    ['by hand, to come', { mode: 'byHand' as const, dueAt: '2026-11-23T14:31:00.000Z' }, 'handOverToCome'],
    ['only dated', { stage: 'ready' as const, state: null }, 'notScheduled'],
    ['dated and blocked', { stage: 'production' as const, state: null, blocks: [block] }, 'notFit'],
  ])('%s', (_name, change, expected) => expect(fitnessOf({ ...scheduled, ...change }, NOW)).toBe(expected));
});
