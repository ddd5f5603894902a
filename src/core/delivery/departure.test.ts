import { describe, expect, it } from 'vitest';
import { fitnessOf, type DepartureFacts, type Fitness } from './departure';

const DUE = '2026-11-26T14:30:00.000Z';
const scheduled: DepartureFacts = {
  stage: 'scheduled',
  mode: 'automatic',
  state: 'waiting',
  unsure: false,
  awaitsRelease: false,
  isBrandHeld: false,
  attempts: 0,
  dueAt: DUE,
  blocks: [],
};
const block = { code: 'tooLong', field: 'caption', short: 'too long', message: 'Too long.' } as const;

describe('how a departure stands', () => {
  it.each<[Fitness, string, Partial<DepartureFacts>]>([
    ['fit', 'scheduled', {}],
    ['retrying', 'tried before', { attempts: 1 }],
    ['out', 'published, whatever its delivery says', { stage: 'published', state: 'failed' }],
    ['notScheduled', 'ready, not scheduled', { stage: 'ready', state: null }],
    ['notScheduled', 'ready, with a delivery left over', { stage: 'ready', state: 'waiting' }],
    ['notScheduled', 'scheduled without a delivery', { state: null }],
    ['notFit', 'ready, but too long', { stage: 'ready', state: null, blocks: [block] }],
    ['awaitsRelease', 'kept back, whatever else', { awaitsRelease: true, state: 'failed' }],
    ['sending', 'under way', { state: 'sending' }],
    ['sending', 'under way as all are put on hold', { state: 'sending', isBrandHeld: true }],
    ['heldWithAll', 'on hold with all of its brand', { isBrandHeld: true }],
    ['heldWithAll', 'by hand, on hold with all', { isBrandHeld: true, mode: 'byHand' }],
    ['failed', 'failed, and all on hold', { isBrandHeld: true, state: 'failed' }],
    ['failed', 'failed', { state: 'failed' }],
    ['held', 'on hold', { state: 'held' }],
    ['unknown', 'nobody knows', { state: 'unknown' }],
    ['handOver', 'by hand, at its very time', { mode: 'byHand' }],
    ['handOverToCome', 'by hand, later', { mode: 'byHand', dueAt: '2026-11-26T14:30:00.001Z' }],
    ['handOverToCome', 'by hand, without a time', { mode: 'byHand', dueAt: null }],
  ])('%s: %s', (expected, _name, change) => expect(fitnessOf({ ...scheduled, ...change }, DUE)).toBe(expected));
});
