import type { Result } from '@/core/refusal';
import { readTitle } from '@/core/pieces/piece';
import { deleteSavedView, writeSavedView, type SavedView } from '@/data/calendar/savedViews';
import { mustMay } from '../rights/mustMay';
import { doing, must, mustFit, notFound, refused, type Work } from '../useCase';

/** Characters of an address that are kept. */
const ADDRESS_LIMIT = 4_000;

/** Keeps a saved view of the calendar under a name. One of one's own of that name is replaced. */
export function saveView(
  work: Work,
  savedView: Pick<SavedView, 'brandId' | 'name' | 'shared' | 'address'>,
): Promise<Result<SavedView>> {
  return doing(work, async (act) => {
    await mustMay(act, 'keepViews', savedView.brandId);
    mustFit(savedView.address, ADDRESS_LIMIT, 'Address', 'address');
    const kept = { ...savedView, name: must(readTitle(savedView.name, 'name')), id: act.ids(), ownerId: act.actorId };
    await writeSavedView(act.tx, kept);
    return kept;
  });
}

/** Forgets one of one's own saved views. */
export function removeView(work: Work, id: string): Promise<Result<true>> {
  return doing(work, async (act) => {
    if (!(await deleteSavedView(act.tx, id, act.actorId))) refused(notFound('saved view of yours'));
    return true as const;
  });
}
