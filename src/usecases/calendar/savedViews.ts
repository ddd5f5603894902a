import type { Result } from '@/core/refusal';
import { quoted } from '@/core/calendar/change';
import { readTitle } from '@/core/pieces/piece';
import {
  deleteSavedView,
  maybeSavedView,
  maybeSavedViewId,
  writeSavedView,
  type SavedView,
} from '@/data/calendar/savedViews';
import { undoably } from '../undo/undoably';
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
    const named = { ...savedView, name: must(readTitle(savedView.name, 'name')), ownerId: act.actorId };
    const kept = { ...named, id: (await maybeSavedViewId(act.tx, named)) ?? act.ids() };
    await undoably(act, watchedOf(kept, `Kept the view ${quoted(kept.name)}`), () => writeSavedView(act.tx, kept));
    return kept;
  });
}

/** Forgets one of one's own saved views. */
export function removeView(work: Work, id: string): Promise<Result<true>> {
  return doing(work, async (act) => {
    const view = (await maybeSavedView(act.tx, id, act.actorId)) ?? refused(notFound('saved view of yours'));
    await undoably(act, watchedOf({ ...view, id }, `Forgot the view ${quoted(view.name)}`), () =>
      deleteSavedView(act.tx, id, act.actorId),
    );
    return true as const;
  });
}

const watchedOf = ({ brandId, id }: Pick<SavedView, 'brandId' | 'id'>, label: string) => ({
  ...{ brandId, label },
  things: [{ name: 'savedView' as const, id }],
});
