import { putBatchDays } from './batchDays';
import { putPictures } from './pictures';
import type { Deed } from '@/core/rights/may';
import type { NotedChange } from '@/data/undo/changes';
import { deedOf, putPosts } from './posts';
import type { PostState } from './postState';
import { putThings, THING_NAMES, thingOf } from './rows';
import { putSourceTexts } from './sourceTexts';
import { putSteps } from './steps';
import type { UndoSubject } from './subject';
import { putSuggestions } from './suggestions';

/** What whoever puts a change back has to be allowed. */
export const deedsOf = ({ items }: Pick<NotedChange, 'items'>): Deed[] => [
  ...new Set(items.map((item) => deedOfItem(item))),
];

function deedOfItem({ subject, before, after }: NotedChange['items'][number]): Deed {
  switch (subject) {
    case 'post':
      return deedOf([{ from: before as PostState | null, to: after as PostState | null }]);
    case 'pictures':
      return 'changePosts';
    case 'step':
      return 'doSteps';
    case 'sourceText':
    case 'suggestions':
      return 'changePieces';
    case 'batchDay':
      return 'planBatchDays';
    default:
      return thingOf(subject).deed;
  }
}

/** What can be undone, in the order in which it is put back. */
export const SUBJECTS: Readonly<Record<string, UndoSubject>> = {
  post: putPosts,
  pictures: putPictures,
  step: putSteps,
  suggestions: putSuggestions,
  batchDay: putBatchDays,
  sourceText: putSourceTexts,
  ...Object.fromEntries(THING_NAMES.map((name) => [name, putThings(name)])),
};
