import { groupBy } from '@/core/group';
import { readPrep, readStep, STEPS_LIMIT, type PrepLine } from '@/core/prep/step';
import { FORMATS, type Format } from '@/core/rulesheets/types';
import type { Result } from '@/core/refusal';
import { localOf, readDate, type LocalDate } from '@/core/time/plan';
import { oneBrand } from '@/data/brands';
import { maybePerson, worksForBrand } from '@/data/people';
import { deletePrepSheet, replacePrepSheet } from '@/data/prepSheets';
import {
  deleteOpenSteps,
  deleteStep,
  handSteps,
  insertSteps,
  listStepsOfPosts,
  maybeStepForUpdate,
  orderSteps,
  updateStep,
  type Step,
} from '@/data/steps';
import { givePrep } from './adding';
import { recount } from './counting';
import { mustManage } from './managing';
import { takePost } from './posts';
import { doing, must, mustWorkFor, notFound, refused, STALE, type Doing, type Work } from './work';

/** What can be changed of a step. What is absent stays. */
export type StepChange = Partial<PrepLine & { pinned: LocalDate | null }>;

/** Steps handed over at once. */
const HAND_LIMIT = 500;

/** Ticks a step, or takes the tick back. The day it was done is the brand's today. */
export function tickStep(work: Work, id: string, isDone: boolean): Promise<Result<{ postId: string }>> {
  return doing(work, async (act) => {
    const step = await takeStep(act, id);
    if ((step.doneAt !== null) === isDone) return { postId: step.postId };
    const today = localOf(act.now, (await oneBrand(act.tx, step.brandId)).zone).date;
    await write(act, {
      ...step,
      doneAt: isDone ? act.now : null,
      doneOn: isDone ? today : null,
      doneBy: isDone ? act.actorId : null,
    });
    await act.note(stepDeed(step, isDone ? 'step done' : 'step open again'));
    return { postId: step.postId };
  });
}

/** Changes a step: its words, who does it, its lead, or the day it is pinned to. */
export function changeStep(
  work: Work,
  id: string,
  version: number,
  change: StepChange,
): Promise<Result<{ postId: string }>> {
  return doing(work, async (act) => {
    const step = await takeStep(act, id);
    if (step.version !== version) refused(STALE);
    if (change.pinned) must(readDate(change.pinned, 'pinned'));
    if (change.ownerId) await mustBeHand(act, change.ownerId, step.brandId);
    await write(act, must(readStep({ ...step, ...change })));
    await act.note(stepDeed(step, 'step changed', change));
    return { postId: step.postId };
  });
}

/** Adds a step to a post, after those it has. @returns its id */
export function addStep(work: Work, postId: string, line: PrepLine): Promise<Result<{ id: string }>> {
  return doing(work, async (act) => {
    const { post } = await takePost(act, postId);
    const steps = await listStepsOfPosts(act.tx, [postId]);
    if (steps.length >= STEPS_LIMIT)
      refused({ code: 'tooManySteps', message: `A post has ${STEPS_LIMIT} steps at most.` });
    const read = must(readStep(line));
    if (read.ownerId) await mustBeHand(act, read.ownerId, post.brandId);
    const id = act.ids();
    await insertSteps(act.tx, [
      {
        ...read,
        id,
        brandId: post.brandId,
        postId,
        position: Math.max(0, ...steps.map(({ position }) => position)) + 1,
        ...NOT_DONE,
      },
    ]);
    await recount(act.tx, post.brandId, [postId], act.now);
    await act.note(stepDeed({ id, brandId: post.brandId, postId, title: read.title }, 'step added'));
    return { id };
  });
}

const NOT_DONE = { pinned: null, day: null, plannedOn: null, doneAt: null, doneOn: null, doneBy: null };

/** Takes a step away. */
export function removeStep(work: Work, id: string): Promise<Result<{ postId: string }>> {
  return doing(work, async (act) => {
    const step = await takeStep(act, id);
    await deleteStep(act.tx, id);
    await recount(act.tx, step.brandId, [step.postId], act.now);
    await act.note(stepDeed(step, 'step removed'));
    return { postId: step.postId };
  });
}

/** Puts the steps of a post in another order. Every step has to be named, once. */
export function reorderSteps(work: Work, postId: string, ids: readonly string[]): Promise<Result<{ postId: string }>> {
  return doing(work, async (act) => {
    const { post } = await takePost(act, postId);
    const present = (await listStepsOfPosts(act.tx, [postId])).map(({ id }) => id);
    if (ids.length !== present.length || new Set(ids).size !== ids.length || !present.every((id) => ids.includes(id)))
      refused({ code: 'otherSteps', message: 'The steps are others by now. Look again, then put them in order.' });
    await orderSteps(act.tx, postId, ids);
    await recount(act.tx, post.brandId, [postId], act.now);
    return { postId };
  });
}

/** Gives a post the prep of its format anew: what is done stays, what is open is replaced. */
export function renewPrep(work: Work, postId: string): Promise<Result<{ postId: string }>> {
  return doing(work, async (act) => {
    const { post } = await takePost(act, postId);
    await deleteOpenSteps(act.tx, postId);
    const done = await listStepsOfPosts(act.tx, [postId]);
    await givePrep(act, post.brandId, [post], new Set(done.map(({ title }) => title)));
    const all = await listStepsOfPosts(act.tx, [postId]);
    const inOrder = [...all].sort((a, b) => b.lead - a.lead).map(({ id }) => id);
    await orderSteps(act.tx, postId, inOrder);
    await act.note({ brandId: post.brandId, subject: 'post', subjectId: postId, deed: 'prep renewed' });
    return { postId };
  });
}

/** Hands open steps over to a person, many at once. @returns how many changed hands, and whose posts they are */
export function handStepsOver(
  work: Work,
  ids: readonly string[],
  personId: string,
): Promise<Result<{ count: number; postIds: string[] }>> {
  return doing(work, async (act) => {
    if (ids.length === 0) refused({ code: 'nothing', message: 'No step is picked. Pick one first.' });
    if (ids.length > HAND_LIMIT)
      refused({ code: 'tooMany', message: `At most ${HAND_LIMIT} steps are handed over at once.` });
    return handOver(act, ids, personId);
  });
}

/** Gives open steps to somebody who works for all their brands, and counts their posts anew. */
export async function handOver(
  act: Doing,
  ids: readonly string[],
  personId: string,
): Promise<{ count: number; postIds: string[] }> {
  if (!(await maybePerson(act.tx, personId))) refused(notFound('person'));
  const given = await handSteps(act.tx, ids, personId);
  for (const [brandId, own] of groupBy(given, (step) => step.brandId)) {
    await mustWorkFor(act, brandId);
    await mustBeHand(act, personId, brandId);
    await recount(act.tx, brandId, [...new Set(own.map(({ postId }) => postId))], act.now);
  }
  await act.note(...given.map((step) => stepDeed(step, 'step handed over', { to: personId })));
  return { count: given.length, postIds: [...new Set(given.map(({ postId }) => postId))] };
}

/** Sets the prep sheet of a format for a brand. Posts that exist keep the prep they have. */
export function setPrepSheet(
  work: Work,
  brandId: string,
  format: Format,
  lines: readonly PrepLine[],
): Promise<Result<true>> {
  return doing(work, async (act) => {
    await mustManage(act, brandId);
    mustBeFormat(format);
    const read = must(readPrep(lines));
    const owners = new Set(read.flatMap(({ ownerId }) => ownerId ?? []));
    for (const ownerId of owners) await mustBeHand(act, ownerId, brandId);
    await replacePrepSheet(act.tx, brandId, format, read);
    await act.note({ brandId, subject: 'brand', subjectId: brandId, deed: 'prep sheet set', detail: { format } });
    return true as const;
  });
}

/** Lets the prep sheet that ships hold again for a format. */
export function forgetPrepSheet(work: Work, brandId: string, format: Format): Promise<Result<true>> {
  return doing(work, async (act) => {
    await mustManage(act, brandId);
    mustBeFormat(format);
    await deletePrepSheet(act.tx, brandId, format);
    return true as const;
  });
}

function mustBeFormat(format: Format): void {
  if (!FORMATS.includes(format)) refused({ code: 'badFormat', field: 'format', message: 'There is no such format.' });
}

async function takeStep(act: Doing, id: string): Promise<Step> {
  const step = await maybeStepForUpdate(act.tx, id);
  if (!step) refused(notFound('step'));
  await mustWorkFor(act, step.brandId);
  return step;
}

async function mustBeHand(act: Doing, personId: string, brandId: string): Promise<void> {
  if (!(await worksForBrand(act.tx, personId, brandId)))
    refused({ code: 'noOwner', field: 'ownerId', message: 'Whom you hand it to does not work for this brand.' });
}

/** Writes a taken step and counts its post anew. */
async function write(act: Doing, step: Step): Promise<void> {
  if (!(await updateStep(act.tx, step))) refused(STALE);
  await recount(act.tx, step.brandId, [step.postId], act.now);
}

/** A line of history about a step; it belongs to the step's post. */
const stepDeed = (step: Pick<Step, 'id' | 'brandId' | 'postId' | 'title'>, deed: string, detail: object = {}) => ({
  brandId: step.brandId,
  subject: 'post' as const,
  subjectId: step.postId,
  deed,
  detail: { step: step.id, title: step.title, ...detail },
});
