import type { Slip } from './slip';

/** A slip for tests, all of it usual but what is given. */
export const testSlip = (change: Partial<Slip> = {}): Slip => ({
  id: 'a',
  brandId: 'b',
  pieceId: 'p',
  channelId: 'c',
  callSign: 'GR',
  title: 'Dome night',
  date: '2026-11-26',
  time: '14:30',
  stage: 'production',
  format: 'photo',
  ownerId: 'o',
  pillarId: null,
  campaignId: null,
  repeatNumber: null,
  hasWords: true,
  version: 1,
  missing: null,
  thumb: null,
  delivery: null,
  progress: [],
  nextWork: null,
  ...change,
});
