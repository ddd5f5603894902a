import type { Results } from '@electric-sql/pglite';

/** Runs one statement. */
export type Statement = <Row>(
  sql: string,
  parameters: unknown[],
) => Promise<Pick<Results<Row>, 'rows' | 'affectedRows'>>;

/** PGlite, wherever it computes. */
export interface Engine {
  query: Statement;
  exec(sql: string): Promise<unknown>;
  transaction<T>(work: (query: Statement) => Promise<T>): Promise<T>;
  /** Runs `work` while no statement runs. */
  alone<T>(work: () => Promise<T>): Promise<T>;
  dump(): Promise<Blob>;
  close(): Promise<void>;
}
