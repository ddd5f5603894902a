import { localOf, placePlan, type Instant, type LocalDate, type LocalTime, type Zone } from '@/core/time/plan';
import type { Db } from '@/data/database/db';
import { listScheduledOfBrand } from '@/data/posts/posts';
import { takePosts } from '../posts/takePosts';
import { must, refused, type Doing } from '../useCase';
import type { PostWrite } from '../posts/checkWrites';
import { writeWhatMayBe } from '../posts/writePosts';

/** What scheduled posts keep when their brand changes its zone: the moment they leave at, or the hour on the clock. */
export type ScheduledKeeps = 'moment' | 'clock';

/** A scheduled post, as it stands and as a change of zone would leave it. */
export interface ZoneMove {
  id: string;
  title: string;
  callSign: string;
  /** Its plan in the zone of now. */
  date: LocalDate;
  time: LocalTime;
  /** What the clock of the new zone shows at the moment it leaves now. */
  sameMoment: { date: LocalDate; time: LocalTime };
  /** When it would leave by the new zone's clock; null when that time is past, or is skipped there. */
  sameClock: Instant | null;
}

/** The scheduled posts of a brand beside what another zone would make of them. */
export async function listZoneMoves(db: Db, brandId: string, zone: Zone, now: Instant): Promise<ZoneMove[]> {
  return (await listScheduledOfBrand(db, brandId)).map(({ dueAt, ...post }) => ({
    ...post,
    sameMoment: localOf(dueAt, zone),
    sameClock: maybeInstant(post.date, post.time, zone, now),
  }));
}

/** The instant of a plan in a zone, if it is a real one still to come. */
function maybeInstant(date: LocalDate, time: LocalTime, zone: Zone, now: Instant): Instant | null {
  const placed = placePlan(date, time, zone);
  return placed.kind === 'real' && placed.instant > now ? placed.instant : null;
}

/**
 * Takes the scheduled posts of a brand into another zone: with `moment` they leave when they would have left and their plan is
 * written anew; with `clock` their plan stays and they leave by the new zone's clock. Refused without a decision, while one
 * of them is leaving, and where a post would have to leave in the past.
 */
export async function moveScheduledToZone(
  act: Doing,
  brandId: string,
  zone: Zone,
  keeps: ScheduledKeeps | null,
): Promise<void> {
  const scheduled = await listScheduledOfBrand(act.tx, brandId);
  if (scheduled.length > 0 && keeps === null)
    refused({
      code: 'confirmZone',
      field: 'scheduled',
      message: `${scheduled.length === 1 ? 'One post is' : `${scheduled.length} posts are`} scheduled. Say whether they keep their moment or the hour on the clock.`,
    });
  const taken = await takePosts(
    act,
    scheduled.map(({ id }) => id),
    'manageBrand',
  );
  const writes = scheduled.map(({ id, title, dueAt }): PostWrite => {
    const open = must(taken.get(id)!);
    // What the new plan means is told by the new zone.
    const inZone = { ...open, brand: { ...open.brand, zone } };
    if (keeps === 'moment')
      return {
        open: inZone,
        change: localOf(dueAt, zone),
        deed: 'kept its moment in another zone',
        detail: { zone },
      };
    const instant = maybeInstant(open.post.date!, open.post.time!, zone, act.now);
    if (instant === null)
      refused({
        code: 'noSuchTime',
        field: 'scheduled',
        message: `“${title}” cannot be sent at ${open.post.time} in ${zone}: that is past, or skipped by the clocks. Move it first, or keep the moments.`,
      });
    const detail = { zone, dueAt: instant };
    return { open: inZone, change: {}, retimedTo: instant, deed: 'leaves by another zone’s clock', detail };
  });
  for (const checked of await writeWhatMayBe(act, writes)) must(checked);
}
