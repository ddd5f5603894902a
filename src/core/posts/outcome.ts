import type { LocalTime } from '../time/plan';

/** What came with a write beside what was asked. */
export interface WriteOutcome {
  /** It was ready and is not fit to be: it went back to production. */
  tookBack: boolean;
  /** What it lacks to be ready, where it was taken back. */
  missing: string | null;
  /** It was scheduled and does not leave any more. */
  unscheduled: boolean;
  /** A network may have taken it already; nobody was told. */
  mayBeOut: boolean;
  /** The minute that was chosen for it in its window. */
  chosenTime?: LocalTime;
  /** What it is undone by; null where it cannot be, or goes with others. */
  changeId: string | null;
}

/** What people read of the departure of a post that was changed. */
export function departureWords({ unscheduled, mayBeOut }: Partial<WriteOutcome>): string[] {
  const out = 'a try got no answer, and Bimlo keeps asking.';
  if (unscheduled && mayBeOut) return [`It is not scheduled any more. It may be published all the same: ${out}`];
  if (unscheduled) return ['It is not scheduled any more and will not be sent.'];
  return mayBeOut ? [`It may be published already: ${out}`] : [];
}

/** What people read of a post that was ready and is not any more. */
export const readinessWords = ({ tookBack, missing }: Partial<WriteOutcome>): string[] =>
  tookBack ? [`It is not ready any more. ${missing ?? ''}`.trim()] : [];

/** What people read of the minute that was chosen for a post. */
const chosenWords = ({ chosenTime }: Partial<WriteOutcome>): string[] =>
  chosenTime === undefined ? [] : [`Its minute was chosen: ${chosenTime}.`];

/** What people read of all that came with a write. */
export const outcomeWords = (outcome: Partial<WriteOutcome>): string[] => [
  ...chosenWords(outcome),
  ...departureWords(outcome),
  ...readinessWords(outcome),
];

/** What a change of rules did to posts. */
export interface RulesOutcome {
  /** Were ready, and are not fit to be by the new rules. */
  tookBack: number;
  /** Waited to leave, and would be refused now: on hold. */
  held: number;
  /** Wait to leave otherwise than before: on another network, by hand, or composed otherwise. */
  copiedAnew: number;
}

/** What people read of what a change of rules did to posts. */
export function rulesWords({ tookBack = 0, held = 0, copiedAnew = 0 }: Partial<RulesOutcome>): string[] {
  const posts = (count: number): string => (count === 1 ? '1 post' : `${count} posts`);
  return [
    ...(held > 0 ? [`${posts(held)} on hold: the new rules would refuse what is scheduled.`] : []),
    ...(copiedAnew > 0 ? [`${posts(copiedAnew)} will be sent by the new rules.`] : []),
    ...(tookBack > 0 ? [`${posts(tookBack)} not ready any more by the new rules.`] : []),
  ];
}
