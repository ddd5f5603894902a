import type { Instant } from '@/core/time/plan';
import { databaseError, type Queryable } from '../database/db';

/** A row as PostgreSQL writes it in JSON, by its columns. */
export type Row = Record<string, unknown>;

/** Rows that belong together: those of a table with the same key. All names are ours, none is anybody's input. */
export interface RowsOfTable {
  table: string;
  /** The columns of the key with their types. */
  key: Readonly<Record<string, 'uuid' | 'text' | 'timestamptz'>>;
  /** Columns that the database fills by itself. */
  generated?: readonly string[];
}

const whereOf = ({ key }: RowsOfTable): string =>
  Object.entries(key)
    .map(([column, type], index) => `t.${column} = $${index + 1}::${type}`)
    .join(' and ');

/** The rows, held until the transaction ends. @param values of the key's columns */
export async function readRows(tx: Queryable, of: RowsOfTable, values: readonly string[]): Promise<Row[]> {
  const row = `to_jsonb(t) - $${values.length + 1}::text[]`;
  const rows = await tx.rows<{ row: Row }>(
    `select ${row} as row from ${of.table} t where ${whereOf(of)} order by (${row})::text collate "C" for update`,
    [...values, of.generated ?? []],
  );
  return rows.map(({ row }) => row);
}

/** Writes fields of the one row. @param hasVersion whether its version counts up by that */
export async function updateRow(
  tx: Queryable,
  of: RowsOfTable,
  values: readonly string[],
  fields: Row,
  hasVersion: boolean,
): Promise<void> {
  const columns = Object.keys(fields);
  const version = hasVersion ? ', version = version + 1' : '';
  await tx.run(
    `update ${of.table} t set (${columns.join(', ')}) = (select ${columns.map((column) => `r.${column}`).join(', ')}
       from jsonb_populate_record(null::${of.table}, $${values.length + 1}::jsonb) r)${version} where ${whereOf(of)}`,
    [...values, JSON.stringify(fields)],
  );
}

/** Replaces the rows by others. */
export async function replaceRows(
  tx: Queryable,
  of: RowsOfTable,
  values: readonly string[],
  rows: readonly Row[],
): Promise<void> {
  await tx.run(`delete from ${of.table} t where ${whereOf(of)}`, [...values]);
  if (rows.length === 0) return;
  const columns = Object.keys(rows[0]!).join(', ');
  await tx.run(
    `insert into ${of.table} (${columns}) select ${columns} from jsonb_populate_recordset(null::${of.table}, $1::jsonb)`,
    [JSON.stringify(rows)],
  );
}

/** Rows of a table by their ids. */
export async function readRowsById(tx: Queryable, table: string, ids: readonly string[]): Promise<Map<string, Row>> {
  const rows = await tx.rows<{ row: Row }>(`select to_jsonb(t) as row from ${table} t where t.id = any($1::uuid[])`, [
    ids,
  ]);
  return new Map(rows.map(({ row }) => [row.id as string, row]));
}

/** The rows of a table that tell of these posts what was read at an instant. */
export async function readRowsAt(
  tx: Queryable,
  table: string,
  { post_id, read_at }: { post_id: readonly string[]; read_at: Instant },
): Promise<Row[]> {
  const rows = await tx.rows<{ row: Row }>(
    `select to_jsonb(t) as row from ${table} t where t.post_id = any($1::uuid[]) and t.read_at = $2`,
    [post_id, read_at],
  );
  return rows.map(({ row }) => row);
}

/** An instant as PostgreSQL writes it in the JSON of a row. */
export async function instantInRow(tx: Queryable, instant: Instant): Promise<unknown> {
  const [written] = await tx.rows<{ value: unknown }>('select to_jsonb($1::timestamptz) as value', [instant]);
  return written!.value;
}

/** Does something unless a rule of the database stands against it. @returns whether it was done */
export async function unlessForbidden(tx: Queryable, write: () => Promise<void>): Promise<boolean> {
  await tx.run('savepoint before_writing');
  try {
    await write();
    await tx.run('release savepoint before_writing');
    return true;
  } catch (error) {
    // Class 23 of SQLSTATE: integrity constraint violation (PostgreSQL documentation, appendix A).
    if (!databaseError(error)?.code.startsWith('23')) throw error;
    await tx.run('rollback to savepoint before_writing');
    return false;
  }
}
