import type { PostSheet } from '@/core/posts/sheet';
import type { Slip } from '@/core/calendar/slip';
import { STAGES } from '@/core/stages/stages';
import type { LocalDate } from '@/core/time/plan';
import type { Shell } from '@/ui/shell';
import type { Timetable } from './timetable';

/** A brand whose posts show, with what belongs to it. */
export interface BrandShown extends Pick<Shell, 'brand' | 'channels' | 'people' | 'pillars' | 'campaigns'> {
  today: LocalDate;
}

const STAGE_COLOURS = ['#8B9097', '#5C6470', '#C98A00', '#3B6E7A', '#3B5F7D', '#134E5E'];
const OWNER_COLOURS = ['#3B5F7D', '#B4531F', '#2E7D50', '#94304B', '#6B5B2A', '#4A4E8C', '#3B6E7A', '#7A3B69'];

/** What the calendar tells its parts, from the brands whose posts show. */
export function timetableOf(brandsShown: readonly BrandShown[], look: Timetable['look'], today: LocalDate): Timetable {
  const channels = new Map(brandsShown.flatMap((one) => one.channels).map((channel) => [channel.id, channel]));
  const people = unique(brandsShown.flatMap((one) => one.people));
  const pillars = new Map(brandsShown.flatMap((one) => one.pillars).map((pillar) => [pillar.id, pillar]));
  const todays = new Map(brandsShown.map((one) => [one.brand.id, one.today]));
  const ownerIndex = new Map(people.map(({ id }, index) => [id, index]));
  return {
    channels,
    look,
    today,
    todayOf: (brandId) => todays.get(brandId) ?? today,
    zoneOf: (brandId) => brandsShown.find(({ brand }) => brand.id === brandId)?.brand.zone ?? 'UTC',
    bandOf: (slip) => {
      switch (look.colour) {
        case 'channel':
          return null;
        case 'stage':
          return slip.stage === 'setAside' ? '#8B9097' : STAGE_COLOURS[STAGES.indexOf(slip.stage)]!;
        case 'pillar':
          return (slip.pillarId && pillars.get(slip.pillarId)?.color) || 'var(--rule)';
        case 'owner':
          return OWNER_COLOURS[(ownerIndex.get(slip.ownerId) ?? 0) % OWNER_COLOURS.length]!;
      }
    },
    ownerName: nameIn(people),
    pillarName: (id) => pillars.get(id)?.name ?? '',
  };
}

/** The brand that the open post belongs to, if it is one of those that show. */
export function brandOfSlip(
  brandsShown: readonly BrandShown[],
  openSheet: PostSheet | null,
  slips: readonly Slip[],
  openId: string | null,
): BrandShown | undefined {
  const channelId = slips.find(({ id }) => id === openId)?.channelId ?? openSheet?.channelId;
  return brandsShown.find((one) => one.channels.some(({ id }) => id === channelId));
}

/** Looks names up by id; empty for an id that is not there. */
export const nameIn =
  (list: readonly { id: string; name: string }[]) =>
  (id: string): string =>
    list.find((item) => item.id === id)?.name ?? '';

/** Each thing once, by its id. */
export const unique = <T extends { id: string }>(list: readonly T[]): T[] => [
  ...new Map(list.map((item) => [item.id, item])).values(),
];
