import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { msBetween } from '../time/plan';
import { afterTry, isLeaving, isSettled, JITTER_SHARE, mayBeOut, nextAsk, nextStep, RETRY_DELAYS_MS } from './delivery';

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

it('a network is asked again after 5 minutes, 15, an hour, then daily for a week, and then not by itself', () => {
  const waits = Array.from({ length: 11 }, (_, asks) => {
    const at = nextAsk(asks, NOW);
    return at && msBetween(NOW, at) / 60_000;
  });
  expect(waits).toEqual([5, 15, 60, ...Array<number>(7).fill(24 * 60), null]);
});

it('may be out what is unsure and not known to be sent', () => {
  expect(mayBeOut({ state: 'withdrawn', unsure: true })).toBe(true);
  expect(mayBeOut({ state: 'withdrawn', unsure: false })).toBe(false);
  expect(mayBeOut({ state: 'sent', unsure: true })).toBe(false);
});
