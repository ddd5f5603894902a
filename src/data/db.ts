import { AsyncLocalStorage } from 'node:async_hooks';
import { PGlite, types, type PGliteOptions } from '@electric-sql/pglite';

type Parameter = string | number | boolean | null | readonly string[] | readonly number[] | object;

/** Where SQL can be run: the database, or a transaction of it. Functions in this room take the one they are given. */
export interface Queryable {
  /** Runs one statement and gives its rows, with columns as named in the statement. */
  rows<Row>(sql: string, parameters?: readonly Parameter[]): Promise<Row[]>;
  /** Runs one statement and gives how many rows it changed. */
  run(sql: string, parameters?: readonly Parameter[]): Promise<number>;
}

/** The database. */
export interface Db extends Queryable {
  /**
   * Runs `work` in a transaction: committed when it resolves, rolled back when it throws. Keep it short, never call the
   * outside in it, and never touch the outer `Db` in it (that throws).
   */
  transaction<T>(work: (tx: Queryable) => Promise<T>): Promise<T>;
  /** Runs several statements without parameters, as a migration needs. */
  script(sql: string): Promise<void>;
  /** Runs `work` with everything written to the files and no statement running meanwhile. */
  whileStill<T>(work: () => Promise<T>): Promise<T>;
  /** The content of an in-memory database, to open others from. */
  dump(): Promise<Blob>;
  close(): Promise<void>;
}

/** The outer database was used inside one of its transactions, which would wait for itself for ever. */
export class OuterDbInTransactionError extends Error {
  constructor() {
    super('The outer database was used inside a transaction. Use the handle the transaction was given.');
  }
}

/** A date stays text (`2026-11-23`), a time is to the minute (`14:30`), an instant is ISO text in UTC, an int8 a safe number. */
const PARSERS: PGliteOptions['parsers'] = {
  [types.DATE]: (text: string) => text,
  [types.TIME]: (text: string) => text.slice(0, 5),
  [types.TIMESTAMP]: (text: string) => text,
  [types.TIMESTAMPTZ]: (text: string) => new Date(isoOffset(text)).toISOString(),
  [types.INT8]: (text: string) => safeInteger(text),
  [types.NUMERIC]: (text: string) => text,
};

/** PostgreSQL writes `+00`, ECMAScript reads `+00:00`. */
const isoOffset = (text: string): string => text.replace(' ', 'T').replace(/([+-]\d{2})$/, '$1:00');

function safeInteger(text: string): number {
  const value = Number(text);
  if (!Number.isSafeInteger(value)) throw new RangeError(`bigint out of the safe range: ${text}`);
  return value;
}

/**
 * Opens a database: in the folder given, or in memory. Its session runs in UTC.
 *
 * @param from content to begin with, as `dump` gave it (in memory only)
 */
export async function openDb(folder: string | 'memory', from?: Blob): Promise<Db> {
  const lite = await PGlite.create({
    ...(folder === 'memory' ? {} : { dataDir: folder }),
    ...(from ? { loadDataDir: from } : {}),
    parsers: PARSERS,
    relaxedDurability: false,
  });
  await lite.exec("set time zone 'UTC'");
  const inside = new AsyncLocalStorage<true>();
  const outer = (): PGlite => {
    if (inside.getStore()) throw new OuterDbInTransactionError();
    return lite;
  };
  return {
    rows: async <Row>(sql: string, parameters: readonly Parameter[] = []) =>
      (await outer().query<Row>(sql, [...parameters])).rows,
    run: async (sql, parameters = []) => (await outer().query(sql, [...parameters])).affectedRows ?? 0,
    transaction: (work) =>
      outer().transaction((tx) =>
        inside.run(true, () =>
          work({
            rows: async <Row>(sql: string, parameters: readonly Parameter[] = []) =>
              (await tx.query<Row>(sql, [...parameters])).rows,
            run: async (sql, parameters = []) => (await tx.query(sql, [...parameters])).affectedRows ?? 0,
          }),
        ),
      ) as ReturnType<typeof work>,
    script: async (sql) => void (await outer().exec(sql)),
    whileStill: async (work) => {
      await outer().exec('checkpoint');
      return lite.runExclusive(work);
    },
    dump: async () => outer().dumpDataDir('none'),
    close: () => lite.close(),
  };
}

/** SQLSTATE codes this project branches on (PostgreSQL documentation, appendix A). */
export const SQLSTATE = { uniqueViolation: '23505', foreignKeyViolation: '23503', checkViolation: '23514' } as const;

/** The SQLSTATE and constraint of a database error; undefined for any other error. */
export function databaseError(error: unknown): { code: string; constraint: string | undefined } | undefined {
  if (typeof error !== 'object' || error === null || !('code' in error) || typeof error.code !== 'string')
    return undefined;
  if (!/^[0-9A-Z]{5}$/.test(error.code)) return undefined;
  return { code: error.code, constraint: (error as { constraint?: string }).constraint };
}
