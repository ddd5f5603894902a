import { notchesOf, STAGE_LABELS, STAGES, type Stage } from '@/core/stages/stages';

/** The stage as six strokes, filled up to where the post stands; the last is crossed through when its delivery failed. */
export function Notches({ stage, failed = false }: { stage: Stage; failed?: boolean }) {
  const filled = notchesOf(stage);
  const label = failed ? `${STAGE_LABELS[stage]}, delivery failed` : STAGE_LABELS[stage];
  return (
    <span
      className={`notches${stage === 'published' ? ' is-published' : ''}${failed ? ' is-failed' : ''}`}
      role="img"
      aria-label={label}
      title={label}
    >
      {STAGES.map((name, index) => (
        <i key={name} className={index < filled ? 'is-filled' : undefined} />
      ))}
    </span>
  );
}
