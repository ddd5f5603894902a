import { addMs } from '@/core/time/plan';
import prepare from '../tests/support/prepare';
import { startServer } from '../tests/support/server';
import { acceptedOf, DUE, plant, statesOf } from './planted';
import { figureLine, percentile, timed, type Line } from './figures';

const COUNT = 500;
/** Minutes after the due instant at which the clock is moved, beyond every wait and its jitter. */
const LATER_MINUTES = [2, 9, 28, 40];

/** 500 posts due in one minute: with a fifth of first and second calls failing or silent, then with 5% refused for good. */
export async function benchDelivery(): Promise<Line[]> {
  await prepare();
  const shaky = await deliver({ seed: 11, tryLater: 0.08, timeOutBefore: 0.06, timeOutAfter: 0.06, onlyFirstCalls: 2 });
  const refusing = await deliver({ seed: 12, refuse: 0.05 });
  return [
    figureLine('500 posts, 20% of first and second calls failing: not out', COUNT - shaky.published, 0, 'posts'),
    figureLine(
      '… accepted more than once, or lost, by the networks’ count',
      Math.abs(shaky.accepted - COUNT),
      0,
      'posts',
    ),
    figureLine('… time to deliver, all four rounds', shaky.seconds, 600, 's'),
    figureLine(
      '500 posts, 5% refused for good: shown as failed but not refused, or the reverse',
      refusing.wrong,
      0,
      'posts',
    ),
    figureLine('… refused', refusing.failed, COUNT * 0.1, 'posts'),
    figureLine('… accepted and out, missing to 500', COUNT - refusing.published - refusing.failed, 0, 'posts'),
    figureLine(
      `${FEW} posts in one minute on one channel, 24% of calls hanging: p99 of the others after their time`,
      await lateness(),
      5,
      's',
    ),
  ];
}

/** Posts due in one minute where some calls hang. */
const FEW = 50;

/** How long after their time posts are out whose calls do not hang, where a quarter of the calls of their channel do; the 99th percentile in seconds. */
async function lateness(): Promise<number> {
  const server = await startServer({ BIMLO_SEND_TIMEOUT_MS: '10000' });
  await server.kill();
  const keys = await plant(server, FEW);
  await server.start();
  await server.faults({ seed: 13, timeOutBefore: 0.24 });
  const start = Date.now();
  await server.goTo(DUE);
  const after = acceptedOf(server, keys).map(({ acceptedAt }) => (Date.parse(acceptedAt) - start) / 1_000);
  await server.end();
  if (after.length < FEW / 2) throw new Error(`only ${after.length} of ${FEW} are out`);
  return percentile(after, 99);
}

async function deliver(faults: object) {
  const server = await startServer({ BIMLO_SEND_TIMEOUT_MS: '1000' });
  await server.kill();
  const keys = await plant(server, COUNT);
  await server.start();
  const before = (await server.counts()).accepted.pithline!;
  await server.faults(faults);
  const seconds =
    (await timed(async () => {
      await server.goTo(DUE);
      for (const minutes of LATER_MINUTES) await server.goTo(addMs(DUE, minutes * 60_000));
    })) / 1000;
  const counts = await server.counts();
  await server.kill();
  const states = await statesOf(server, keys);
  await server.end();
  const failed = [...states].filter(([, state]) => state === 'failed').map(([key]) => key);
  const refused = new Set(counts.refused);
  const wrong =
    failed.filter((key) => !refused.has(key)).length +
    [...refused].filter((key) => states.has(key) && states.get(key) !== 'failed').length;
  return {
    published: [...states.values()].filter((state) => state === 'sent').length,
    accepted: counts.accepted.pithline! - before,
    failed: failed.length,
    wrong,
    seconds,
  };
}
