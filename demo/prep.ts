import { randomUUID } from 'node:crypto';
import { addDays, daysBetween } from '@/core/time/days';
import { addMs, localOf, type Instant, type LocalDate } from '@/core/time/plan';
import type { Stage } from '@/core/stages/stages';
import type { Format } from '@/core/rulesheets/types';
import type { Queryable } from '@/data/database/db';
import { fillBatchDay, insertBatchDay } from '@/data/prep/batchDays';
import { listStepsOf, updateStep, updateStepDays, type Step } from '@/data/prep/steps';
import type { Piece } from '@/data/pieces/pieces';
import { givePrep, prepOfPiece, prepOfPost } from '@/usecases/prep/givePrep';

const DAY_MS = 86_400_000;
/** Posts of the demo were planned this many days ago. */
const PLANNED_DAYS_AGO = 14;
/** Its pieces were begun this many days ago. */
const PIECES_PLANNED_DAYS_AGO = 40;
/** Published posts of the last days still have their replies to be written. */
const REPLIES_OPEN_DAYS = 2;

interface SeededPost {
  id: string;
  format: Format;
  date: LocalDate | null;
  ownerId: string;
  stage: Stage;
}

/** How many days before today a step is done by, at each stage: work on drafts lags behind. */
const LAG_DAYS: Partial<Record<Stage, number>> = { drafting: 2, production: 1 };

/** Gives the demo's posts their prep, done as far as their stages say, and its pieces theirs, done up to yesterday. */
export async function seedPrep(
  tx: Queryable,
  brand: { id: string; zone: string },
  posts: readonly SeededPost[],
  pieces: readonly Pick<Piece, 'id' | 'kind' | 'ownerId'>[],
  now: Instant,
): Promise<void> {
  const today = localOf(now, brand.zone).date;
  const prepared = posts.filter(
    ({ stage, date }) =>
      stage !== 'setAside' && (stage !== 'published' || daysBetween(date!, today) <= REPLIES_OPEN_DAYS),
  );
  await givePrep(
    { tx, now: addMs(now, -PLANNED_DAYS_AGO * DAY_MS), ids: randomUUID },
    brand.id,
    prepared.map(prepOfPost),
  );
  const ofPieces = await Promise.all(pieces.map((piece) => prepOfPiece({ tx }, piece)));
  await givePrep({ tx, now: addMs(now, -PIECES_PLANNED_DAYS_AGO * DAY_MS), ids: randomUUID }, brand.id, ofPieces);
  const stages = new Map(prepared.map(({ id, stage, ownerId }) => [id, { stage, ownerId }]));
  const steps = await listStepsOf(tx, [...stages.keys()]);
  const done = new Set<string>();
  for (const step of steps) {
    const { stage, ownerId } = stages.get(step.postId!)!;
    const lag = LAG_DAYS[stage];
    const isDone = step.lead >= 0 && (lag === undefined || (step.day !== null && step.day < addDays(today, -lag)));
    if (!isDone) continue;
    const doneOn = step.day !== null && step.day <= today ? step.day : today;
    done.add(step.id);
    await updateStep(tx, { ...step, doneOn, doneAt: `${doneOn}T09:00:00.000Z`, doneBy: step.ownerId ?? ownerId });
  }
  for (const step of await listStepsOf(
    tx,
    pieces.map(({ id }) => id),
  ))
    if (step.day !== null && step.day < today)
      await updateStep(tx, { ...step, doneOn: step.day, doneAt: `${step.day}T09:00:00.000Z`, doneBy: step.ownerId });
  const toRecord = steps.filter(
    ({ id, work, day }) =>
      work === 'recording' && !done.has(id) && day !== null && day > addDays(today, BATCH_FROM_DAYS),
  );
  if (toRecord.length > 1) await seedBatchDay(tx, brand.id, toRecord.slice(0, BATCH_STEPS));
}

/** The demo's batch day takes the recordings due more than this many days ahead. */
const BATCH_FROM_DAYS = 2;
const BATCH_STEPS = 4;

async function seedBatchDay(tx: Queryable, brandId: string, steps: readonly Step[]): Promise<void> {
  const day = steps.map((step) => step.day!).sort()[0]!;
  const batch = {
    id: randomUUID(),
    brandId,
    work: 'recording' as const,
    name: 'Recording in the dome',
    day,
    startsAt: '10:00',
    needs: ['Two microphones', 'The red lamp', 'Keys of the dome'].map((text) => ({
      text,
      done: text.startsWith('Two'),
    })),
  };
  const { ownerId } = steps.find((step) => step.ownerId !== null) ?? {};
  if (!ownerId) return;
  await insertBatchDay(tx, { ...batch, createdBy: ownerId });
  await fillBatchDay(
    tx,
    batch,
    steps.map(({ id }) => id),
  );
  await updateStepDays(
    tx,
    steps.map(({ id, plannedOn }) => ({ id, day, plannedOn })),
  );
}
