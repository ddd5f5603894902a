import { AsyncLocalStorage } from 'node:async_hooks';
import type { Engine, Statement } from './engine/engine';
import { openInMemory } from './engine/memory';
import { openThread } from './engine/thread';

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

/**
 * The outer database was used inside one of its transactions, which would wait for itself for ever.
 *
 * @internal
 */
export class OuterDbInTransactionError extends Error {
  constructor() {
    super('The outer database was used inside a transaction. Use the handle the transaction was given.');
  }
}

/**
 * Opens a database: in the folder given, or in memory. Its session runs in UTC.
 *
 * @param from content to begin with, as `dump` gave it (in memory only)
 * @param onDeath told when it ended by itself: nothing can be asked of it any more (not in memory)
 */
export async function openDb(
  folder: string | 'memory',
  from?: Blob,
  onDeath: (why: Error) => void = () => undefined,
): Promise<Db> {
  const engine = await (folder === 'memory' ? openInMemory(from) : openThread(folder, onDeath));
  const inside = new AsyncLocalStorage<true>();
  const outer = (): Engine => {
    if (inside.getStore()) throw new OuterDbInTransactionError();
    return engine;
  };
  return {
    ...queryable((sql, parameters) => outer().query(sql, parameters)),
    transaction: async (work) => outer().transaction((query) => inside.run(true, () => work(queryable(query)))),
    script: async (sql) => void (await outer().exec(sql)),
    whileStill: async (work) => {
      await outer().exec('checkpoint');
      return engine.alone(work);
    },
    dump: async () => outer().dump(),
    close: () => engine.close(),
  };
}

const queryable = (query: Statement): Queryable => ({
  rows: async <Row>(sql: string, parameters: readonly Parameter[] = []) =>
    (await query<Row>(sql, [...parameters])).rows,
  run: async (sql, parameters = []) => (await query(sql, [...parameters])).affectedRows ?? 0,
});

/** SQLSTATE codes this project branches on (PostgreSQL documentation, appendix A). */
export const SQLSTATE = {
  uniqueViolation: '23505',
  foreignKeyViolation: '23503',
  checkViolation: '23514',
  diskFull: '53100',
} as const;

/** The SQLSTATE and constraint of a database error; undefined for any other error. */
export function databaseError(error: unknown): { code: string; constraint: string | undefined } | undefined {
  if (typeof error !== 'object' || error === null || !('code' in error) || typeof error.code !== 'string')
    return undefined;
  if (!/^[0-9A-Z]{5}$/.test(error.code)) return undefined;
  return { code: error.code, constraint: (error as { constraint?: string }).constraint };
}
