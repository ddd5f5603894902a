import { door } from '@/app/server/door';
import { answer, askedFor, isId, nothingThere } from '@/app/server/request';
import { proposeCarryOver } from '@/usecases/delivery/proposeCarryOver';
import { ofBrand } from '@/usecases/rights/readFor';

/** Proposes where all goes that `?brand=` has missed. */
export const GET = door('changePosts', async (request, _context, { work }) => {
  const brandId = askedFor(request, 'brand');
  if (!isId(brandId)) return nothingThere('brand');
  const propose = () => proposeCarryOver(work.db, brandId, work.clock.now());
  return answer(await ofBrand(work, brandId, propose, 'changePosts'));
});
