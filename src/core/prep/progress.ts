import { WORKS, type Work } from './step';

/** How much of one sort of work is done. */
export interface WorkProgress {
  work: Work;
  done: number;
  all: number;
}

/** Progress by sort of work, in the order of the work; sorts without a step are left out. */
export function progressOf(steps: readonly { work: Work; done: boolean }[]): WorkProgress[] {
  return WORKS.flatMap((work) => {
    const those = steps.filter((step) => step.work === work);
    return those.length === 0 ? [] : [{ work, done: those.filter(({ done }) => done).length, all: those.length }];
  });
}
