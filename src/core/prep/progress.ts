import { WORKS, type Work } from './step';

/** How many steps of each sort of work are done, and how many there are. */
export type WorkCounts = Record<Work, [done: number, all: number]>;

/** How much of one sort of work is done. */
export interface WorkProgress {
  work: Work;
  done: number;
  all: number;
}

/** Progress by sort of work, in the order of the work; sorts without a step are left out. */
export function progressOf(counts: WorkCounts): WorkProgress[] {
  return WORKS.flatMap((work) => {
    const [done, all] = counts[work];
    return all === 0 ? [] : [{ work, done, all }];
  });
}
