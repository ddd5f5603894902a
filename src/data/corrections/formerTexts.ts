import type { HowRead } from '@/core/reading/howRead';
import type { Cue } from '@/core/reading/subtitles';
import { READ_AS_IT_LOOKS } from '@/core/reading/howRead';
import type { Queryable } from '../database/db';
import { cuesFrom, type CueRow } from '../extracts/extracts';

/** What a piece said when posts were made from it. */
interface FormerText {
  id: string;
  title: string;
  link: string;
  source: string;
  cues: Cue[];
  how: HowRead;
}

/** The texts that a piece had and that posts were made of. */
export async function listFormerTexts(db: Queryable, pieceId: string): Promise<FormerText[]> {
  const rows = await db.rows<Omit<FormerText, 'cues' | 'how'> & { cues: CueRow[]; how: HowRead | null }>(
    `select id, title, link, source_text as source, cues, how_read as how from former_texts f
     where piece_id = $1 and exists (select 1 from posts p where p.made_of = f.id)`,
    [pieceId],
  );
  return rows.map((row) => ({ ...row, cues: cuesFrom(row.cues), how: row.how ?? READ_AS_IT_LOOKS }));
}

/** The live posts of a piece that were made of a text it had, by date: those that are set aside only if they are asked for. */
export async function listPostIdsMadeOfFormer(
  db: Queryable,
  pieceId: string,
  withSetAside: boolean,
): Promise<string[]> {
  const rows = await db.rows<{ id: string }>(
    `select id from posts where piece_id = $1 and made_of is not null and deleted_at is null
       and ($2 or stage <> 'setAside') order by plan_date nulls last, plan_time nulls last, id`,
    [pieceId, withSetAside],
  );
  return rows.map(({ id }) => id);
}

/** Pieces that say something else than when posts were made from them, and were not compared since they last changed. */
export async function listPiecesToCompare(db: Queryable, limit: number): Promise<{ id: string; version: number }[]> {
  return db.rows(
    `select distinct c.id, c.version from former_texts f join pieces c on c.id = f.piece_id
     where f.compared_with is distinct from c.version and c.deleted_at is null
       and exists (select 1 from posts p where p.made_of = f.id) order by c.id limit $1`,
    [limit],
  );
}

/** Writes down that what a piece said was compared with what it says at a version, and that these posts say nothing of what differs. */
export async function noteCompared(
  tx: Queryable,
  piece: { id: string; version: number },
  untouched: readonly { id: string; version: number }[],
): Promise<void> {
  await tx.run('update former_texts set compared_with = $2 where piece_id = $1', [piece.id, piece.version]);
  await tx.run(
    `update posts p set made_of = null from jsonb_to_recordset($1::jsonb) as x (id uuid, version integer)
     where p.id = x.id and p.version = x.version
       and exists (select 1 from pieces c where c.id = $2 and c.version = $3)`,
    [JSON.stringify(untouched), piece.id, piece.version],
  );
}
