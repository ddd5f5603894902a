import type { Instant } from '@/core/time/plan';
import { askAccounts } from '@/usecases/delivery/askAccounts';
import type { DeliveryWork } from '@/usecases/delivery/deliver';
import { log } from './log';

/** How soon accounts are asked again that did not tell what they hold, in milliseconds of this process, whatever the clock shows. */
const AGAIN_MS = 2_000;

/** Asks the accounts what they hold, at once and again until all have told. */
export interface Asking {
  /** Resolves when they were asked once. */
  first: Promise<void>;
  stop(): void;
}

/** @param restoredTo how far the folder reaches, said where it turns out to be restored */
export function startAsking(work: DeliveryWork, restoredTo: Instant | null): Asking {
  let isTold = false;
  let isAsking = false;
  async function ask(): Promise<void> {
    if (isTold || isAsking) return;
    isAsking = true;
    try {
      isTold = (await askAccounts(work, restoredTo)) === 0;
    } catch (error) {
      log.error({ err: error }, 'the networks could not be asked what they hold');
    }
    isAsking = false;
  }
  const first = ask();
  const timer = setInterval(() => void ask(), AGAIN_MS);
  timer.unref();
  return { first, stop: () => clearInterval(timer) };
}
