import { fork, type ChildProcess } from 'node:child_process';
import { join } from 'node:path';
import type { NativeDeeds } from './deeds';

/**
 * What people's files are decoded and drawn for. Each has processes of its own, so that what holds one up holds up no other: files that
 * are taken in, cards that are drawn, pictures that leave.
 */
export type Share = 'takenIn' | 'drawn' | 'leaving';
/** How many processes each share has at once. */
const AT_ONCE: Record<Share, number> = { takenIn: 2, drawn: 1, leaving: 2 };
/** Work that may wait for each share. */
const WAITING = 64;
/** How long a process beyond the one that is kept warm stays without work, in milliseconds. */
const IDLE_MS = 60_000;
/** How long a process may take to start, in milliseconds. */
const START_MS = 30_000;
/** Megabytes of JavaScript a process may hold; pictures lie outside of it. */
const HEAP_MB = 256;

const PROGRAM = join(/* turbopackIgnore: true */ process.cwd(), 'src/data/native/program.mjs');

/** Native work took longer than it may, or its process broke. The process was ended; nothing else was touched. */
export class NativeFailedError extends Error {
  constructor(readonly kind: 'time' | 'broken' | 'busy') {
    super(`native work: ${kind}`);
  }
}

interface Child {
  process: ChildProcess;
  /** Resolves once it can be asked. */
  ready: Promise<void>;
  idle: NodeJS.Timeout | null;
}

interface Answer {
  value?: unknown;
  error?: { message: string; stack?: string };
}

/** What exists once in a process. */
interface Shared {
  /** Processes without work, the one that is kept warm among them. */
  free: Child[];
  all: Set<Child>;
  busy: Record<Share, number>;
  waiting: Record<Share, (() => void)[]>;
}

// Next gives pages and routes a copy of each module of their own; the processes are had once.
const PLACE = Symbol.for('bimlo.native');
const place = globalThis as { [PLACE]?: Shared };

function shared(): Shared {
  if (place[PLACE]) return place[PLACE];
  const made: Shared = {
    ...{ free: [], all: new Set() },
    busy: { takenIn: 0, drawn: 0, leaving: 0 },
    waiting: { takenIn: [], drawn: [], leaving: [] },
  };
  // A process that is inside native code hears of nothing: it is ended with this one, whatever it does.
  process.on('exit', () => made.all.forEach(({ process: child }) => child.kill('SIGKILL')));
  return (place[PLACE] = made);
}

function start(): Child {
  const child = fork(/* turbopackIgnore: true */ PROGRAM, [], {
    execArgv: [`--max-old-space-size=${HEAP_MB}`],
    serialization: 'advanced',
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  });
  child.unref();
  child.channel?.unref();
  const own: Child = {
    process: child,
    ready: new Promise((resolve, reject) => {
      child.once('message', () => resolve());
      child.once('exit', () => reject(new NativeFailedError('broken')));
    }),
    idle: null,
  };
  // Whoever asks it learns of it; nobody else need.
  own.ready.catch(() => undefined);
  const { all, free } = shared();
  all.add(own);
  child.once('exit', () => {
    all.delete(own);
    if (free.includes(own)) free.splice(free.indexOf(own), 1);
  });
  return own;
}

/** Keeps a process warm, so that what comes first after a pause does not wait for one to start. */
export function keepWarm(): void {
  const { free } = shared();
  if (free.length === 0) free.push(start());
}

function take(): Child {
  const { free } = shared();
  const child = free.shift() ?? start();
  if (child.idle) clearTimeout(child.idle);
  child.idle = null;
  return child;
}

function giveBack(child: Child): void {
  const { free, all } = shared();
  // One that was ended is followed by a fresh one, so that the next work does not wait for it.
  if (!all.has(child)) return keepWarm();
  free.push(child);
  child.idle = setTimeout(() => {
    if (free.length > 1 && free.includes(child)) child.process.kill('SIGKILL');
  }, IDLE_MS);
  child.idle.unref();
}

/** Waits for a place in a share. */
async function enter(share: Share): Promise<void> {
  const { busy, waiting } = shared();
  if (busy[share] < AT_ONCE[share]) return void busy[share]++;
  if (waiting[share].length >= WAITING) throw new NativeFailedError('busy');
  // Whoever leaves hands the place on.
  await new Promise<void>((resolve) => waiting[share].push(resolve));
}

function leave(share: Share): void {
  const { busy, waiting } = shared();
  const next = waiting[share].shift();
  if (next) next();
  else busy[share]--;
}

/**
 * Does native work in a process of its own, which is ended when it takes longer than it may: a thread inside native code cannot be.
 *
 * @param limitMs for the work alone, without waiting for a place or for a process to start
 * @throws NativeFailedError when it takes too long, its process breaks, or too much waits already
 */
export async function natively<D extends keyof NativeDeeds>(
  share: Share,
  deed: D,
  given: Parameters<NativeDeeds[D]>[0],
  limitMs: number,
): Promise<Awaited<ReturnType<NativeDeeds[D]>>> {
  await enter(share);
  const child = take();
  try {
    await inTime(child, child.ready, START_MS);
    const answer = await inTime(child, ask(child, { deed, given }), limitMs);
    if (answer.error) throw Object.assign(new Error(answer.error.message), { stack: answer.error.stack });
    return answer.value as Awaited<ReturnType<NativeDeeds[D]>>;
  } finally {
    giveBack(child);
    leave(share);
  }
}

const ask = ({ process: child }: Child, message: object): Promise<Answer> =>
  new Promise((resolve, reject) => {
    const answered = (answer: Answer) => {
      child.off('exit', broke);
      resolve(answer);
    };
    const broke = () => {
      child.off('message', answered);
      reject(new NativeFailedError('broken'));
    };
    child.once('message', answered);
    child.once('exit', broke);
    child.send(message, (error) => error && reject(new NativeFailedError('broken')));
  });

async function inTime<T>(child: Child, work: Promise<T>, limitMs: number): Promise<T> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(() => {
      shared().all.delete(child);
      child.process.kill('SIGKILL');
      reject(new NativeFailedError('time'));
    }, limitMs);
  });
  try {
    return await Promise.race([work, late]);
  } finally {
    clearTimeout(timer);
  }
}

/** Ends the processes. */
export function endNative(): void {
  const { all, free } = shared();
  for (const child of all) child.process.kill('SIGKILL');
  all.clear();
  free.length = 0;
}
