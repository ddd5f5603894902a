import { door } from '@/app/server/door';
import { answer, askedFor, isId, nothingThere } from '@/app/server/request';
import { maybeBrandById } from '@/usecases/brands/reading';
import { ofBrand } from '@/usecases/rights/readFor';
import { loadNextOpenings } from '@/usecases/rhythm/nextOpenings';

/** The next openings of the channels of `?brand=` that nothing fills yet. */
export const GET = door('look', async (request, _context, { work }) => {
  const brandId = askedFor(request, 'brand');
  const brand = isId(brandId) ? await maybeBrandById(work.db, brandId) : undefined;
  if (!brand) return nothingThere('brand');
  return answer(await ofBrand(work, brandId, () => loadNextOpenings(work.db, brand, work.clock.now())));
});
