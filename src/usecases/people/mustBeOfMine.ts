import { listBrandIdsOf } from '@/data/people/people';
import { notFound, refused, type Doing } from '../useCase';

/** Ends the use case where somebody works for no brand of whoever acts: then it is not theirs to know that they are here. */
export async function mustBeOfMine(act: Doing, personId: string): Promise<void> {
  const [theirs, mine] = [await listBrandIdsOf(act.tx, personId), await listBrandIdsOf(act.tx, act.actorId)];
  if (!theirs.some((brandId) => mine.includes(brandId))) refused(notFound('person'));
}
