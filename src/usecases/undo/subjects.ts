import { putBatchDays } from './batchDays';
import { putPosts } from './posts';
import { putThings, THING_NAMES } from './rows';
import { putSteps } from './steps';
import type { UndoSubject } from './subject';
import { putSuggestions } from './suggestions';

/** What can be undone, in the order in which it is put back. */
export const SUBJECTS: Readonly<Record<string, UndoSubject>> = {
  post: putPosts,
  step: putSteps,
  suggestions: putSuggestions,
  batchDay: putBatchDays,
  ...Object.fromEntries(THING_NAMES.map((name) => [name, putThings(name)])),
};
