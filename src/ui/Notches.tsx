import { notchesOf, STAGE_LABELS, type Stage } from '@/core/stages/stages';

/**
 * The stage as six strokes, filled up to where the post stands; the last is crossed through when its delivery failed. The
 * strokes are one element's ground, since a month shows thousands of them.
 */
export function Notches({ stage, failed = false }: { stage: Stage; failed?: boolean }) {
  const label = failed ? `${STAGE_LABELS[stage]}, delivery failed` : STAGE_LABELS[stage];
  return (
    <span
      className={`notches are-${notchesOf(stage)}${failed ? ' is-failed' : ''}`}
      role="img"
      aria-label={label}
      title={label}
    />
  );
}
