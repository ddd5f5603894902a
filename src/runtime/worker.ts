import { LOOK_EVERY_MS } from '@/core/delivery/delivery';
import { deliverDue, type DeliveryWork } from '@/usecases/deliver';
import { log } from './log';

/** The loop that delivers what is due. */
export interface Worker {
  /** Looks at once, or once more if it is looking already. Resolves when nothing due is left. */
  look(): Promise<void>;
  /** Ends the loop after the pass under way. */
  stop(): Promise<void>;
}

/** Starts the loop: it looks every two seconds and whenever it is told to. A pass that fails is logged; the loop goes on. */
export function startWorker(work: DeliveryWork, beside: () => Promise<void>): Worker {
  let passing: Promise<void> | null = null;
  let again = false;
  let stopped = false;

  async function pass(): Promise<void> {
    do {
      again = false;
      try {
        await deliverDue(work);
        await beside();
      } catch (error) {
        log.error({ err: error }, 'a pass over the due deliveries failed');
      }
    } while (again && !stopped);
  }

  function look(): Promise<void> {
    if (stopped) return Promise.resolve();
    again = true;
    passing ??= pass().finally(() => (passing = null));
    return passing;
  }

  const timer = setInterval(() => void look(), LOOK_EVERY_MS);
  timer.unref();
  return {
    look,
    stop: async () => {
      stopped = true;
      clearInterval(timer);
      await passing;
    },
  };
}
