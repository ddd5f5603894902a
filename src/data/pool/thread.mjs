// Where a thread of the pool begins: it reads the sources as they are, as the made-up networks do.
import { register } from 'tsx/esm/api';

register();
const tasks = await import('./tasks.ts');

export const { csvFile, calendarFile } = tasks;
