import type { FindAnswer, HeldPost, Network } from '@/core/delivery/network';
import type { Delivery } from '@/data/delivery/deliveries';

/** Whether a copy is out, and what its network holds of its post under another key, when it is not. */
export type OutAnswer = Exclude<FindAnswer, { kind: 'notFound' }> | { kind: 'notFound'; other: HeldPost | null };

/** Asks a network whether a copy is out, or its post under another key: as a copy that was made since on a folder that is lost. */
export async function learnWhetherOut(
  network: Network,
  { parcel, idempotencyKey, postId }: Pick<Delivery, 'parcel' | 'idempotencyKey' | 'postId'>,
): Promise<OutAnswer> {
  const found = await network.find(parcel.network, idempotencyKey);
  if (found.kind !== 'notFound') return found;
  const held = await network.heldOf(parcel, postId);
  if (held.kind === 'unknown') return held;
  return { kind: 'notFound', other: (held.kind === 'told' && held.posts[0]) || null };
}
