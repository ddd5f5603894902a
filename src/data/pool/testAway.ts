import { Worker } from 'node:worker_threads';

const EVERY_MS = 5;
/** More than so many milliseconds between two looks were not the watcher's: the machine did nothing meanwhile. */
const MOST_BETWEEN_MS = 50;

const WATCHER = `
  const { workerData: ran } = require('node:worker_threads');
  let last = performance.now();
  setInterval(() => {
    const now = performance.now();
    Atomics.add(ran, 0, Math.min(${MOST_BETWEEN_MS}, Math.round(now - last)));
    last = now;
  }, ${EVERY_MS});
`;

/**
 * What work gave, and the longest the event loop was away meanwhile, in milliseconds of another thread of this process: a machine that
 * stands still, which stops them both, counts for nothing.
 */
export async function longestAway<T>(work: () => Promise<T>): Promise<{ away: number; done: T }> {
  const ran = new Int32Array(new SharedArrayBuffer(4));
  const watcher = new Worker(WATCHER, { eval: true, workerData: ran, execArgv: [] });
  await new Promise((resolve) => watcher.once('online', resolve));
  let [longest, last] = [0, Atomics.load(ran, 0)];
  const timer = setInterval(() => {
    const now = Atomics.load(ran, 0);
    [longest, last] = [Math.max(longest, now - last), now];
  }, EVERY_MS);
  try {
    const done = await work();
    return { away: longest, done };
  } finally {
    clearInterval(timer);
    await watcher.terminate();
  }
}
