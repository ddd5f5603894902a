import { afterTry, nextStep } from '@/core/delivery/delivery';
import type { Network, PublishAnswer, ReadPicture } from '@/core/delivery/network';
import type { Clock, Ids } from '@/core/clock';
import type { Db } from '@/data/db';
import { beginAttempts, claimDue, endAttempt, holdDeliveries, settleDelivery, type Delivery } from '@/data/deliveries';
import { writeHistory } from '@/data/history';
import { publishPost } from '@/data/posts';

/** What delivering needs. */
export interface DeliveryWork {
  db: Db;
  clock: Clock;
  ids: Ids;
  /** Draws a number from 0 up to 1. */
  chance: () => number;
  network: Network;
  readPicture: ReadPicture;
}

/** How many deliveries are claimed, and so under way, at once. */
export const CLAIMED_AT_ONCE = 16;

/**
 * Delivers what is due, until nothing is. Every try is written and committed before the network is called, so that a
 * broken-off one is known and asked about first.
 *
 * @returns how many tries were made
 */
export async function deliverDue(work: DeliveryWork): Promise<number> {
  let tries = 0;
  for (;;) {
    const claimed = await claim(work);
    await Promise.all(claimed.toTry.map((delivery) => tryOnce(work, delivery)));
    tries += claimed.toTry.length;
    if (claimed.toTry.length + claimed.held === 0) return tries;
  }
}

/** A claimed delivery with the number of this try, and whether an earlier one may have got through. */
interface Claimed extends Delivery {
  number: number;
  askFirst: boolean;
}

async function claim({ db, clock, ids }: DeliveryWork): Promise<{ toTry: Claimed[]; held: number }> {
  const now = clock.now();
  return db.transaction(async (tx) => {
    const due = await claimDue(tx, now, CLAIMED_AT_ONCE);
    const steps = due.map((delivery) => ({ delivery, step: nextStep(delivery, now) }));
    const toHold = steps.filter(({ step }) => step === 'hold').map(({ delivery }) => delivery);
    const toTry = steps.filter(({ step }) => step !== 'hold');
    if (toHold.length > 0) {
      await holdDeliveries(
        tx,
        toHold.map((delivery) => delivery.id),
      );
      await writeHistory(
        tx,
        toHold.map((delivery) => deed(delivery, now, 'held')),
      );
    }
    if (toTry.length === 0) return { toTry: [], held: toHold.length };
    const numbers = await beginAttempts(
      tx,
      toTry.map(({ delivery }) => ({ id: ids(), deliveryId: delivery.id })),
      now,
    );
    return {
      held: toHold.length,
      toTry: toTry.map(({ delivery, step }) => ({
        ...delivery,
        attempts: delivery.attempts + 1,
        number: numbers.get(delivery.id)!,
        askFirst: step === 'askFirst',
      })),
    };
  });
}

async function tryOnce(work: DeliveryWork, delivery: Claimed): Promise<void> {
  const answer = await callNetwork(work, delivery);
  const now = work.clock.now();
  const after = afterTry(answer, delivery.attempts, now, work.chance());
  await work.db.transaction(async (tx) => {
    const words = answer.kind === 'accepted' ? '' : answer.words;
    await endAttempt(tx, delivery.id, delivery.number, { at: now, outcome: answer.kind, words });
    if (!(await settleDelivery(tx, delivery.id, after))) return;
    if (after.state === 'sent') await publishPost(tx, delivery.postId, now, after.address!);
    await writeHistory(tx, [deed(delivery, now, answer.kind, { words })]);
  });
}

async function callNetwork(work: DeliveryWork, delivery: Claimed): Promise<PublishAnswer> {
  const { parcel, idempotencyKey } = delivery;
  if (delivery.askFirst) {
    const found = await work.network.find(parcel.network, idempotencyKey);
    if (found.kind === 'found') return { kind: 'accepted', address: found.address };
    if (found.kind === 'unknown') return found;
  }
  return work.network.publish(parcel, idempotencyKey, work.readPicture);
}

const deed = (delivery: Delivery, at: string, what: string, detail: object = {}) => ({
  brandId: delivery.brandId,
  at,
  actorId: null,
  subject: 'delivery' as const,
  subjectId: delivery.id,
  deed: what,
  detail,
});
