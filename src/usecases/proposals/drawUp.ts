import type { Clock, Ids } from '@/core/clock';
import { cardColours } from '@/core/cards/card';
import { cardFor } from '@/core/proposals/proposal';
import { addMs } from '@/core/time/plan';
import { listBrandAssets } from '@/data/brands/brandAssets';
import { listChannels } from '@/data/brands/channels';
import type { Db } from '@/data/database/db';
import { maybePiece } from '@/data/pieces/pieces';
import { insertProposals, listToDrawUp, noteDrawnUp } from '@/data/proposals/proposals';
import { planFanOut } from '../fanOut/planFanOut';

/** The job that draws up standing fan-outs. */
export const DRAW_UP_JOB = 'drawUp';

/** Units under which the captions of proposals stay: what comes unasked is short. */
const SHORT_CAPTION = 125;
/** Pieces that one run draws up, at most. */
const AT_ONCE = 10;
/** How long a text that somebody types has to rest until it counts as there, in milliseconds. */
const RESTS_MS = 2 * 60_000;

/**
 * Draws up the standing fan-outs of pieces whose text is there: what they would make waits as proposals for the owner of the piece.
 * Each piece has its turn once; one that cannot be drawn up is left.
 *
 * @param isStopping whether it shall break off; what is left has its turn in the next run
 * @returns how many proposals were made
 */
export async function drawUpStanding(
  { db, clock, ids }: { db: Db; clock: Clock; ids: Ids },
  isStopping: () => boolean = () => false,
): Promise<number> {
  let made = 0;
  for (const { pieceId, fanOut } of await listToDrawUp(db, addMs(clock.now(), -RESTS_MS), AT_ONCE)) {
    if (isStopping()) break;
    const piece = (await maybePiece(db, pieceId))!;
    const now = clock.now();
    const ask = { fanOut, only: null, anchor: null, chosen: {}, on: null, under: SHORT_CAPTION, seed: 1 };
    const plan = await planFanOut(db, piece, ask, now);
    const posts = plan.ok ? plan.value.posts.filter(({ drafts }) => drafts.length > 0) : [];
    const [channels, assets] = await Promise.all([listChannels(db, piece.brandId), listBrandAssets(db, piece.brandId)]);
    const sheets = new Map(channels.map(({ id, sheet }) => [id, sheet]));
    const colours = cardColours(assets.filter(({ kind }) => kind === 'colour').map(({ value }) => value));
    await db.transaction(async (tx) => {
      if (!(await noteDrawnUp(tx, pieceId, fanOut, now))) return;
      await insertProposals(
        tx,
        posts.map(({ channelId, format, offset, gap, from, drafts }, place) => ({
          ...{ id: ids(), brandId: piece.brandId, pieceId, ownerId: piece.ownerId, channelId, format, fanOut, place },
          ...{ offset, gap, from, draft: drafts[0]!, madeAt: now },
          card: cardFor({ format, from }, place, piece.title, sheets.get(channelId)!, colours),
        })),
      );
      made += posts.length;
    });
  }
  return made;
}
