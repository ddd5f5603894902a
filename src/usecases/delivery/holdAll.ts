import type { ChangeOutcome } from '@/core/calendar/changeOutcome';
import { accept, refuse, type Result } from '@/core/refusal';
import type { Instant } from '@/core/time/plan';
import { oneBrand } from '@/data/brands/brands';
import { deleteBrandHold, insertBrandHold, maybeBrandHold, type BrandHold } from '@/data/delivery/brandHolds';
import { countOverduePosts, listOverduePosts } from '@/data/posts/postLines';
import { changePosts } from '../calendar/changePosts';
import { mayRead, mustMay } from '../rights/mustMay';
import { placesFor } from './proposeCarryOver';
import { doing, must, mustFit, refused, type Db, type Work } from '../useCase';

/** Characters of a reason, at most. */
const REASON_LIMIT = 200;

/** Posts whose time passed that are spread at once, at most. */
const MOST_OVERDUE = 500;

/** How all of a brand stands on hold, with how many posts had their time meanwhile. */
export interface ShownHold extends BrandHold {
  overdue: number;
}

/** The hold of a brand; null while all goes as timed. */
export async function loadHold(db: Db, brandId: string, now: Instant): Promise<ShownHold | null> {
  const hold = await maybeBrandHold(db, brandId);
  if (!hold) return null;
  return { ...hold, overdue: await countOverduePosts(db, brandId, hold.since, now) };
}

/** Holds all of a brand: nothing of it is sent, nor said to be due by hand, until it is released. What is being sent right now still goes. */
export function holdAll(work: Work, brandId: string, reason: string): Promise<Result<true>> {
  return doing(work, async (act) => {
    await mustMay(act, 'manageBrand', brandId);
    const why = reason.trim();
    if (why === '')
      refused({ code: 'noReason', field: 'reason', message: 'Say why, so that everybody knows what they wait for.' });
    mustFit(why, REASON_LIMIT, 'Reason', 'reason');
    if (!(await insertBrandHold(act.tx, brandId, { reason: why, since: act.now, personId: act.actorId })))
      refused({ code: 'onHold', message: 'All is on hold already.' });
    await act.note({ brandId, subject: 'brand', subjectId: brandId, deed: 'all held', detail: { reason: why } });
    return true as const;
  });
}

const NOT_ON_HOLD = refuse('notOnHold', 'Nothing is on hold any more: it was released already.');

/** What came of releasing: what had its time meanwhile and was moved, where that was asked for. */
export interface Released {
  spread: ChangeOutcome | null;
}

/**
 * Lets all of a brand go again as it is timed. What had its time meanwhile waits for a person, as all that is late does; on demand it is
 * moved to the next openings of its channels before, in one step.
 */
export async function releaseAll(work: Work, brandId: string, isSpread: boolean): Promise<Result<Released>> {
  const allowed = await mayRead(work, 'manageBrand', brandId);
  if (!allowed.ok) return allowed;
  const hold = await maybeBrandHold(work.db, brandId);
  if (!hold) return NOT_ON_HOLD;
  const spread = isSpread ? await spreadOverdue(work, brandId, hold.since) : null;
  if (spread && !spread.ok) return spread;
  return doing(work, async (act) => {
    await mustMay(act, 'manageBrand', brandId);
    if (!(await deleteBrandHold(act.tx, brandId))) must(NOT_ON_HOLD);
    await act.note({ brandId, subject: 'brand', subjectId: brandId, deed: 'all released' });
    return { spread: spread?.value ?? null };
  });
}

/** Moves what had its time while all was on hold to the next openings of its channels; null where nothing had. */
async function spreadOverdue(work: Work, brandId: string, since: Instant): Promise<Result<ChangeOutcome | null>> {
  const { db } = work;
  const now = work.clock.now();
  const brand = await oneBrand(db, brandId);
  const overdue = await listOverduePosts(db, brandId, since, now, MOST_OVERDUE);
  const proposed = await placesFor(db, brand, overdue, now);
  const places = proposed.flatMap(({ id, to }) => (to ? [{ id, ...to }] : []));
  const moved = new Set(places.map(({ id }) => id));
  const targets = overdue.filter(({ id }) => moved.has(id));
  return targets.length === 0 ? accept(null) : changePosts(work, brandId, targets, { kind: 'carry', places });
}
