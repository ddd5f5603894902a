import type { ScoredSentence } from './analyse';

/** Letters below which what follows a question is only its answer; and below which it is where somebody speaks of themselves. */
const SHORT = { any: 40, own: 60 } as const;

/** Whether a sentence follows a question that it does not stand in. */
export const isAnswer = (before: ScoredSentence | undefined, { traits }: ScoredSentence): boolean =>
  before?.traits.has('question') === true && !traits.has('question');

/** Whether a sentence is so much the answer to the question before that it says nothing without. */
export const isOnlyAnswer = (before: ScoredSentence | undefined, sentence: ScoredSentence): boolean =>
  isAnswer(before, sentence) && sentence.end - sentence.start < (sentence.traits.has('first') ? SHORT.own : SHORT.any);
