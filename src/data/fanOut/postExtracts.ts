import type { Instant } from '@/core/time/plan';
import type { Queryable } from '../database/db';
import type { KeptExtract } from '../extracts/extracts';

/** Says which extracts posts were made from. */
export async function insertPostExtracts(
  tx: Queryable,
  made: readonly { postId: string; extractId: string }[],
): Promise<void> {
  if (made.length === 0) return;
  await tx.run(
    `insert into post_extracts (post_id, extract_id)
     select x."postId", x."extractId" from jsonb_to_recordset($1::jsonb) as x ("postId" uuid, "extractId" uuid)`,
    [JSON.stringify(made)],
  );
}

/** Takes it back that posts were made from extracts. */
export async function deletePostExtracts(tx: Queryable, postIds: readonly string[]): Promise<void> {
  await tx.run('delete from post_extracts where post_id = any($1::uuid[])', [postIds]);
}

/** The extracts that posts were made from, in the order of the piece's text. */
export function listExtractsOfPosts(
  db: Queryable,
  postIds: readonly string[],
): Promise<(Pick<KeptExtract, 'id' | 'pieceId' | 'kind' | 'start' | 'end'> & { postId: string })[]> {
  return db.rows(
    `select x.post_id as "postId", e.id, e.piece_id as "pieceId", e.kind, e.start_offset as start, e.end_offset as "end"
     from post_extracts x join extracts e on e.id = x.extract_id where x.post_id = any($1::uuid[])
     order by x.post_id, e.start_offset, e.end_offset, e.id`,
    [postIds],
  );
}

/** The stretches of a piece's text that live posts were made from, with their channels. */
export function listUsedStretches(
  db: Queryable,
  pieceId: string,
): Promise<{ channelId: string; postId: string; extractId: string; start: number; end: number }[]> {
  return db.rows(
    `select p.channel_id as "channelId", p.id as "postId", e.id as "extractId", e.start_offset as start, e.end_offset as "end"
     from extracts e join post_extracts x on x.extract_id = e.id join posts p on p.id = x.post_id
     where e.piece_id = $1 and p.deleted_at is null and p.stage <> 'setAside'`,
    [pieceId],
  );
}

/** The extracts that were accepted only by making those posts, and of which no other live post is made. */
export async function listExtractsOnlyOf(
  tx: Queryable,
  postIds: readonly string[],
  { at, actorId }: { at: Instant; actorId: string },
): Promise<string[]> {
  const rows = await tx.rows<{ id: string }>(
    `select e.id from extracts e where e.created_at = $2 and e.created_by = $3 and e.state = 'accepted'
       and exists (select 1 from post_extracts x where x.extract_id = e.id and x.post_id = any($1::uuid[]))
       and not exists (select 1 from post_extracts x join posts p on p.id = x.post_id
         where x.extract_id = e.id and p.deleted_at is null)`,
    [postIds, at, actorId],
  );
  return rows.map(({ id }) => id);
}

/** The extracts that a post was made from. */
export async function listExtractIdsOf(db: Queryable, postId: string): Promise<string[]> {
  const rows = await db.rows<{ id: string }>('select extract_id as id from post_extracts where post_id = $1', [postId]);
  return rows.map(({ id }) => id);
}
