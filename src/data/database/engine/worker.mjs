import { parentPort, workerData } from 'node:worker_threads';
import { types } from '@electric-sql/pglite';
import { openOnDisk } from './onDisk.mjs';

// PGlite computes on the thread it was opened on, so it has this one to itself. `thread.ts` is the other end.

const lite = await openOnDisk(workerData.folder);

/** Rows from which on they cross to the other thread as one JSON text, which takes a third of the time of as many objects. */
const MANY_ROWS = 20;
/** Types whose values JSON does not hold as they are. */
const NOT_JSON = new Set([types.BYTEA, types.FLOAT4, types.FLOAT8]);

/** Open transactions by the number the other end gave them. */
const open = new Map();
/** Ends the time without statements that `hold` began. */
let release = () => {};

class RollBack extends Error {}

/** Opens a transaction and answers when it stands. It ends when `end` is called for it. */
const begin = (number) =>
  new Promise((begun, failed) => {
    const ended = lite.transaction(
      (tx) =>
        new Promise((commit, rollBack) => {
          open.set(number, { tx, commit, rollBack: () => rollBack(new RollBack()), ended: () => ended });
          begun();
        }),
    );
    ended.catch(failed);
  });

async function end(number, commits) {
  const { commit, rollBack, ended } = open.get(number);
  open.delete(number);
  if (commits) {
    commit();
    await ended();
  } else {
    rollBack();
    await ended().catch((error) => {
      if (!(error instanceof RollBack)) throw error;
    });
  }
}

const hold = () =>
  new Promise((held, failed) => {
    lite
      .runExclusive(
        () =>
          new Promise((done) => {
            release = done;
            held();
          }),
      )
      .catch(failed);
  });

const DEEDS = {
  query: async ({ sql, parameters, transaction }) => {
    const { rows, affectedRows, fields } = await (transaction === undefined ? lite : open.get(transaction).tx).query(
      sql,
      parameters,
    );
    const isText = rows.length >= MANY_ROWS && fields.every(({ dataTypeID }) => !NOT_JSON.has(dataTypeID));
    return { rows: isText ? JSON.stringify(rows) : rows, affectedRows };
  },
  exec: async ({ sql }) => void (await lite.exec(sql)),
  begin: ({ transaction }) => begin(transaction),
  end: ({ transaction, commits }) => end(transaction, commits),
  hold,
  release: async () => release(),
  close: () => lite.close(),
};

/** An error as far as it survives the way between threads: PostgreSQL's code and constraint with it, and not its detail, which holds people's words. */
const plainError = ({ message, stack, code, constraint, table, column }) => ({
  message,
  stack,
  facts: { code, constraint, table, column },
});

/** PostgreSQL itself broke: every further question would be answered so. */
const isDead = (error) => error instanceof WebAssembly.RuntimeError || error?.name === 'ExitStatus';

parentPort.on('message', ({ id, deed, ...rest }) => {
  DEEDS[deed](rest).then(
    (value) => parentPort.postMessage({ id, value }),
    (error) => {
      // Thrown where nobody catches it, it ends this thread, and the other end learns why.
      if (isDead(error)) setImmediate(() => Promise.reject(error));
      parentPort.postMessage({ id, error: plainError(error) });
    },
  );
});
parentPort.postMessage({ ready: true });
