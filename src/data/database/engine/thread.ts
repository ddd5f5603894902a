import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import type { Engine, Statement } from './engine';

interface Answer {
  id: number;
  value?: unknown;
  error?: { message: string; stack: string; facts: Record<string, unknown> };
}

const PROGRAM = join(/* turbopackIgnore: true */ process.cwd(), 'src/data/database/engine/worker.mjs');

/**
 * PGlite on a thread of its own, so that pages are answered while it computes.
 *
 * @param onDeath told when the thread ended by itself
 * @param program what runs on the thread
 */
export async function openThread(
  folder: string,
  onDeath: (why: Error) => void,
  program: string = PROGRAM,
): Promise<Engine> {
  const worker = new Worker(/* turbopackIgnore: true */ program, { workerData: { folder } });
  const waiting = new Map<number, { resolve: (value: never) => void; reject: (error: Error) => void }>();
  let asked = 0;
  let transactions = 0;
  let gone: Error | null = null;

  let isClosing = false;
  const fail = (error: Error): void => {
    const isFirst = gone === null;
    gone ??= error;
    for (const { reject } of waiting.values()) reject(gone);
    waiting.clear();
    if (isFirst && !isClosing) onDeath(gone);
  };
  await new Promise<void>((resolve, reject) => {
    worker.once('message', () => resolve());
    worker.once('error', reject);
  });
  worker.on('error', fail);
  worker.on('exit', () => fail(new Error('The database’s thread has ended.')));
  worker.on('message', ({ id, value, error }: Answer) => {
    const { resolve, reject } = waiting.get(id)!;
    waiting.delete(id);
    if (error) reject(Object.assign(new Error(error.message), error.facts, { stack: error.stack }));
    else resolve(value as never);
  });

  const ask = <T>(deed: string, rest: object = {}): Promise<T> =>
    new Promise((resolve, reject) => {
      if (gone) return reject(gone);
      const id = ++asked;
      waiting.set(id, { resolve, reject });
      worker.postMessage({ id, deed, ...rest });
    });
  const query =
    (transaction?: number): Statement =>
    async (sql, parameters) => {
      const { rows, affectedRows } = await ask<{ rows: never[] | string; affectedRows?: number }>('query', {
        sql,
        parameters,
        transaction,
      });
      return { rows: typeof rows === 'string' ? (JSON.parse(rows) as never[]) : rows, affectedRows };
    };

  return {
    query: query(),
    exec: (sql) => ask('exec', { sql }),
    transaction: async (work) => {
      const transaction = ++transactions;
      await ask('begin', { transaction });
      let result;
      try {
        result = await work(query(transaction));
      } catch (error) {
        await ask('end', { transaction, commits: false });
        throw error;
      }
      await ask('end', { transaction, commits: true });
      return result;
    },
    alone: async (work) => {
      await ask('hold');
      try {
        return await work();
      } finally {
        await ask('release');
      }
    },
    dump: () => {
      throw new Error('Only a database in memory is dumped.');
    },
    close: async () => {
      isClosing = true;
      await ask('close');
      await worker.terminate();
    },
  };
}
