import { maybeBrandHold } from '@/data/delivery/brandHolds';
import { refused, type Doing } from '../useCase';

/** Refuses what would be sent at once while all of its brand is on hold. */
export async function mustNotBeHeld(act: Pick<Doing, 'tx'>, brandId: string): Promise<void> {
  const hold = await maybeBrandHold(act.tx, brandId);
  if (hold)
    refused({ code: 'onHold', message: `All posts of this brand are on hold (${hold.reason}). Release them first.` });
}
