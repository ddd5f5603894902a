// Where a process for native work begins: it does one thing at a time, and ends with the process that started it, even while it is
// inside native code.
import { Worker } from 'node:worker_threads';
import { loadOwn } from '../loadOwn.mjs';

/** How often it is looked whether the parent still lives, in milliseconds. */
const WATCH_MS = 1_000;
new Worker(
  `setInterval(() => { if (process.ppid !== ${process.ppid}) process.kill(process.pid, 'SIGKILL'); }, ${WATCH_MS})`,
  { eval: true, execArgv: [] },
).unref();

const { NATIVE_DEEDS } = await loadOwn('deeds', () => import('./deeds.ts'));

process.on('message', ({ deed, given }) => {
  Promise.resolve()
    .then(() => NATIVE_DEEDS[deed](given))
    .then(
      (value) => process.send({ value }),
      ({ message, stack }) => process.send({ error: { message, stack } }),
    );
});
// An exit would wait for what native code is at.
process.on('disconnect', () => process.kill(process.pid, 'SIGKILL'));
process.send({ ready: true });
