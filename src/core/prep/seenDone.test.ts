import { describe, expect, it } from 'vitest';
import { AS_IT_IS } from '../media/fit';
import { SHIPPED_RULE_SHEETS } from '../rulesheets/shipped';
import { offeredAsDone, worksSeen } from './seenDone';
import type { Work } from './step';

const sheet = (slug: string) => SHIPPED_RULE_SHEETS.find((one) => one.slug === slug)!;
const picture = { mime: 'image/png', bytes: 1_000, width: 1_080, height: 1_080, ...AS_IT_IS };
const post = (change: Partial<Parameters<typeof worksSeen>[0]>): Parameters<typeof worksSeen>[0] => ({
  format: 'photo',
  title: 'Rings',
  stage: 'drafting',
  headline: '',
  caption: '',
  hashtags: '',
  link: '',
  pictures: [],
  ...change,
});
const seen = (change: Parameters<typeof post>[0], unread = 0) =>
  [...worksSeen(post(change), sheet('glassrow'), unread)].sort();

describe('work that a post shows as done', () => {
  it('is none while there is nothing', () => expect(seen({})).toEqual([]));
  it('is the words, once the network takes them', () => {
    expect(seen({ caption: 'Rings tonight' })).toEqual(['words']);
    expect(seen({ caption: 'x'.repeat(10_000) })).toEqual([]);
  });
  it('is not the words of a draft that nobody has read', () => expect(seen({ caption: 'Rings' }, 1)).toEqual([]));
  it('is the picture, once the network takes it', () => {
    expect(seen({ pictures: [picture] })).toEqual(['picture']);
    expect(seen({ pictures: [{ ...picture, width: 40, height: 40 }] })).toEqual([]);
  });
  it('is recording with any video, and editing with one that the network takes', () => {
    const clip = { ...picture, mime: 'video/mp4', width: 1_080, height: 1_920, durationMs: 20_000 };
    const shown = (durationMs: number) =>
      [...worksSeen(post({ format: 'shortVideo', pictures: [{ ...clip, durationMs }] }), sheet('tallclip'), 0)].sort();
    expect(shown(20_000)).toEqual(['editing', 'recording']);
    expect(shown(9_000_000)).toEqual(['recording']);
  });
  it('is sending, once it is scheduled', () => expect(seen({ stage: 'scheduled' })).toEqual(['sending']));
});

it('offers of each sort the first open step, and nothing that follows publishing', () => {
  const step = (id: string, work: Work, lead = 1, doneOn: string | null = null) => ({ id, work, lead, doneOn });
  const steps = [
    step('script', 'words', 3, '2026-11-20'),
    step('caption', 'words'),
    step('hashtags', 'words'),
    step('cover', 'picture'),
    step('replies', 'sending', -1),
  ];
  const offered = offeredAsDone(steps, new Set<Work>(['words', 'sending']));
  expect(offered.map(({ id }) => id)).toEqual(['caption']);
});
