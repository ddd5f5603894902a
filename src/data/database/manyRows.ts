import type { Queryable } from './db';

/** The expression that gives each field of a row. */
export type Columns<Row> = Readonly<Record<keyof Row & string, string>>;

/** Columns as a plain `select` names them. */
export const namedColumns = (columns: Columns<object>): string =>
  Object.entries<string>(columns)
    .map(([name, expression]) => `${expression} as "${name}"`)
    .join(', ');

/** A time in JSON as it comes from a plain `select`: `14:30`. */
export const timeText = (expression: string): string => `to_char(${expression}, 'HH24:MI')`;

/** An instant in JSON as it comes from a plain `select`: ISO text in UTC, to the millisecond. */
export const instantText = (expression: string): string =>
  `to_char(${expression} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`;

/**
 * The rows of a query that gives hundreds of them. They come as one JSON text of arrays: parsing 700 rows of 28 columns from
 * the wire takes twice as long as the query itself, naming every field in every row half as long again, and a text crosses
 * from the database's thread in a third of the time that 700 objects take. Dates and times are as PostgreSQL writes them
 * into JSON.
 *
 * @param source what follows `from`, with its order
 * @param before what precedes `select`
 */
export async function manyRows<Row>(
  db: Queryable,
  columns: Columns<Row>,
  source: string,
  parameters: Parameters<Queryable['rows']>[1],
  before = '',
): Promise<Row[]> {
  const names = Object.keys(columns);
  const [answer] = await db.rows<{ rows: string }>(
    `${before} select coalesce(json_agg(fields), '[]')::text as rows from (
       select json_build_array(${Object.values(columns).join(', ')}) as fields from ${source}) x`,
    parameters,
  );
  return (JSON.parse(answer!.rows) as unknown[][]).map((fields) => {
    // Ten times as fast as Object.fromEntries.
    const row: Record<string, unknown> = {};
    for (let index = 0; index < names.length; index++) row[names[index]!] = fields[index];
    return row as Row;
  });
}
