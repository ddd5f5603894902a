import type { Instant } from '@/core/time/plan';
import { askAccounts } from '@/usecases/delivery/askAccounts';
import type { DeliveryWork } from '@/usecases/delivery/deliver';
import { log } from './log';

/** How soon accounts are asked again that did not tell what they hold, in milliseconds of this process, whatever the clock shows. */
const AGAIN_MS = 2_000;
/** After something went wrong here each pause is twice the one before, up to this, in milliseconds. */
const LONGEST_PAUSE_MS = 5 * 60_000;

/** Asks the accounts what they hold, at once and again until all have told. */
interface Asking {
  /** Resolves when they were asked once. */
  first: Promise<void>;
  stop(): void;
}

/** @param restoredTo how far the folder reaches, said where it turns out to be restored */
export function startAsking(work: DeliveryWork, restoredTo: Instant | null): Asking {
  let timer: NodeJS.Timeout | undefined;
  let isStopped = false;
  let pauseMs = AGAIN_MS;
  async function ask(): Promise<void> {
    try {
      if ((await askAccounts(work, restoredTo)) === 0) return;
      pauseMs = AGAIN_MS;
    } catch (error) {
      log.error({ err: error }, 'the networks could not be asked what they hold');
      pauseMs = Math.min(pauseMs * 2, LONGEST_PAUSE_MS);
    }
    if (isStopped) return;
    timer = setTimeout(() => void ask(), pauseMs);
    timer.unref();
  }
  return {
    first: ask(),
    stop: () => {
      isStopped = true;
      clearTimeout(timer);
    },
  };
}
