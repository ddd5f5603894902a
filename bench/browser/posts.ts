import { SHIPPED_RULE_SHEETS } from '@/core/rulesheets/shipped';
import { addDays } from '@/core/time/days';
import { STAGES } from '@/core/stages/stages';
import type { Slip } from '@/core/calendar/slip';

/** Monday of the first week the month arrangement of November 2026 shows, and how many days it shows. */
export const FIRST_DAY = '2026-10-26';
export const MONTH_DAYS = 42;
export const CHANNELS = Array.from({ length: 12 }, (_, index) => ({
  id: `channel-${index}`,
  brandId: 'bench',
  name: `Channel ${index + 1}`,
  callSign: `C${String.fromCharCode(65 + index)}`,
  color: ['#2E7D50', '#6B7A2A', '#7A3B69', '#B4531F', '#3B6E7A', '#4A4E8C'][index % 6]!,
  sheet: SHIPPED_RULE_SHEETS[index % SHIPPED_RULE_SHEETS.length]!,
}));

/** The same made-up posts for all that are compared: spread over `days` days from the first, without pictures. */
export function benchPosts(count: number, days: number, first = FIRST_DAY): Slip[] {
  return Array.from({ length: count }, (_, index): Slip => {
    const channel = CHANNELS[(index * 7) % CHANNELS.length]!;
    const minutes = 360 + ((index * 37) % 960);
    return {
      id: `post-${index}`,
      brandId: 'bench',
      pieceId: 'piece',
      channelId: channel.id,
      callSign: channel.callSign,
      title: `Post ${index}: rings seen edge on`,
      date: addDays(first, index % days),
      time: `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`,
      // None is published, so that each may be moved.
      stage: STAGES[index % 5]!,
      format: 'text',
      ownerId: 'ines',
      pillarId: null,
      campaignId: null,
      repeatNumber: null,
      hasWords: true,
      version: 1,
      missing: index % 4 === 0 ? 'no picture' : null,
      thumb: null,
      delivery: null,
      progress: [],
      nextWork: null,
    };
  });
}
