import type { Result } from '@/core/refusal';
import {
  addItems,
  followVersions,
  makeFinal,
  maybeChange,
  maybeNextChange,
  noteUndone,
  type Direction,
  type MovedVersion,
  type NotedChange,
} from '@/data/undo/changes';
import type { ChangeOutcome } from '@/core/calendar/changeOutcome';
import { mustMay } from '../rights/mustMay';
import { attempt, doing, refused, type Doing, type Work } from '../useCase';
import type { Putting } from './subject';
import { deedsOf, SUBJECTS } from './subjects';

/**
 * Undoes what the same person did: the change named, or the last that was not undone. Only what it changed is put back; what
 * was changed since is left as it is and named. What cannot be undone is said, once, before the key reaches past it.
 */
export function undoChange(work: Work, brandId: string, changeId: string | null): Promise<Result<ChangeOutcome>> {
  return doing(work, async (act) => {
    await mustMay(act, 'look', brandId);
    const change = await (changeId === null
      ? maybeNextChange(act.tx, brandId, act.actorId, 'undo')
      : maybeChange(act.tx, brandId, act.actorId, changeId));
    if (!change) refused({ code: 'nothingToUndo', message: 'There is nothing to undo of what you did here.' });
    const why = change.final ?? (await whyNot(act, change));
    return why === null ? put(act, change, 'undo') : tellFinal(act, change, why);
  });
}

/** Redoes what the same person undid last, unless they did something else since. */
export function redoChange(work: Work, brandId: string): Promise<Result<ChangeOutcome>> {
  return doing(work, async (act) => {
    await mustMay(act, 'look', brandId);
    const change = await maybeNextChange(act.tx, brandId, act.actorId, 'redo');
    if (!change) refused({ code: 'nothingToRedo', message: 'There is nothing to redo of what you undid here.' });
    const why = await whyNot(act, change);
    if (why === null) return put(act, change, 'redo');
    await makeFinal(act.tx, change.id, why);
    return {
      changeId: null,
      label: `Not redone: ${startedLow(change.label)}. ${why}`,
      postIds: [],
      refused: [],
      notes: [],
    };
  });
}

/** Why somebody may not put a change back any more, who could do it when they did it; null where they may. */
async function whyNot(act: Doing, change: NotedChange): Promise<string | null> {
  for (const deed of deedsOf(change)) {
    const allowed = await attempt(() => mustMay(act, deed, change.brandId));
    if (!allowed.ok) return allowed.refusal.message;
  }
  return null;
}

async function put(act: Doing, change: NotedChange, direction: Direction): Promise<ChangeOutcome> {
  const outcome: ChangeOutcome = { changeId: change.id, label: '', postIds: [], refused: [], notes: [] };
  let others = 0;
  const moved: MovedVersion[] = [];
  for (const [subject, putThings] of Object.entries(SUBJECTS)) {
    const puttings = change.items.flatMap((item): Putting[] => {
      if (item.subject !== subject) return [];
      const { before, after } = item;
      return [direction === 'undo' ? { item, from: after, to: before } : { item, from: before, to: after }];
    });
    // As long as one of its posts stays, a piece is not suggested for its channel again.
    if (puttings.length === 0 || (subject === 'suggestions' && outcome.refused.length > 0)) continue;
    const done = await putThings(act, change, puttings as Putting<never>[], direction);
    outcome.postIds.push(...done.postIds);
    outcome.refused.push(...done.refused);
    outcome.notes.push(...done.notes);
    others += done.others;
    moved.push(...done.moved);
    await addItems(act.tx, change.id, done.besides);
  }
  await followVersions(act.tx, change, lastOfEach(moved));
  outcome.postIds = [...new Set(outcome.postIds)];
  await noteUndone(act.tx, change.id, direction === 'undo' ? act.now : null);
  outcome.label = labelOf(change, direction, outcome.postIds.length + others);
  return outcome;
}

/** Where posts ended that were put back in several steps: first their words, then their pictures. */
const lastOfEach = (moved: readonly MovedVersion[]): MovedVersion[] => [
  ...new Map(moved.map((one) => [`${one.id} ${one.from}`, one])).values(),
];

function labelOf({ label }: NotedChange, direction: Direction, count: number): string {
  if (count === 0) return direction === 'undo' ? 'Nothing undone' : 'Nothing redone';
  return `${direction === 'undo' ? 'Undone' : 'Redone'}: ${startedLow(label)}`;
}

/** A label as it goes on within a sentence. */
const startedLow = (label: string): string => `${label[0]!.toLowerCase()}${label.slice(1)}`;

/** Says that a change cannot be undone. It lies in the way no longer: the next time goes on to what was done before it. */
async function tellFinal(act: Doing, change: NotedChange, why: string): Promise<ChangeOutcome> {
  await makeFinal(act.tx, change.id, why);
  await noteUndone(act.tx, change.id, act.now);
  const label = `Not undone: ${startedLow(change.label)}. ${why} Undo again for what you did before it`;
  return { changeId: null, label, postIds: [], refused: [], notes: [] };
}
