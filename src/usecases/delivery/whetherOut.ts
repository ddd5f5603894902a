import type { FindAnswer, HeldPost, Network } from '@/core/delivery/network';
import type { Delivery } from '@/data/delivery/deliveries';

/** Whether a copy is out; `foundOther`: its post is, under a key that is not this copy's. */
export type OutAnswer = FindAnswer | { kind: 'foundOther'; held: HeldPost };

/** Asks a network whether a copy is out, or its post under another key: a copy that was made since on a folder that is lost. */
export async function learnWhetherOut(
  network: Network,
  { parcel, idempotencyKey, postId }: Pick<Delivery, 'parcel' | 'idempotencyKey' | 'postId'>,
): Promise<OutAnswer> {
  const found = await network.find(parcel.network, idempotencyKey);
  if (found.kind !== 'notFound') return found;
  const held = await network.heldOf(parcel, postId);
  if (held.kind === 'unknown') return held;
  const [other] = held.kind === 'told' ? held.posts : [];
  return other ? { kind: 'foundOther', held: other } : found;
}
