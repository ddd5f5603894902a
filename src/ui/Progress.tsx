import type { CSSProperties } from 'react';
import type { WorkProgress } from '@/core/prep/progress';
import { WORK_LABELS } from '@/core/prep/step';

/** Progress in words: “words 2 of 3, picture 0 of 2”. */
export const progressWords = (progress: readonly WorkProgress[]): string =>
  progress.map(({ work, done, all }) => `${WORK_LABELS[work]} ${done} of ${all}`).join(', ');

/**
 * How far the work is: a thin line with a stretch for each sort of work, filled as far as it is done. It is one element’s
 * ground, since a calendar shows hundreds.
 */
export function Progress({ progress }: { progress: readonly WorkProgress[] }) {
  if (progress.length === 0) return null;
  const words = progressWords(progress);
  return <span className="progress-line" role="img" aria-label={words} title={words} style={ground(progress)} />;
}

/** Pixels between two stretches. */
const GAP = 3;

function ground(progress: readonly WorkProgress[]): CSSProperties {
  const all = progress.reduce((sum, part) => sum + part.all, 0);
  const stops: string[] = [];
  let before = 0;
  progress.forEach((part, index) => {
    const at = (steps: number, shift = 0) =>
      `calc(${((before + steps) / all) * 100}% ${shift < 0 ? '-' : '+'} ${Math.abs(shift)}px)`;
    const end = at(part.all, index === progress.length - 1 ? 0 : -GAP);
    stops.push(`var(--ink) ${at(0)} min(${at(part.done)}, ${end})`, `var(--rule) min(${at(part.done)}, ${end}) ${end}`);
    stops.push(`transparent ${end} ${at(part.all)}`);
    before += part.all;
  });
  return { background: `linear-gradient(to right, ${stops.join(', ')})` };
}
