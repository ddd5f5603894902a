import { join } from 'node:path';
import { Piscina } from 'piscina';

/** Megabytes a thread of the pool may take for what it holds. */
const HEAP_MB = 512;
/** How long an idle thread beyond the first stays, in milliseconds. */
const IDLE_MS = 60_000;

/** How often it is looked how long work takes, in milliseconds. */
const WATCH_EVERY_MS = 50;

/** What a thread tells, by its place in the memory that it shares; `thread.mjs` knows the same places. */
const TOLD = { begun: 0, perMille: 1 } as const;

const PROGRAM = join(/* turbopackIgnore: true */ process.cwd(), 'src/data/pool/thread.mjs');

// Next gives pages and routes a copy of each module of their own; the threads are had once.
const PLACE = Symbol.for('bimlo.pool');
const shared = globalThis as { [PLACE]?: Piscina };

const pool = (): Piscina =>
  (shared[PLACE] ??= new Piscina({
    filename: PROGRAM,
    // What the server is started with is for its own thread.
    execArgv: [],
    minThreads: 1,
    maxThreads: 2,
    maxQueue: 64,
    idleTimeout: IDLE_MS,
    resourceLimits: { maxOldGenerationSizeMb: HEAP_MB },
  }));

/** Work on a thread took longer, or more memory, than it may. Its thread was ended; nothing else was touched. */
export class TooMuchWorkError extends Error {
  constructor(readonly kind: 'time' | 'memory') {
    super(kind === 'time' ? 'the work took too long' : 'the work took too much memory');
  }
}

/** Who waits for work: is told what share of it is done, and may call it off. */
export interface Watch {
  signal?: AbortSignal;
  /** 0 to 1, never less than before. */
  onShare?: (share: number) => void;
}

/** Work on a thread was called off by whoever asked for it. Its thread was ended; nothing else was touched. */
export class StoppedError extends Error {}

/**
 * Does heavy pure work on a thread of its own, so that nobody else waits for it.
 *
 * @param task the name of a function in `tasks.ts`
 * @throws TooMuchWorkError when it takes longer than `limitMs`, or more memory than a thread has
 * @throws StoppedError when it is called off
 */
export async function inPool<T>(
  task:
    'csvFile' | 'importPlan' | 'calendarFile' | 'sourceFile' | 'reading' | 'same' | 'apart' | 'fanOut' | 'corrections',
  given: object,
  limitMs: number,
  { signal, onShare }: Watch = {},
): Promise<T> {
  // Set by the thread: that it begins (what it takes to start one, or to wait for one, is not the work's), and how far it is.
  const told = new Int32Array(new SharedArrayBuffer(8));
  const ending = new AbortController();
  const stop = () => ending.abort();
  if (signal?.aborted) throw new StoppedError('the work was called off');
  signal?.addEventListener('abort', stop);
  let share = 0;
  let beganAt: number | null = null;
  const watch = setInterval(() => {
    if (told[TOLD.begun] === 1) beganAt ??= performance.now();
    if (told[TOLD.perMille]! > share) onShare?.((share = told[TOLD.perMille]!) / 1_000);
    if (beganAt !== null && performance.now() - beganAt > limitMs) ending.abort();
  }, WATCH_EVERY_MS);
  try {
    return (await pool().run({ given, told }, { name: task, signal: ending.signal })) as T;
  } catch (error) {
    if (signal?.aborted) throw new StoppedError('the work was called off');
    if (ending.signal.aborted) throw new TooMuchWorkError('time');
    if (error instanceof Error && 'code' in error && error.code === 'ERR_WORKER_OUT_OF_MEMORY')
      throw new TooMuchWorkError('memory');
    throw error;
  } finally {
    clearInterval(watch);
    signal?.removeEventListener('abort', stop);
  }
}

/** Starts a thread, which stays, so that what comes first after a pause does not wait for one to start. */
export const warmPool = (): void => void pool();

/** Ends the threads. */
export async function closePool(): Promise<void> {
  const present = shared[PLACE];
  delete shared[PLACE];
  await present?.destroy();
}
