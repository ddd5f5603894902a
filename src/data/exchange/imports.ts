import type { Refusal } from '@/core/refusal';
import type { Instant } from '@/core/time/plan';
import type { Queryable } from '../database/db';

/** Where a long import stands. */
export type ImportState = 'waiting' | 'checking' | 'writing' | 'done' | 'refused' | 'stopped';

/** A file that is brought in slice by slice. */
export interface LongImport<Outcome = unknown> {
  id: string;
  brandId: string;
  actorId: string;
  fileName: string;
  rowCount: number;
  state: ImportState;
  /** How many rows the present state has behind it. */
  doneCount: number;
  /** The line of the last row written; 0 before the first. */
  doneLine: number;
  stopAsked: boolean;
  outcome: Outcome;
  refusal: Refusal | null;
  createdAt: Instant;
  endedAt: Instant | null;
}

const COLUMNS = `i.id, i.brand_id as "brandId", i.actor_id as "actorId", i.file_name as "fileName", i.row_count as "rowCount", i.state,
  i.done_count as "doneCount", i.done_line as "doneLine", i.stop_asked as "stopAsked", i.outcome, i.refusal, i.created_at as "createdAt",
  i.ended_at as "endedAt"`;

/** Adds an import that waits. `file` is the file as it was decided on, as JSON text. */
export async function insertImport(
  tx: Queryable,
  added: Pick<LongImport, 'id' | 'brandId' | 'actorId' | 'fileName' | 'rowCount' | 'outcome' | 'createdAt'> & {
    file: string;
  },
): Promise<void> {
  await tx.run(
    `insert into imports (id, brand_id, actor_id, created_at, file, file_name, row_count, outcome)
     values ($1, $2, $3, $4, $5, $6, $7, $8)`,
    [
      added.id,
      added.brandId,
      added.actorId,
      added.createdAt,
      added.file,
      added.fileName,
      added.rowCount,
      JSON.stringify(added.outcome),
    ],
  );
}

/** How an import stands. */
export async function maybeImport<Outcome>(db: Queryable, id: string): Promise<LongImport<Outcome> | undefined> {
  return (await db.rows<LongImport<Outcome>>(`select ${COLUMNS} from imports i where i.id = $1`, [id]))[0];
}

/** The import of a brand that has not ended, if there is one: the oldest. */
export async function maybeOpenImport<Outcome>(
  db: Queryable,
  brandId: string,
): Promise<LongImport<Outcome> | undefined> {
  const rows = await db.rows<LongImport<Outcome>>(
    `select ${COLUMNS} from imports i where i.brand_id = $1 and i.ended_at is null order by i.created_at limit 1`,
    [brandId],
  );
  return rows[0];
}

/** The file of an import that has not ended, as JSON text. */
export async function maybeFileOf(db: Queryable, id: string): Promise<string | undefined> {
  const rows = await db.rows<{ file: string }>('select file from imports where id = $1 and ended_at is null', [id]);
  return rows[0]?.file;
}

/** Writes how far an import has come. @returns whether its end was asked for meanwhile */
export async function noteProgress(
  tx: Queryable,
  id: string,
  { state, doneCount, doneLine, outcome }: Pick<LongImport, 'state' | 'doneCount' | 'doneLine' | 'outcome'>,
): Promise<boolean> {
  const rows = await tx.rows<{ stopAsked: boolean }>(
    `update imports set state = $2, done_count = $3, done_line = $4, outcome = $5 where id = $1 returning stop_asked as "stopAsked"`,
    [id, state, doneCount, doneLine, JSON.stringify(outcome)],
  );
  return rows[0]?.stopAsked ?? true;
}

/** Ends an import: its file is let go. */
export async function endImport(
  tx: Queryable,
  id: string,
  { state, refusal, at }: { state: 'done' | 'refused' | 'stopped'; refusal: Refusal | null; at: Instant },
): Promise<void> {
  await tx.run(`update imports set state = $2, refusal = $3, ended_at = $4, file = '' where id = $1`, [
    id,
    state,
    refusal === null ? null : JSON.stringify(refusal),
    at,
  ]);
}

/** Asks an import to end after the slice it is at. */
export async function askToStop(tx: Queryable, id: string): Promise<void> {
  await tx.run('update imports set stop_asked = true where id = $1 and ended_at is null', [id]);
}

/** Forgets imports that ended before an instant. @returns how many */
export function forgetImports(tx: Queryable, before: Instant): Promise<number> {
  return tx.run('delete from imports where ended_at < $1', [before]);
}
