import type { Work } from './step';

const WRITES = /^(?:write|draft)\b/i;
const WRITES_DOWN = /^(?:write down|transcri)/i;

/**
 * How many steps of a piece lie behind it once its text is there, from the first on: of a recorded one those up to its recording, and
 * the one that writes down what was said; of a written one those up to the last that writes. None where no step makes the text.
 *
 * @param isTimed whether the text has times: then it was recorded
 */
export function countBehindText(steps: readonly { title: string; work: Work }[], isTimed: boolean): number {
  if (!isTimed) return steps.findLastIndex(({ title, work }) => work === 'words' && WRITES.test(title)) + 1;
  const recorded = steps.findLastIndex(({ work }) => work === 'recording') + 1;
  const next = steps[recorded];
  return recorded > 0 && next?.work === 'words' && WRITES_DOWN.test(next.title) ? recorded + 1 : recorded;
}
