import type { ExtractKind } from '@/core/extracts/extracts';
import { READ_AS_IT_LOOKS, type HowRead } from '@/core/reading/howRead';
import type { Cue } from '@/core/reading/subtitles';
import type { Instant } from '@/core/time/plan';
import type { Queryable } from '../database/db';

/** What somebody made of a part of a piece. */
export interface KeptExtract {
  id: string;
  brandId: string;
  pieceId: string;
  kind: ExtractKind | 'clip';
  state: 'accepted' | 'rejected';
  /** UTF-16 offsets of the piece's text as it is read. */
  start: number;
  end: number;
  reason: string;
  /** Its short name; absent for whichever is free when it is added. */
  sign?: string;
  createdAt: Instant;
  createdBy: string;
}

/** A piece's text as it is kept. */
export interface KeptSource {
  source: string;
  cues: Cue[];
  isWordTimed: boolean;
  how: HowRead;
}

/** The beginnings of the newest other texts of a brand. */
export async function listOtherTexts(
  db: Queryable,
  { brandId, id }: { brandId: string; id: string },
  { most, letters }: { most: number; letters: number },
): Promise<string[]> {
  const rows = await db.rows<{ text: string }>(
    `select left(source_text, $4) as text from pieces where brand_id = $1 and id <> $2 and source_text <> ''
       and deleted_at is null order by created_at desc, id limit $3`,
    [brandId, id, most, letters],
  );
  return rows.map(({ text }) => text);
}

/** A cue as it is kept. */
export type CueRow = [start: number, end: number, inMs: number, outMs: number];

/** The text of a piece with its times. */
export async function maybeSource(db: Queryable, pieceId: string): Promise<KeptSource | undefined> {
  const [row] = await db.rows<{ source: string; cues: CueRow[]; isWordTimed: boolean; how: HowRead | null }>(
    `select source_text as source, cues, is_word_timed as "isWordTimed", how_read as how
     from pieces where id = $1 and deleted_at is null`,
    [pieceId],
  );
  return (
    row && {
      ...row,
      how: row.how ?? READ_AS_IT_LOOKS,
      cues: cuesFrom(row.cues),
    }
  );
}

/** The texts of which it is not kept yet how they are read. */
export async function listUnsettled(db: Queryable): Promise<(Pick<KeptSource, 'source' | 'cues'> & { id: string })[]> {
  const rows = await db.rows<{ id: string; source: string; cues: CueRow[] }>(
    'select id, source_text as source, cues from pieces where how_read is null order by id',
  );
  return rows.map((row) => ({ ...row, cues: cuesFrom(row.cues) }));
}

/** Cues as they are kept. */
export const cuesFrom = (rows: readonly CueRow[]): Cue[] =>
  rows.map(([start, end, inMs, outMs]) => ({ start, end, inMs, outMs }));

/** Writes the times of a piece's text. */
export async function updateCues(
  tx: Queryable,
  pieceId: string,
  cues: readonly Cue[],
  isWordTimed: boolean,
): Promise<void> {
  const rows: CueRow[] = cues.map(({ start, end, inMs, outMs }) => [start, end, inMs, outMs]);
  await tx.run('update pieces set cues = $2::text::jsonb, is_word_timed = $3 where id = $1', [
    pieceId,
    JSON.stringify(rows),
    isWordTimed,
  ]);
}

/** Writes how a piece's text is read. */
export async function updateHowRead(tx: Queryable, pieceId: string, how: HowRead): Promise<void> {
  await tx.run('update pieces set how_read = $2::text::jsonb where id = $1', [pieceId, JSON.stringify(how)]);
}

const SELECT = `select id, brand_id as "brandId", piece_id as "pieceId", kind, state, start_offset as start, end_offset as "end",
    reason, sign, created_at as "createdAt", created_by as "createdBy" from extracts`;

/** All that was accepted or rejected of a piece, in the order of its text. */
export const listExtracts = (db: Queryable, pieceId: string): Promise<KeptExtract[]> =>
  db.rows<KeptExtract>(`${SELECT} where piece_id = $1 order by start_offset, end_offset, id`, [pieceId]);

/** The extract with that id. */
export async function maybeExtract(db: Queryable, id: string): Promise<KeptExtract | undefined> {
  return (await db.rows<KeptExtract>(`${SELECT} where id = $1`, [id]))[0];
}

/** Adds extracts. */
export async function insertExtracts(tx: Queryable, extracts: readonly KeptExtract[]): Promise<void> {
  if (extracts.length === 0) return;
  await tx.run(
    `insert into extracts (id, brand_id, piece_id, kind, state, start_offset, end_offset, reason, sign, created_at, created_by)
     select x.id, x."brandId", x."pieceId", x.kind, x.state, x.start, x."end", x.reason, coalesce(x.sign, ''),
       x."createdAt", x."createdBy"
     from jsonb_to_recordset($1::jsonb) as x (id uuid, "brandId" uuid, "pieceId" uuid, kind text, state text,
       start integer, "end" integer, reason text, sign text, "createdAt" timestamptz, "createdBy" uuid)`,
    [JSON.stringify(extracts)],
  );
}

/** Writes where an extract stands, and what became of it. */
export async function updateExtract(
  tx: Queryable,
  { id, state, start, end }: Pick<KeptExtract, 'id' | 'state' | 'start' | 'end'>,
): Promise<void> {
  await tx.run('update extracts set state = $2, start_offset = $3, end_offset = $4 where id = $1', [
    id,
    state,
    start,
    end,
  ]);
}

/** Moves extracts to where they stand in a corrected text. */
export async function moveExtracts(
  tx: Queryable,
  moved: readonly Pick<KeptExtract, 'id' | 'start' | 'end'>[],
): Promise<void> {
  if (moved.length === 0) return;
  await tx.run(
    `update extracts e set start_offset = x.start, end_offset = x."end"
     from jsonb_to_recordset($1::jsonb) as x (id uuid, start integer, "end" integer) where e.id = x.id`,
    [JSON.stringify(moved.map(({ id, start, end }) => ({ id, start, end })))],
  );
}

/** Takes extracts away. */
export async function deleteExtracts(tx: Queryable, ids: readonly string[]): Promise<void> {
  if (ids.length > 0) await tx.run('delete from extracts where id = any($1::uuid[])', [ids]);
}
