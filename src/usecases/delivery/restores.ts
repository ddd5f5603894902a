import { deleteAllEntryLinks } from '@/data/signIn/entryLinks';
import { deleteAllSignIns } from '@/data/signIn/signIns';
import type { Sign } from '@/core/folder/restored';
import { slipOf, type Slip } from '@/core/calendar/slip';
import type { Result } from '@/core/refusal';
import type { Instant } from '@/core/time/plan';
import { listBrands, type Brand } from '@/data/brands/brands';
import { listChannels, listChannelsById } from '@/data/brands/channels';
import {
  closeRestore,
  keepBack,
  listAccountsToAsk,
  listAwaitingRelease,
  maybeOpenRestore,
  noteRestore,
  releaseDeliveries,
  type Restore,
} from '@/data/delivery/restores';
import { listPostLines } from '@/data/posts/postLines';
import { mustMay } from '../rights/mustMay';
import { doing, refused, type Db, type Work } from '../useCase';
import type { DeliveryWork } from './deliver';

/**
 * Notes that the data folder was restored: nothing of any brand leaves by itself from now on, before a manager of the brand has seen
 * what waits and released it.
 *
 * @param restoredTo how far the folder reached when it was found
 */
export async function noteRestored(
  { db, clock, ids }: Pick<DeliveryWork, 'db' | 'clock' | 'ids'>,
  signs: readonly Sign[],
  restoredTo: Instant | null,
): Promise<void> {
  await db.transaction(async (tx) => {
    const now = clock.now();
    for (const { id: brandId } of await listBrands(tx)) {
      await noteRestore(tx, { id: ids(), brandId, foundAt: now, restoredTo, signs });
      await keepBack(tx, brandId, now);
    }
    // Who was signed out since would be signed in again by it, and a link that was used would hold again.
    await deleteAllSignIns(tx);
    await deleteAllEntryLinks(tx);
  });
}

/** A post that waits to be released. */
export interface Waiting {
  slip: Slip;
  dueAt: Instant;
  /** Its network has not said whether it holds it. */
  isUnsure: boolean;
  isByHand: boolean;
}

/** What a manager sees of a restore before anything goes on. */
export interface OpenRestore extends Restore {
  waiting: Waiting[];
  /** Channels whose network has not told yet what it holds: nothing leaves there before it has. */
  silentChannels: string[];
}

/** The restore of a brand that nobody has released yet, with what waits; null where there is none. */
export async function loadRestore(db: Db, brand: Brand): Promise<OpenRestore | null> {
  const restore = await maybeOpenRestore(db, brand.id);
  if (!restore) return null;
  const [deliveries, silent, channels] = await Promise.all([
    listAwaitingRelease(db, brand.id),
    listAccountsToAsk(db),
    listChannels(db, brand.id),
  ]);
  const lines = new Map(
    (
      await listPostLines(
        db,
        deliveries.map(({ postId }) => postId),
      )
    ).map((line) => [line.id, line]),
  );
  const byId = new Map(
    (await listChannelsById(db, [...new Set([...lines.values()].map(({ channelId }) => channelId))])).map((channel) => [
      channel.id,
      channel,
    ]),
  );
  return {
    ...restore,
    waiting: deliveries.flatMap(({ postId, dueAt, unsure, mode }) => {
      const line = lines.get(postId);
      return line
        ? [{ slip: slipOf(line, byId.get(line.channelId)!), dueAt, isUnsure: unsure, isByHand: mode === 'byHand' }]
        : [];
    }),
    silentChannels: channels
      .filter(({ id }) => silent.some(({ channelId }) => channelId === id))
      .map(({ name }) => name),
  };
}

/**
 * Releases what waits since a restore: all of it, by which the restore is seen and done with, or that of one post. What may be out
 * is asked about before it is sent, and what missed its time is put on hold as ever.
 *
 * @returns how many posts go on
 */
export function releaseRestored(
  work: Work,
  brandId: string,
  postId: string | null,
): Promise<Result<{ released: number }>> {
  return doing(work, async (act) => {
    await mustMay(act, 'releaseRestored', brandId);
    const released = await releaseDeliveries(act.tx, brandId, postId === null ? null : [postId]);
    const isClosed = postId === null && (await closeRestore(act.tx, brandId, { personId: act.actorId, at: act.now }));
    if (released.length === 0 && !isClosed)
      refused({ code: 'nothing', message: 'Nothing waits any more: somebody else has released it.' });
    await act.note(
      ...released.map((id) => ({ brandId, subject: 'delivery' as const, subjectId: id, deed: 'released' })),
    );
    return { released: released.length };
  });
}
