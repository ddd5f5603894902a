import { quoted } from '@/core/calendar/change';
import { counted } from '@/core/words';
import { groupBy } from '@/core/group';
import { readPrep, readStep, STEPS_LIMIT, type PrepLine } from '@/core/prep/step';
import { SHIPPED_PREP } from '@/core/prep/shipped';
import { PREP_SUBJECTS, type PrepSubject } from '@/core/prep/subject';
import type { Result } from '@/core/refusal';
import { localOf, readDate, type LocalDate } from '@/core/time/plan';
import { oneBrand } from '@/data/brands/brands';
import { maybePerson, worksForBrand } from '@/data/people/people';
import { deletePrepSheet, replacePrepSheet } from '@/data/prep/prepSheets';
import { prepSheetKey } from '@/data/brands/settingVersions';
import {
  deleteSteps,
  handSteps,
  holderOf,
  insertSteps,
  listStepsById,
  listStepsOf,
  maybeStepForUpdate,
  orderSteps,
  STEP_FIELDS,
  updateStep,
  type Step,
} from '@/data/prep/steps';
import { isSame } from '../undo/sinceThen';
import { changedStep, noteChange } from '../undo/noteChange';
import { undoably } from '../undo/undoably';
import { recount } from './countPrep';
import { prepOfPiece, prepOfPost, replacePrep, type Unprepared } from './givePrep';
import { mustMay } from '../rights/mustMay';
import { ownPiece } from '../pieces/pieces';
import { takePost } from '../posts/takePosts';
import { takeSetting } from '../brands/takeSetting';
import { doing, must, notFound, refused, STALE, type Doing, type Work } from '../useCase';

/** What can be changed of a step. What is absent stays. */
export type StepChange = Partial<PrepLine & { pinned: LocalDate | null }>;

/** The post or piece whose steps changed. */
export type StepOutcome = Pick<Step, 'postId' | 'pieceId'>;

/** Steps handed over at once. */
const HAND_LIMIT = 500;

/** Ticks a step, or takes the tick back. The day it was done is the brand's today. */
export function tickStep(work: Work, id: string, isDone: boolean): Promise<Result<StepOutcome>> {
  return doing(work, async (act) => {
    const step = await takeStep(act, id);
    if ((step.doneAt !== null) === isDone) return outcomeOf(step);
    const today = localOf(act.now, (await oneBrand(act.tx, step.brandId)).zone).date;
    const done = isDone
      ? { doneAt: act.now, doneOn: today, doneBy: act.actorId }
      : { doneAt: null, doneOn: null, doneBy: null };
    await write(act, step, done, isDone ? 'Ticked' : 'Unticked');
    await act.note(stepDeed(step, isDone ? 'step done' : 'step open again'));
    return outcomeOf(step);
  });
}

/** Changes a step: its words, who does it, its lead, or the day it is pinned to. */
export function changeStep(work: Work, id: string, version: number, change: StepChange): Promise<Result<StepOutcome>> {
  return doing(work, async (act) => {
    const step = await takeStep(act, id);
    if (step.version !== version) refused(STALE);
    if (change.pinned) must(readDate(change.pinned, 'pinned'));
    if (change.ownerId) await mustBeHand(act, change.ownerId, step.brandId);
    await write(act, step, must(readStep({ ...step, ...change })), 'Changed the step');
    await act.note(stepDeed(step, 'step changed', change));
    return outcomeOf(step);
  });
}

/** Adds a step to a post or piece, after those it has. @returns its id */
export function addStep(work: Work, of: HolderKey, line: PrepLine): Promise<Result<{ id: string }>> {
  return doing(work, async (act) => {
    const { brandId, holderId, postId, pieceId } = await takeHolder(act, of);
    const steps = await listStepsOf(act.tx, [holderId]);
    if (steps.length >= STEPS_LIMIT)
      refused({ code: 'tooManySteps', message: `A post or piece has ${STEPS_LIMIT} steps at most.` });
    const read = must(readStep(line));
    if (read.ownerId) await mustBeHand(act, read.ownerId, brandId);
    const id = act.ids();
    const position = Math.max(0, ...steps.map((step) => step.position)) + 1;
    await undoably(act, { brandId, label: `Added the step ${quoted(read.title)}`, stepsOf: holderId }, async () => {
      await insertSteps(act.tx, [{ ...read, id, brandId, postId, pieceId, position, ...NOT_DONE }]);
      await recount(act.tx, brandId, [holderId], act.now);
    });
    await act.note(stepDeed({ id, brandId, postId, pieceId, title: read.title }, 'step added'));
    return { id };
  });
}

const NOT_DONE = { pinned: null, day: null, plannedOn: null, doneAt: null, doneOn: null, doneBy: null };

/** Takes a step away. */
export function removeStep(work: Work, id: string): Promise<Result<StepOutcome>> {
  return doing(work, async (act) => {
    const step = await takeStep(act, id);
    await undoably(
      act,
      { brandId: step.brandId, label: `Removed the step ${quoted(step.title)}`, stepsOf: holderOf(step) },
      async () => {
        await deleteSteps(act.tx, [id]);
        await recount(act.tx, step.brandId, [holderOf(step)], act.now);
      },
    );
    await act.note(stepDeed(step, 'step removed'));
    return outcomeOf(step);
  });
}

/** Puts the steps of a post or piece in another order. Every step has to be named, once. */
export function reorderSteps(work: Work, of: HolderKey, ids: readonly string[]): Promise<Result<true>> {
  return doing(work, async (act) => {
    const { brandId, holderId } = await takeHolder(act, of);
    const present = (await listStepsOf(act.tx, [holderId])).map(({ id }) => id);
    if (ids.length !== present.length || new Set(ids).size !== ids.length || !present.every((id) => ids.includes(id)))
      refused({ code: 'otherSteps', message: 'The steps are others by now. Look again, then put them in order.' });
    await undoably(act, { brandId, label: 'Put steps in another order', stepsOf: holderId }, async () => {
      await orderSteps(act.tx, holderId, ids);
      await recount(act.tx, brandId, [holderId], act.now);
    });
    return true as const;
  });
}

/** Gives a post the prep of its format anew, or a piece that of its kind: what is done stays, what is open is replaced. */
export function renewPrep(work: Work, of: HolderKey): Promise<Result<true>> {
  return doing(work, async (act) => {
    const { brandId, holderId, ...holder } = await takeHolder(act, of);
    await undoably(act, { brandId, label: 'Replaced the open steps', stepsOf: holderId }, () =>
      replacePrep(act, brandId, holderId, holder),
    );
    const subject = holder.postId === null ? ('piece' as const) : ('post' as const);
    await act.note({ brandId, subject, subjectId: holderId, deed: 'prep renewed' });
    return true as const;
  });
}

/** A post or a piece by its id. */
type HolderKey = { postId: string } | { pieceId: string };

async function takeHolder(act: Doing, of: HolderKey): Promise<Unprepared & { brandId: string; holderId: string }> {
  if ('postId' in of) {
    const { post } = await takePost(act, of.postId, 'doSteps');
    return { ...prepOfPost(post), brandId: post.brandId, holderId: post.id };
  }
  const piece = await ownPiece(act, of.pieceId);
  return { ...(await prepOfPiece(act, piece)), brandId: piece.brandId, holderId: piece.id };
}

/** Hands open steps over to a person, many at once. @returns how many changed hands, and what it is undone by where they are of one brand */
export function handStepsOver(
  work: Work,
  ids: readonly string[],
  personId: string,
): Promise<Result<{ count: number; changeId: string | null }>> {
  return doing(work, async (act) => {
    if (ids.length === 0) refused({ code: 'nothing', message: 'No step is picked. Pick one first.' });
    if (ids.length > HAND_LIMIT)
      refused({ code: 'tooMany', message: `At most ${HAND_LIMIT} steps are reassigned at once.` });
    const before = await listStepsById(act.tx, ids);
    const { count } = await handOver(act, ids, personId);
    const after = new Map((await listStepsById(act.tx, ids)).map((step) => [step.id, step]));
    const handed = before
      .map((step) => ({ before: step, after: after.get(step.id)! }))
      .filter(({ before: was, after: is }) => !isSame(STEP_FIELDS, was, is));
    const label = `Reassigned ${counted(count, 'step')}`;
    const changeIds: (string | null)[] = [];
    for (const [brandId, steps] of groupBy(handed, (item) => item.before.brandId))
      changeIds.push(
        await noteChange(act, { brandId, label, items: steps.map((step) => changedStep(step.before, step.after)) }),
      );
    return { count, changeId: changeIds.length === 1 ? changeIds[0]! : null };
  });
}

/** Gives open steps to somebody who works for all their brands, and counts their posts anew. */
export async function handOver(act: Doing, ids: readonly string[], personId: string): Promise<{ count: number }> {
  if (!(await maybePerson(act.tx, personId))) refused(notFound('person'));
  const given = await handSteps(act.tx, ids, personId);
  for (const [brandId, own] of groupBy(given, (step) => step.brandId)) {
    await mustMay(act, 'doSteps', brandId);
    await mustBeHand(act, personId, brandId);
    await recount(act.tx, brandId, [...new Set(own.map(holderOf))], act.now);
  }
  await act.note(...given.map((step) => stepDeed(step, 'step handed over', { to: personId })));
  return { count: given.length };
}

/** Sets the prep sheet of a format or kind of piece for a brand. Posts and pieces that exist keep the prep they have. */
export function setPrepSheet(
  work: Work,
  brandId: string,
  subject: PrepSubject,
  lines: readonly PrepLine[],
): Promise<Result<{ lines: readonly PrepLine[] }>> {
  return doing(work, async (act) => {
    await mustMay(act, 'manageBrand', brandId);
    mustBeSubject(subject);
    const read = must(readPrep(lines));
    const owners = new Set(read.flatMap(({ ownerId }) => ownerId ?? []));
    for (const ownerId of owners) await mustBeHand(act, ownerId, brandId);
    await takeSetting(act, 'prep sheet', prepSheetKey(brandId, subject));
    await undoably(act, prepSheetWatched(brandId, subject, 'Set a prep sheet'), () =>
      replacePrepSheet(act.tx, brandId, subject, read),
    );
    await act.note({ brandId, subject: 'brand', subjectId: brandId, deed: 'prep sheet set', detail: { of: subject } });
    return { lines: read };
  });
}

/** Lets the prep sheet that ships hold again. */
export function forgetPrepSheet(
  work: Work,
  brandId: string,
  subject: PrepSubject,
): Promise<Result<{ lines: readonly PrepLine[] }>> {
  return doing(work, async (act) => {
    await mustMay(act, 'manageBrand', brandId);
    mustBeSubject(subject);
    await takeSetting(act, 'prep sheet', prepSheetKey(brandId, subject));
    await undoably(act, prepSheetWatched(brandId, subject, 'Let the shipped prep sheet hold again'), () =>
      deletePrepSheet(act.tx, brandId, subject),
    );
    return { lines: SHIPPED_PREP[subject] };
  });
}

const prepSheetWatched = (brandId: string, subject: PrepSubject, label: string) => ({
  ...{ brandId, label, things: [{ name: 'prepSheet' as const, id: prepSheetKey(brandId, subject) }] },
});

function mustBeSubject(subject: PrepSubject): void {
  if (!PREP_SUBJECTS.includes(subject))
    refused({ code: 'badSubject', field: 'subject', message: 'There is no such format or kind of piece.' });
}

async function takeStep(act: Doing, id: string): Promise<Step> {
  const step = await maybeStepForUpdate(act.tx, id);
  if (!step) refused(notFound('step'));
  await mustMay(act, 'doSteps', step.brandId);
  return step;
}

async function mustBeHand(act: Doing, personId: string, brandId: string): Promise<void> {
  if (!(await worksForBrand(act.tx, personId, brandId)))
    refused({ code: 'noOwner', field: 'ownerId', message: 'Whom you hand it to does not work for this brand.' });
}

/** Writes what is changed of a taken step and counts its post or piece anew. */
async function write(act: Doing, step: Step, change: Partial<Step>, deed: string): Promise<void> {
  await undoably(
    act,
    { brandId: step.brandId, label: `${deed} ${quoted(step.title)}`, stepsOf: holderOf(step) },
    async () => {
      if (!(await updateStep(act.tx, { ...step, ...change }))) refused(STALE);
      await recount(act.tx, step.brandId, [holderOf(step)], act.now);
    },
  );
}

const outcomeOf = ({ postId, pieceId }: StepOutcome): StepOutcome => ({ postId, pieceId });

/** A line of history about a step; it belongs to the step's post or piece. */
const stepDeed = (
  step: Pick<Step, 'id' | 'brandId' | 'postId' | 'pieceId' | 'title'>,
  deed: string,
  detail: object = {},
) => ({
  brandId: step.brandId,
  subject: step.postId === null ? ('piece' as const) : ('post' as const),
  subjectId: holderOf(step),
  deed,
  detail: { step: step.id, title: step.title, ...detail },
});
