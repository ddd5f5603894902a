import { PGlite } from '@electric-sql/pglite';
import type { Engine } from './engine';
import { PARSERS } from './parsers.mjs';

/** PGlite in memory, on the thread that asks: what tests open by the dozen. */
export async function openInMemory(from?: Blob): Promise<Engine> {
  const lite = await PGlite.create({ ...(from ? { loadDataDir: from } : {}), parsers: PARSERS });
  await lite.exec("set time zone 'UTC'");
  return {
    query: (sql, parameters) => lite.query(sql, parameters),
    exec: (sql) => lite.exec(sql),
    transaction: (work) =>
      lite.transaction((tx) => work((sql, parameters) => tx.query(sql, parameters))) as ReturnType<typeof work>,
    alone: (work) => lite.runExclusive(work),
    dump: () => lite.dumpDataDir('none') as Promise<Blob>,
    close: () => lite.close(),
  };
}
