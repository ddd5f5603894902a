import type { Craft, PrepLine } from './step';

/** Somebody who can be given a step. */
interface Hand {
  id: string;
  crafts: readonly Craft[];
}

/**
 * Who does a step of a new post: the person named while they work for the brand; else whoever alone has the craft, or the
 * post's owner where they have it among others; nobody yet where several could. Without either, the post's owner.
 *
 * @returns the person's id, or null while only the craft is known
 */
export function whoDoes(
  line: Pick<PrepLine, 'ownerId' | 'craft'>,
  people: readonly Hand[],
  postOwnerId: string,
): string | null {
  if (line.ownerId !== null && people.some(({ id }) => id === line.ownerId)) return line.ownerId;
  if (line.craft === null) return postOwnerId;
  const able = people.filter(({ crafts }) => crafts.includes(line.craft!));
  if (able.length === 1) return able[0]!.id;
  return able.some(({ id }) => id === postOwnerId) ? postOwnerId : null;
}
