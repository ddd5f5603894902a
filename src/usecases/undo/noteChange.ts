import { msBetween } from '@/core/time/plan';
import { addItems, insertChange, maybeNextChange, type ChangeItem, type NotedChange } from '@/data/undo/changes';
import type { Post } from '@/data/posts/posts';
import type { Step } from '@/data/prep/steps';
import { LARGE_STATE, POST_STATE, type PostState } from './postState';
import { isSame } from './sinceThen';
import { listBrandIdsOf } from '@/data/people/people';
import type { Acting, Doing } from '../useCase';

/** One post of a change. */
export type PostItem = ChangeItem<PostState> & { subject: 'post'; base: number | null; version: number };

/** One step of a change; null where it was added or taken away. */
type StepItem = ChangeItem<StepState> & { subject: 'step' };
export type StepState = Omit<Step, 'version'>;

/** What undoing puts back of a post. */
export const stateOf = (post: Post): PostState => only(post, [...POST_STATE, ...LARGE_STATE]);

const only = (post: Post, fields: readonly (keyof Post)[]): PostState =>
  Object.fromEntries(fields.map((field) => [field, post[field]])) as unknown as PostState;

/** A post that a change wrote, as it was and is. */
export function changedPost(before: Post, after: Post): PostItem {
  const fields = [...POST_STATE, ...LARGE_STATE.filter((field) => !isSame([field], before, after))];
  return {
    ...{ subject: 'post', id: before.id, before: only(before, fields), after: only(after, fields) },
    ...{ base: before.version, version: before.version + 1 },
  };
}

/** Posts that a change made. */
export const madePosts = (ids: readonly string[]): PostItem[] =>
  ids.map((id) => ({ subject: 'post', id, before: null, after: null, base: null, version: 1 }));

/** A step that a change wrote. */
export const changedStep = (before: StepState | null, after: StepState | null): StepItem => ({
  subject: 'step',
  id: (before ?? after)!.id,
  before,
  after,
});

/** The channels that a piece was suggested for until its posts were made. */
export const takenSuggestions = (pieceId: string, channelIds: readonly string[]): ChangeItem<readonly string[]> => ({
  ...{ subject: 'suggestions', id: pieceId, before: channelIds, after: [] },
});

/**
 * Writes down what a person did, so that they can undo it, or are told why they cannot.
 *
 * @returns its id to undo it by; null for what Bimlo itself does
 */
export async function noteChange(
  { tx, ids, now, actorId }: Acting,
  change: Pick<NotedChange, 'brandId' | 'label'> & { items: readonly ChangeItem[]; final?: string; id?: string },
): Promise<string | null> {
  if (actorId === null) return null;
  const { id = ids() } = change;
  await insertChange(tx, { final: null, ...change, id, actorId, at: now });
  return id;
}

/** How long after the last of a row of the same deeds the next one still belongs to them, in milliseconds. */
const TOGETHER_MS = 60_000;

/** Writes down one of several deeds that a person does in a row, like adding files: they are undone as one. */
export async function noteTogether(
  act: Doing,
  { brandId, label, items }: Pick<NotedChange, 'brandId' | 'label'> & { items: readonly ChangeItem[] },
): Promise<void> {
  if (items.length === 0) return;
  const last = await maybeNextChange(act.tx, brandId, act.actorId, 'undo');
  if (last?.label === label && msBetween(last.at, act.now) <= TOGETHER_MS)
    await addItems(act.tx, last.id, items, act.now);
  else await noteChange(act, { brandId, label, items });
}

/** Writes down, for each brand that a person works for, what they did to what belongs to none and is not undone by a key. */
export async function noteFinal(act: Doing, label: string, final: string): Promise<void> {
  for (const brandId of await listBrandIdsOf(act.tx, act.actorId))
    await noteChange(act, { brandId, label, items: [], final });
}
