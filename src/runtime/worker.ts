import { LOOK_EVERY_MS } from '@/core/delivery/delivery';
import { makeCourier, type DeliveryWork } from '@/usecases/delivery/deliver';
import { log } from './log';

/** The loop that delivers what is due. */
export interface Worker {
  /** Looks at once, or once more if it is looking already. Resolves when what was due has been sent off. */
  look(): Promise<void>;
  /** Resolves when nothing is under way. */
  idle(): Promise<void>;
  /** Ends the loop after what is under way. */
  stop(): Promise<void>;
}

/**
 * Starts the loop: it looks every two seconds and whenever it is told to. A look that fails is logged; the loop goes on.
 *
 * @param onOutcome told of each look: the error that it failed with, or null when it went well
 * @param after what has to be known before the first look: what the networks hold
 */
export function startWorker(
  work: DeliveryWork,
  onOutcome: (error: unknown) => void = () => undefined,
  after: Promise<unknown> = Promise.resolve(),
): Worker {
  let stopped = false;
  const failed = (error: unknown): void => {
    log.error({ err: error }, 'what is due could not be delivered');
    onOutcome(error);
  };
  const courier = makeCourier(work, failed);

  async function look(): Promise<void> {
    try {
      await after;
      if (stopped) return;
      await courier.look();
      onOutcome(null);
    } catch (error) {
      failed(error);
    }
  }

  const timer = setInterval(() => void look(), LOOK_EVERY_MS);
  timer.unref();
  return {
    look,
    idle: courier.idle,
    stop: async () => {
      stopped = true;
      clearInterval(timer);
      await courier.idle();
    },
  };
}
