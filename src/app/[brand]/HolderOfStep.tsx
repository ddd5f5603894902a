import Link from 'next/link';
import type { Step, StepHolder } from '@/usecases/prep/reading';
import { CallSign } from '@/ui/CallSign';

/** A step with the post or piece it belongs to. */
type HeldStep = Pick<Step, 'postId' | 'pieceId'> & { holder: StepHolder };

/** The call sign of a step's post; of a piece, which has none, the word. */
export function HolderSign({ holder }: Pick<HeldStep, 'holder'>) {
  return holder.callSign === null ? (
    <span className="of-piece small-text">piece</span>
  ) : (
    <CallSign sign={holder.callSign} color={holder.color ?? 'currentcolor'} />
  );
}

/** Leads to a step's post, open on its day (or another, where it has none), or to its piece. */
export function HolderLink({ step: { postId, pieceId, holder }, day }: { step: HeldStep; day: string }) {
  const href =
    postId === null
      ? `/${holder.brandSlug}/pieces/${pieceId}`
      : `/${holder.brandSlug}/calendar?date=${holder.date ?? day}&post=${postId}`;
  return (
    <Link dir="auto" href={href} prefetch={false}>
      {holder.title}
    </Link>
  );
}
