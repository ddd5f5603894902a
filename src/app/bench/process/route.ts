import { openDoor } from '@/app/server/door';
import { monitorEventLoopDelay } from 'node:perf_hooks';
import { done, nothingThere } from '@/app/server/request';

const delay = process.env.BIMLO_BENCH === '1' ? monitorEventLoopDelay({ resolution: 5 }) : null;
delay?.enable();

/** This process in figures, for the benchmark: resident bytes, and event-loop delay since the last asking, in milliseconds. */
export const GET = openDoor(async () => {
  if (!delay) return nothingThere('address');
  const figures = {
    residentBytes: process.memoryUsage.rss(),
    delayP99Ms: delay.percentile(99) / 1e6,
    delayMaxMs: delay.max / 1e6,
  };
  delay.reset();
  return done(figures);
});
