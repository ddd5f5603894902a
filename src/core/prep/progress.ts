import { WORKS, type Work } from './step';

/** How many steps of each sort of work are done, and how many there are. */
export type WorkCounts = Record<Work, [done: number, all: number]>;

/** The counts of nothing. */
export const noWork = (): WorkCounts => Object.fromEntries(WORKS.map((work) => [work, [0, 0]])) as WorkCounts;

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

/** The progress of steps before publishing. */
export function progressOfSteps(steps: readonly { work: Work; lead: number; doneOn: string | null }[]): WorkProgress[] {
  const counts = noWork();
  for (const { work, lead, doneOn } of steps) {
    if (lead < 0) continue;
    counts[work][1]++;
    if (doneOn !== null) counts[work][0]++;
  }
  return progressOf(counts);
}

/** The progress of several posts together, as that of their piece. */
export function progressTogether(parts: readonly (readonly WorkProgress[])[]): WorkProgress[] {
  const counts = noWork();
  for (const { work, done, all } of parts.flat()) {
    counts[work][0] += done;
    counts[work][1] += all;
  }
  return progressOf(counts);
}
