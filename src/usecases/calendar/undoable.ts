import { insertChange, POST_FIELDS, type CalendarChange, type PostState } from '@/data/calendar/calendarChanges';
import type { Post } from '@/data/posts/posts';
import type { Acting } from '../useCase';

/** What undoing puts back of a post. */
export const stateOf = (post: Post): PostState =>
  Object.fromEntries(POST_FIELDS.map((field) => [field, post[field]])) as unknown as PostState;

/** Writes down what a person did, so that they can undo it. @returns its id to undo it by; null for what Bimlo itself does */
export async function noteUndoable(
  { tx, ids, now, actorId }: Acting,
  change: Pick<CalendarChange, 'brandId' | 'label'> & Partial<Pick<CalendarChange, 'items' | 'steps' | 'suggested'>>,
): Promise<string | null> {
  if (actorId === null) return null;
  const id = ids();
  await insertChange(tx, { items: [], steps: [], suggested: null, ...change, id, actorId, at: now });
  return id;
}

/** How a change that made posts names them. */
export const madePosts = (ids: readonly string[]): CalendarChange['items'] =>
  ids.map((postId) => ({ postId, before: null, after: null, base: null, version: 1 }));
