import type { PieceKind } from '@/core/pieces/kinds';
import type { Instant, LocalDate } from '@/core/time/plan';
import { PIECE_FIELDS, type PieceTexts } from '@/core/pieces/texts';
import type { Queryable } from '../database/db';
import { columnOf } from '../posts/textColumns';

/** The thing said. */
export interface Piece extends PieceTexts {
  id: string;
  brandId: string;
  kind: PieceKind;
  /** The day its own prep counts back from; null for that of its earliest post. */
  prepDay: LocalDate | null;
  ownerId: string;
  createdAt: Instant;
  setAsideAt: Instant | null;
  setAsideReason: string;
  deletedAt: Instant | null;
  version: number;
  /** Channels suggested for it that have no post of it yet. */
  suggestedChannelIds: string[];
  /** Posts that are neither deleted nor set aside. */
  livePosts: number;
}

/** What decides about the prep of a piece. */
type PiecePrep = Pick<Piece, 'kind' | 'prepDay'>;

const SELECT = `select p.id, p.brand_id as "brandId", ${PIECE_FIELDS.map((name) => `p.${columnOf(name)} as "${name}"`).join(', ')},
    p.kind, p.prep_day as "prepDay",
    p.owner_id as "ownerId", p.created_at as "createdAt", p.set_aside_at as "setAsideAt",
    p.set_aside_reason as "setAsideReason", p.deleted_at as "deletedAt", p.version,
    array(select s.channel_id::text from piece_suggestions s where s.piece_id = p.id) as "suggestedChannelIds",
    (select count(*)::int from posts o where o.piece_id = p.id and o.deleted_at is null and o.stage <> 'setAside') as "livePosts"
  from pieces p`;

/** Ideas as `core/pieces` defines them: suggestions left, or neither source text nor a live post. */
const IS_IDEA = `(
    exists (select 1 from piece_suggestions s where s.piece_id = p.id)
    or (p.source_text !~ '\\S' and not exists (
      select 1 from posts o where o.piece_id = p.id and o.deleted_at is null and o.stage <> 'setAside'))
  )`;

/** The piece with that id, deleted or not. */
export async function maybePiece(db: Queryable, id: string): Promise<Piece | undefined> {
  return (await db.rows<Piece>(`${SELECT} where p.id = $1`, [id]))[0];
}

/** The newest ideas of these brands, at most `limit`; those set aside instead when asked for. */
export function listIdeas(
  db: Queryable,
  brandIds: readonly string[],
  limit: number,
  setAside = false,
): Promise<Piece[]> {
  return db.rows<Piece>(
    `${SELECT} where p.brand_id = any($1::uuid[]) and p.deleted_at is null
       and ${setAside ? 'p.set_aside_at is not null' : `p.set_aside_at is null and ${IS_IDEA}`}
     order by p.created_at desc, p.id limit $2`,
    [brandIds, limit],
  );
}

/** The titles of pieces by id. */
export async function listPieceTitles(db: Queryable, ids: readonly string[]): Promise<Record<string, string>> {
  const rows = await db.rows<{ id: string; title: string }>('select id, title from pieces where id = any($1::uuid[])', [
    [...new Set(ids)],
  ]);
  return Object.fromEntries(rows.map(({ id, title }) => [id, title]));
}

/** Ids of a brand's pieces by their titles, for the titles asked for; the newest where several have one. */
export async function listPiecesByTitle(
  db: Queryable,
  brandId: string,
  titles: readonly string[],
): Promise<Map<string, string>> {
  const rows = await db.rows<{ id: string; title: string }>(
    `select id, title from pieces where brand_id = $1 and title = any($2::text[]) and deleted_at is null
     order by created_at, id`,
    [brandId, titles],
  );
  return new Map(rows.map(({ id, title }) => [title, id]));
}

/** Ids of a brand's pieces by their links, for the links asked for, where just one piece has it. */
export async function listPiecesByLink(
  db: Queryable,
  brandId: string,
  links: readonly string[],
): Promise<Map<string, string>> {
  if (links.length === 0) return new Map();
  const rows = await db.rows<{ id: string; link: string }>(
    `select min(id::text) as id, link from pieces where brand_id = $1 and link = any($2::text[]) and deleted_at is null
     group by link having count(*) = 1`,
    [brandId, links],
  );
  return new Map(rows.map(({ id, link }) => [link, id]));
}

/** Adds pieces, messages unless they are said to be something else. */
export async function insertPieces(
  tx: Queryable,
  pieces: readonly (Partial<PieceTexts> & {
    kind?: PieceKind;
    id: string;
    brandId: string;
    ownerId: string;
    /** Who made it, where that is not its owner. */
    createdBy?: string;
    createdAt: Instant;
  })[],
): Promise<void> {
  await tx.run(
    `insert into pieces (id, brand_id, owner_id, created_by, created_at, kind, ${PIECE_FIELDS.map(columnOf).join(', ')})
     select x.id, x."brandId", x."ownerId", coalesce(x."createdBy", x."ownerId"), x."createdAt", coalesce(x.kind, 'message'),
       ${PIECE_FIELDS.map((name) => `coalesce(x."${name}", '')`).join(', ')}
     from jsonb_to_recordset($1::jsonb) as x (id uuid, "brandId" uuid, "ownerId" uuid, "createdBy" uuid, "createdAt" timestamptz,
       kind text, ${PIECE_FIELDS.map((name) => `"${name}" text`).join(', ')})`,
    [JSON.stringify(pieces)],
  );
}

/** The pieces of these posts that have steps of their own. */
export async function listPreparedPiecesOf(db: Queryable, postIds: readonly string[]): Promise<string[]> {
  const rows = await db.rows<{ id: string }>(
    `select distinct p.piece_id as id from posts p
     where p.id = any($1::uuid[]) and exists (select 1 from steps s where s.piece_id = p.piece_id)`,
    [postIds],
  );
  return rows.map(({ id }) => id);
}

/** Suggests exactly these channels for a piece. */
export async function replaceSuggestions(
  tx: Queryable,
  piece: { id: string; brandId: string },
  channelIds: readonly string[],
): Promise<void> {
  await tx.run('delete from piece_suggestions where piece_id = $1', [piece.id]);
  await tx.run('insert into piece_suggestions (brand_id, piece_id, channel_id) select $1, $2, unnest($3::uuid[])', [
    piece.brandId,
    piece.id,
    channelIds,
  ]);
}

/** Takes suggestions back, for channels that have their post now. @returns the channels it was suggested for */
export async function deleteSuggestions(
  tx: Queryable,
  pieceId: string,
  channelIds: readonly string[],
): Promise<string[]> {
  const rows = await tx.rows<{ id: string }>(
    'delete from piece_suggestions where piece_id = $1 and channel_id = any($2::uuid[]) returning channel_id as id',
    [pieceId, channelIds],
  );
  return rows.map(({ id }) => id);
}

/** Suggests a piece for channels again, beside those it is suggested for. */
export async function addSuggestions(tx: Queryable, pieceId: string, channelIds: readonly string[]): Promise<void> {
  await tx.run(
    `insert into piece_suggestions (brand_id, piece_id, channel_id)
     select p.brand_id, p.id, x.id from pieces p, unnest($2::uuid[]) as x (id) where p.id = $1 on conflict do nothing`,
    [pieceId, channelIds],
  );
}

/** Writes the texts, kind and day of a piece if its version is still the one given. @returns whether it was. */
export async function updatePiece(
  tx: Queryable,
  id: string,
  version: number,
  { kind, prepDay, ...texts }: PieceTexts & PiecePrep,
): Promise<boolean> {
  const assignments = PIECE_FIELDS.map((name, index) => `${columnOf(name)} = $${index + 5}`);
  const changed = await tx.run(
    `update pieces set kind = $3, prep_day = $4, ${assignments.join(', ')}, version = version + 1
     where id = $1 and version = $2 and deleted_at is null`,
    [id, version, kind, prepDay, ...PIECE_FIELDS.map((name) => texts[name])],
  );
  return changed === 1;
}

/** Says when the text of a piece was last typed at; null for one that was brought in whole. */
export async function updateTypedAt(tx: Queryable, id: string, at: Instant | null): Promise<void> {
  await tx.run('update pieces set typed_at = $2 where id = $1', [id, at]);
}

/** Sets a piece aside (with the reason) or, with null, brings it back. @returns whether that changed anything. */
export async function updatePieceSetAside(
  tx: Queryable,
  id: string,
  at: Instant | null,
  reason: string,
): Promise<boolean> {
  const changed = await tx.run(
    `update pieces set set_aside_at = $2, set_aside_reason = $3, version = version + 1
     where id = $1 and deleted_at is null and (set_aside_at is null) = ($2::timestamptz is not null)`,
    [id, at, reason],
  );
  return changed === 1;
}

/** Deletes a piece for people, or with null brings it back. @returns whether that changed anything. */
export async function updatePieceDeleted(tx: Queryable, id: string, at: Instant | null): Promise<boolean> {
  const changed = await tx.run(
    `update pieces set deleted_at = $2, version = version + 1
     where id = $1 and (deleted_at is null) = ($2::timestamptz is not null)`,
    [id, at],
  );
  return changed === 1;
}
