import { countBack } from '@/core/prep/countBack';
import { workedOn, type WorkCalendar } from '@/core/prep/workdays';
import { groupBy } from '@/core/group';
import { localOf, type Instant, type LocalDate } from '@/core/time/plan';
import { oneBrand } from '@/data/brands/brands';
import type { Queryable } from '@/data/database/db';
import { workCalendars } from '@/data/people/people';
import { listPreparedPiecesOf } from '@/data/pieces/pieces';
import { listAnchors } from '@/data/posts/posts';
import { listDaysOff } from '@/data/rhythm/rhythms';
import { holderOf, listStepsOf, updateStepDays, type Step } from '@/data/prep/steps';

/** A step as far as its day is counted. */
type Counted = Pick<Step, 'ownerId' | 'lead' | 'leadIn' | 'pinned' | 'doneOn'>;

/** The days of the steps of one post or piece, in their order; an unpinned step of one without a day has none. */
type CountDays = (publishingDay: LocalDate | null, steps: readonly Counted[]) => (LocalDate | null)[];

/** Reads the working days that steps of a brand are counted in: each person's own, and the brand's where nobody is named. */
export async function readCounting(
  db: Queryable,
  brandId: string,
  personIds: readonly (string | null)[],
): Promise<CountDays> {
  const brand = await oneBrand(db, brandId);
  const ids = [...new Set(personIds.filter((id) => id !== null))];
  const [calendars, daysOff] = await Promise.all([workCalendars(db, ids), listDaysOff(db, brandId)]);
  const ofBrand: WorkCalendar = { weekdays: brand.weekdays, daysOff };
  const worked = new Map([...calendars].map(([id, calendar]) => [id, workedOn(calendar)]));
  const workedByBrand = workedOn(ofBrand);
  return (publishingDay, steps) =>
    publishingDay === null
      ? steps.map(({ doneOn, pinned }) => doneOn ?? pinned)
      : countBack(publishingDay, steps, ({ ownerId }) => worked.get(ownerId ?? '') ?? workedByBrand);
}

/**
 * Counts the steps of posts and pieces of a brand anew and keeps their days. Those whose day changes take today as the day
 * they were planned on when their post was planned anew, so that what has no time left is told as squeezed.
 */
export async function recount(
  tx: Queryable,
  brandId: string,
  holderIds: readonly string[],
  now: Instant,
  { isReplanned = false } = {},
): Promise<void> {
  const steps = await listStepsOf(tx, holderIds);
  if (steps.length === 0) return;
  const count = await readCounting(
    tx,
    brandId,
    steps.map(({ ownerId }) => ownerId),
  );
  const today = localOf(now, (await oneBrand(tx, brandId)).zone).date;
  const anchors = await listAnchors(tx, holderIds);
  const changed = [...groupBy(steps, holderOf)].flatMap(([holderId, own]) => {
    const days = count(anchors.get(holderId) ?? null, own);
    return own.flatMap((step, index) => {
      const day = days[index]!;
      if (step.doneOn !== null || (day === step.day && !isReplanned)) return [];
      return [{ id: step.id, day, plannedOn: isReplanned || step.plannedOn === null ? today : step.plannedOn }];
    });
  });
  await updateStepDays(tx, changed);
}

/** Counts the own steps of the pieces of posts anew, since a post came, went, or was given another day. */
export async function recountPiecesOf(
  tx: Queryable,
  brandId: string,
  postIds: readonly string[],
  now: Instant,
): Promise<void> {
  await recount(tx, brandId, await listPreparedPiecesOf(tx, postIds), now);
}
