/**
 * The long test of delivery: thousands of posts due in one minute on networks that misbehave, Bimlo killed again and again in
 * the middle of it, and the networks, which live on, asked in the end what they have: `npm run soak [posts] [kills] [seed]`.
 * Ends with 1 where something is out twice, was lost, or is shown otherwise than the networks have it.
 */
import { addMs } from '@/core/time/plan';
import prepare from '../tests/support/prepare';
import { startServer } from '../tests/support/server';
import { acceptedOf, DUE, plant, statesOf } from './planted';

const [posts = 2_000, kills = 20, seed = 1] = process.argv.slice(2).map(Number);
/** Three in ten calls misbehave: a tenth is put off, a tenth gets no answer and was not taken, a tenth gets none and was. */
const FAULTS = { seed, tryLater: 0.1, timeOutBefore: 0.1, timeOutAfter: 0.1, slowMs: 10 };
/** Minutes that the kills are spread over: less than a post may be late. */
const KILLING_MINUTES = 26;
/** Minutes after which everything that can be learnt was learnt, the networks behaving by then: retries, then asks. */
const SETTLING_MINUTES = [28, 29, 35, 60, 130, 24 * 60 + 140, 2 * 24 * 60 + 160];

const random = mulberry32(seed);
const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const say = (text: string) => console.log(`${new Date().toISOString().slice(11, 19)} ${text}`);

prepare();
const server = await startServer({ BIMLO_SEND_TIMEOUT_MS: '400' });
await server.kill();
const keys = await plant(server, posts);
await server.faults(FAULTS);
await server.start();
for (let kill = 0; kill < kills; kill++) {
  await server.goTo(addMs(DUE, Math.round((kill / kills) * KILLING_MINUTES * 60_000)), { wait: false });
  await wait(300 + random() * 4_000);
  await server.kill();
  await server.start();
  const { accepted } = await server.counts();
  say(`killed ${kill + 1} times; the networks have ${accepted.pithline}`);
}
await server.faults({ tryLater: 0, timeOutBefore: 0, timeOutAfter: 0, slowMs: 0 });
for (const minutes of SETTLING_MINUTES) await server.goTo(addMs(DUE, minutes * 60_000));
await server.kill();

const held = acceptedOf(server, keys);
const states = await statesOf(server, keys);
await server.end();

const times = new Map<string, number>();
for (const { parcel } of held) {
  const words = parcel.texts[0]!.text;
  times.set(words, (times.get(words) ?? 0) + 1);
}
const out = new Set(held.map(({ key }) => key));
const twice = [...times.values()].filter((count) => count > 1).length;
const shownOut = [...states].filter(([, state]) => state === 'sent');
const wrong = [...states].filter(([key, state]) => (state === 'sent') !== out.has(key));
const byState: Record<string, number> = {};
for (const state of states.values()) byState[state] = (byState[state] ?? 0) + 1;
say(`${posts} posts, ${kills} kills: ${JSON.stringify(byState)}; the networks have ${out.size}`);
say(
  `twice: ${twice}; lost: ${posts - states.size}; shown out and not: ${shownOut.filter(([key]) => !out.has(key)).length}`,
);
say(`shown otherwise than the networks have it: ${wrong.length} ${JSON.stringify(wrong.slice(0, 5))}`);
process.exitCode = twice + (posts - states.size) + wrong.length === 0 ? 0 : 1;

/** A small generator of chances from 0 up to 1, the same for a seed (Tommy Ettinger, 2017; public domain). */
function mulberry32(from: number): () => number {
  let state = from;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  };
}
