import { groupBy } from '../group';

/**
 * A step as far as others wait for it.
 *
 * @internal
 */
export interface WaitedFor {
  title: string;
  ownerId: string | null;
  /** The open step before it, if there is one. */
  after: { ownerId: string | null } | null;
  /** The open step that comes after it, if there is one. */
  before: { ownerId: string | null } | null;
}

/** Somebody who can go on once steps of another person are done. */
interface Waiting {
  personId: string;
  /** How many of those steps. */
  count: number;
  /** The first of them. */
  title: string;
}

/**
 * Who waits for a person: whoever does the step that follows one which could be done now, since nothing open comes before
 * it. Most waited for first.
 *
 * @param steps the person's open steps, the most urgent first
 */
export function whoWaits(steps: readonly WaitedFor[]): Waiting[] {
  const holding = steps.filter(
    ({ ownerId, after, before }) => after === null && before?.ownerId != null && before.ownerId !== ownerId,
  );
  return [...groupBy(holding, ({ before }) => before!.ownerId!)]
    .map(([personId, held]) => ({ personId, count: held.length, title: held[0]!.title }))
    .sort((one, other) => other.count - one.count);
}
