import { groupBy } from '@/core/group';
import { unreadOf } from '@/core/posts/unread';
import { worksSeen } from '@/core/prep/seenDone';
import { localOf } from '@/core/time/plan';
import type { Post } from '@/data/posts/posts';
import { tickSteps } from '@/data/prep/steps';
import { recount, recountPiecesOf } from '../prep/countPrep';
import { followFormats } from '../prep/givePrep';
import type { Acting } from '../useCase';
import type { CheckedWrite } from './checkWrites';

/** What of a post moves the own steps of its piece. */
const FOR_THE_PIECE = ['date', 'deletedAt', 'stage'] as const;

/** Lets prep follow its post: its format, its day, and work that is seen to be done. */
export async function followWork(act: Acting, checked: readonly CheckedWrite[]): Promise<void> {
  for (const [brandId, own] of groupBy(checked, ({ after }) => after.brandId)) {
    await followFormats(
      act,
      brandId,
      own
        .filter(({ write, after }) => after.format !== write.open.post.format)
        .map(({ write, after }) => ({ post: after, was: write.open.post.format })),
    );
    await tickWhatIsSeen(act, own);
    const moved = own.filter(({ write, after }) => after.date !== write.open.post.date);
    const withSteps = moved.filter(({ write }) => write.open.steps.length > 0);
    if (withSteps.length > 0)
      await recount(
        act.tx,
        brandId,
        withSteps.map(({ after }) => after.id),
        act.now,
        { isReplanned: true },
      );
    const restored = own.filter(({ write, after }) => after.deletedAt === null && write.open.post.deletedAt !== null);
    // Nobody counted them while their post was deleted.
    if (restored.length > 0)
      await recount(
        act.tx,
        brandId,
        restored.map(({ after }) => after.id),
        act.now,
      );
    const forPieces = own.filter(({ write, after }) =>
      FOR_THE_PIECE.some((field) => after[field] !== write.open.post[field]),
    );
    if (forPieces.length > 0)
      await recountPiecesOf(
        act.tx,
        brandId,
        forPieces.map(({ after }) => after.id),
        act.now,
      );
  }
}

/** Ticks steps that tick themselves where their post shows their work as done, and did not before. */
async function tickWhatIsSeen(act: Acting, checked: readonly CheckedWrite[]): Promise<void> {
  const seen = checked.flatMap(({ write: { open }, after, pictures, channel }) => {
    const steps = open.steps.filter((one) => one.ticksItself && !one.ofPiece && one.doneOn === null && one.lead >= 0);
    if (steps.length === 0) return [];
    const before = worksSeen({ ...open.post, pictures: open.pictures }, open.channel.sheet, unreadIn(open.post));
    const now = worksSeen({ ...after, pictures }, channel.sheet, unreadIn(after));
    return steps
      .filter(({ work }) => now.has(work) && !before.has(work))
      .map((step) => ({ step, postId: after.id, brand: open.brand }));
  });
  if (seen.length === 0) return;
  const { id: brandId, zone } = seen[0]!.brand;
  const done = { at: act.now, on: localOf(act.now, zone).date, by: act.actorId };
  await tickSteps(
    act.tx,
    seen.map(({ step }) => step.id),
    done,
  );
  await recount(act.tx, brandId, [...new Set(seen.map(({ postId }) => postId))], act.now);
  await act.note(
    ...seen.map(({ step, postId }) => ({
      brandId,
      subject: 'post' as const,
      subjectId: postId,
      deed: 'step done',
      detail: { step: step.id, title: step.title, byItself: true },
    })),
  );
}

const unreadIn = (post: Post): number => unreadOf(post, post.drafted).length;
