// Where a thread of the pool begins: it reads the sources as they are, as the made-up networks do.
import { register } from 'tsx/esm/api';

register();
const tasks = await import('./tasks.ts');

/** Says that the work begins, then does it. */
const told =
  (task) =>
  ({ given, begun }) => {
    begun[0] = 1;
    return task(given);
  };

export const csvFile = told(tasks.csvFile);
export const calendarFile = told(tasks.calendarFile);
export const sourceFile = told(tasks.sourceFile);
export const apart = told(tasks.apart);
export const fanOut = told(tasks.fanOut);
export const card = told(tasks.card);
export const font = told(tasks.font);
