// Where a thread of the pool begins.
import { loadOwn } from '../loadOwn.mjs';

const tasks = await loadOwn('tasks', () => import('./tasks.ts'));

/** Says that the work begins, then does it; a task may say what share of it is done. */
const told =
  (task) =>
  ({ given, told: places }) => {
    places[0] = 1;
    return task(given, (share) => void (places[1] = Math.round(share * 1_000)));
  };

export const csvFile = told(tasks.csvFile);
export const importPlan = told(tasks.importPlan);
export const calendarFile = told(tasks.calendarFile);
export const sourceFile = told(tasks.sourceFile);
export const reading = told(tasks.reading);
export const same = told(tasks.same);
export const apart = told(tasks.apart);
export const fanOut = told(tasks.fanOut);
export const corrections = told(tasks.corrections);
