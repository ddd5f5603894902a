import { BEAT_EVERY_MS, lookAtBeats, type Beat, type SeenBeats } from '@/core/holders/holders';
import type { Db } from '@/data/database/db';
import { beatOnce, listOtherBeats } from '@/data/holders/holders';
import type { Holder } from '@/usecases/delivery/deliver';
import { log } from './log';

/** A process that shows that it lives, and watches whether the others do. */
interface Heartbeat extends Holder {
  /** Beats, and looks at the others. */
  beat(): Promise<void>;
  stop(): void;
}

/**
 * Lets a process beat from now on.
 *
 * @param steadyMs a clock that only goes forward, in milliseconds
 */
export async function startHeartbeat(
  db: Db,
  id: string,
  steadyMs: () => number = () => performance.now(),
): Promise<Heartbeat> {
  let seen: SeenBeats = new Map();
  let stopped: readonly Beat[] = [];
  const beat = async (): Promise<void> => {
    await beatOnce(db, id);
    ({ seen, stopped } = lookAtBeats(seen, await listOtherBeats(db, id), steadyMs()));
  };
  await beat();
  const timer = setInterval(() => {
    beat().catch((error: unknown) => log.error({ err: error }, 'this process could not show that it lives'));
  }, BEAT_EVERY_MS);
  timer.unref();
  return { id, beat, stopped: () => stopped, stop: () => clearInterval(timer) };
}
