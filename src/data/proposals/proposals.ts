import type { Card } from '@/core/cards/card';
import type { Draft } from '@/core/drafts/draft';
import type { FanOutPost } from '@/core/fanOut/ground';
import type { Format } from '@/core/rulesheets/types';
import type { Instant, LocalDate } from '@/core/time/plan';
import type { Queryable } from '../database/db';

/** A post that was drawn up by itself, waiting for a yes. */
export interface Proposal {
  id: string;
  brandId: string;
  pieceId: string;
  ownerId: string;
  channelId: string;
  format: Format;
  /** Slug of the fan-out that drew it up. */
  fanOut: string;
  place: number;
  offset: number;
  gap: number;
  from: FanOutPost['from'];
  draft: Draft;
  card: Card | null;
  madeAt: Instant;
  state: 'waiting' | 'kept' | 'thrownAway';
}

const COLUMNS = `x.id, x.brand_id as "brandId", x.piece_id as "pieceId", x.owner_id as "ownerId", x.channel_id as "channelId",
  x.format, x.fan_out as "fanOut", x.place, x.offset_days as "offset", x.gap_days as gap, x.made_from as "from", x.draft, x.card,
  x.made_at as "madeAt", x.state`;

/** Keeps proposals. */
export async function insertProposals(tx: Queryable, proposals: readonly Omit<Proposal, 'state'>[]): Promise<void> {
  await tx.run(
    `insert into proposals (id, brand_id, piece_id, owner_id, channel_id, format, fan_out, place, offset_days, gap_days,
       made_from, draft, card, made_at)
     select x.id, x."brandId", x."pieceId", x."ownerId", x."channelId", x.format, x."fanOut", x.place, x."offset", x.gap,
       x."from", x.draft, nullif(x.card, 'null'), x."madeAt"
     from jsonb_to_recordset($1::jsonb) as x (id uuid, "brandId" uuid, "pieceId" uuid, "ownerId" uuid, "channelId" uuid,
       format text, "fanOut" text, place int, "offset" int, gap int, "from" jsonb, draft jsonb, card jsonb, "madeAt" timestamptz)`,
    [JSON.stringify(proposals)],
  );
}

/** What waits for a person in a brand, with the titles of the pieces, the newest first, at most `limit`. */
export function listWaiting(
  db: Queryable,
  ownerId: string,
  brandId: string,
  limit: number,
): Promise<(Proposal & { pieceTitle: string })[]> {
  return db.rows(
    `select ${COLUMNS}, g.title as "pieceTitle" from proposals x join pieces g on g.id = x.piece_id
       join channels c on c.id = x.channel_id
     where x.owner_id = $1 and x.brand_id = $2 and x.state = 'waiting' and g.deleted_at is null and c.archived_at is null
     order by x.made_at desc, x.piece_id, x.place limit $3`,
    [ownerId, brandId, limit],
  );
}

/** The proposal with that id. */
export async function maybeProposal(db: Queryable, id: string): Promise<Proposal | undefined> {
  return (await db.rows<Proposal>(`select ${COLUMNS} from proposals x where x.id = $1`, [id]))[0];
}

/** Takes a proposal to be decided on, until the transaction ends. */
export async function lockProposal(tx: Queryable, id: string): Promise<Proposal | undefined> {
  return (await tx.rows<Proposal>(`select ${COLUMNS} from proposals x where x.id = $1 for update`, [id]))[0];
}

/** The days of the posts that other proposals of the same row of a fan-out became. */
export async function listDaysOfRow(
  db: Queryable,
  {
    pieceId,
    fanOut,
    channelId,
    format,
    offset,
  }: Pick<Proposal, 'pieceId' | 'fanOut' | 'channelId' | 'format' | 'offset'>,
): Promise<LocalDate[]> {
  const rows = await db.rows<{ date: LocalDate }>(
    `select distinct p.plan_date as date from proposals x join posts p on p.id = x.post_id
     where x.piece_id = $1 and x.fan_out = $2 and x.channel_id = $3 and x.format = $4 and x.offset_days = $5
       and x.state = 'kept' and p.deleted_at is null and p.stage <> 'setAside' and p.plan_date is not null`,
    [pieceId, fanOut, channelId, format, offset],
  );
  return rows.map(({ date }) => date);
}

/** Writes what was decided. */
export async function updateProposal(
  tx: Queryable,
  id: string,
  decided: { state: Proposal['state']; at: Instant | null; postId: string | null },
): Promise<void> {
  await tx.run('update proposals set state = $2, decided_at = $3, post_id = $4 where id = $1', [
    id,
    decided.state,
    decided.at,
    decided.postId,
  ]);
}

/**
 * Pieces with a text for which the standing fan-out of their kind is to be drawn up, at most `limit`.
 *
 * @param typedBefore a text that somebody types is taken once it rests since then
 */
export function listToDrawUp(
  db: Queryable,
  typedBefore: Instant,
  limit: number,
): Promise<{ pieceId: string; fanOut: string }[]> {
  // Texts are long, so those that were drawn up are left out before any is looked at.
  return db.rows(
    `with open as materialized (
       select p.id, f.slug from fan_outs f join pieces p on p.brand_id = f.brand_id and p.kind = f.for_kind
       where f.is_standing and p.deleted_at is null and p.set_aside_at is null
         and not exists (select 1 from drawn_up d where d.piece_id = p.id and d.fan_out = f.slug))
     select o.id as "pieceId", o.slug as "fanOut" from open o join pieces p on p.id = o.id
     where p.source_text ~ '\\S' and (p.typed_at is null or p.typed_at < $1) order by p.created_at limit $2`,
    [typedBefore, limit],
  );
}

/** Says that a fan-out was drawn up for a piece. @returns whether it was not yet */
export async function noteDrawnUp(tx: Queryable, pieceId: string, fanOut: string, at: Instant): Promise<boolean> {
  const noted = await tx.run(
    'insert into drawn_up (piece_id, fan_out, at) values ($1, $2, $3) on conflict do nothing',
    [pieceId, fanOut, at],
  );
  return noted === 1;
}

/** Says of all pieces of a brand that have a text already that a fan-out is not drawn up for them. */
export async function passOverPresent(tx: Queryable, brandId: string, fanOut: string, at: Instant): Promise<void> {
  await tx.run(
    `insert into drawn_up (piece_id, fan_out, at) select id, $2, $3 from pieces where brand_id = $1 and source_text ~ '\\S'
     on conflict do nothing`,
    [brandId, fanOut, at],
  );
}
