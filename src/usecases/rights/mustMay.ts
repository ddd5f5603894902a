import { allowsOf, may, RIGHTS, type Actor, type Deed, type Right } from '@/core/rights/may';
import type { Result } from '@/core/refusal';
import { maybeBrandById } from '@/data/brands/brands';
import type { Queryable } from '@/data/database/db';
import { maybeActor } from '@/data/people/people';
import { must, NOT_YOURS, type Acting, type Work } from '../useCase';

/** Refuses those who may not: every use case that writes asks here. A brand that is null means the house as a whole. */
export async function mustMay(act: Acting, deed: Deed, brandId: string | null): Promise<void> {
  must(await asked(act.tx, act.actorId, deed, brandId));
}

/** Whether whoever asks may: every read for somebody asks here. */
export const mayRead = (
  work: Pick<Work, 'db' | 'actorId'>,
  deed: Deed,
  brandId: string | null,
): Promise<Result<true>> => asked(work.db, work.actorId, deed, brandId);

async function asked(db: Queryable, actorId: string | null, deed: Deed, brandId: string | null): Promise<Result<true>> {
  if (actorId === null) return may(null, deed, { brandId });
  const actor: Actor | undefined = await maybeActor(db, actorId);
  if (!actor) return { ok: false, refusal: NOT_YOURS };
  const right: Right = RIGHTS[deed];
  const brand = right.makersIf && brandId !== null ? await maybeBrandById(db, brandId) : undefined;
  return may(actor, deed, { brandId, ...(brand && { allows: allowsOf(brand) }) });
}
