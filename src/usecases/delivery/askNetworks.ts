import { isSettled, nextAsk, settlesAt } from '@/core/delivery/delivery';
import { addMs } from '@/core/time/plan';
import type { Delivery } from '@/data/delivery/deliveries';
import { listToAsk, noteAsked, noteNotOut } from '@/data/delivery/doubts';
import { oneChannel } from '@/data/brands/channels';
import { lockPosts } from '@/data/posts/lockPosts';
import { leftAt, type DeliveryWork } from './deliver';
import { publishCopy } from './publish';
import { takeOver } from './takeOver';
import { learnWhetherOut, type OutAnswer } from './whetherOut';
import { acting } from '../useCase';

/** Deliveries asked about in one go, and so at once. */
const ASKED_AT_ONCE = 16;
/** Waits before it is asked again whether something is out whose post is just being sent, in milliseconds. */
const WHILE_SENDING_MS = 60_000;

/**
 * Asks the networks whether those copies are out whose outcome was never learnt and whose time to ask has come. What is out
 * is published as it left; what is surely not has failed; where no answer comes it is asked again later.
 *
 * @returns how many were asked about
 */
export async function askUnsure(work: DeliveryWork): Promise<number> {
  const due = await listToAsk(work.db, work.clock.now(), ASKED_AT_ONCE);
  await Promise.all(due.map(async (delivery) => take(work, delivery, await learnWhetherOut(work.network, delivery))));
  return due.length;
}

async function take(work: DeliveryWork, delivery: Delivery, found: OutAnswer): Promise<void> {
  await work.db.transaction(async (tx) => {
    const act = acting(tx, work, null);
    await lockPosts(tx, [delivery.postId]);
    const about = { brandId: delivery.brandId, subject: 'delivery' as const, subjectId: delivery.id };
    if (found.kind === 'found') {
      const { at = leftAt(delivery), address } = found;
      const isWritten = await publishCopy(act, delivery, { at, address });
      if (isWritten) await act.note({ ...about, deed: 'found to be out' });
      else await noteAsked(tx, delivery.id, addMs(act.now, WHILE_SENDING_MS));
      return;
    }
    if (found.kind === 'unknown') return noteAsked(tx, delivery.id, nextAsk(delivery.asks + 1, act.now));
    if (found.other && (await takeOver(act, await oneChannel(tx, delivery.channelId), found.other)))
      await act.note({ ...about, deed: 'found to be out' });
    if (delivery.unsureSince !== null && !isSettled(delivery.unsureSince, act.now))
      return noteAsked(tx, delivery.id, settlesAt(delivery.unsureSince));
    await noteNotOut(tx, [delivery]);
    await act.note({ ...about, deed: 'found not to be out' });
  });
}
