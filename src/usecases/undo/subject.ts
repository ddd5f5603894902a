import type { ChangeItem, Direction, MovedVersion, NotedChange } from '@/data/undo/changes';
import type { ChangeOutcome } from '@/core/calendar/changeOutcome';
import type { Doing } from '../useCase';

/** One thing that is to be put from one state into another; null is not being there. */
export interface Putting<State = unknown> {
  item: ChangeItem<State>;
  from: State | null;
  to: State | null;
}

/** What came of putting things into another state. */
export interface PutOutcome extends Pick<ChangeOutcome, 'postIds' | 'refused' | 'notes'> {
  /** How many things that are no posts, nor of any. */
  others: number;
  /** Posts at new versions by it. */
  moved: MovedVersion[];
  /** What it touched beside, to be put back when it is done again. */
  besides: ChangeItem[];
}

export const nothingPut = (): PutOutcome => ({
  ...{ postIds: [], refused: [], notes: [], others: 0, moved: [], besides: [] },
});

/** A kind of thing that can be undone: it puts things of its own from one state into another, and names what was changed since. */
export type UndoSubject = (
  act: Doing,
  change: NotedChange,
  puttings: readonly Putting<never>[],
  direction: Direction,
) => Promise<PutOutcome>;
