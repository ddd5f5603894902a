import type { Result } from '@/core/refusal';
import { readTitle } from '@/core/pieces/piece';
import { deleteReading, saveReading, type Reading } from '@/data/calendar/savedViews';
import { mustMay } from '../rights/mustMay';
import { doing, must, mustFit, notFound, refused, type Work } from '../useCase';

/** Characters of an address that are kept. */
const ADDRESS_LIMIT = 4_000;

/** Keeps a reading of the calendar under a name. One of one's own of that name is replaced. */
export function keepReading(
  work: Work,
  reading: Pick<Reading, 'brandId' | 'name' | 'shared' | 'address'>,
): Promise<Result<Reading>> {
  return doing(work, async (act) => {
    await mustMay(act, 'keepViews', reading.brandId);
    mustFit(reading.address, ADDRESS_LIMIT, 'Address', 'address');
    const kept = { ...reading, name: must(readTitle(reading.name, 'name')), id: act.ids(), ownerId: act.actorId };
    await saveReading(act.tx, kept);
    return kept;
  });
}

/** Forgets one of one's own readings. */
export function forgetReading(work: Work, id: string): Promise<Result<true>> {
  return doing(work, async (act) => {
    if (!(await deleteReading(act.tx, id, act.actorId))) refused(notFound('reading of yours'));
    return true as const;
  });
}
