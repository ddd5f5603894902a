import { door } from '@/app/server/door';
import { findByWords } from '@/usecases/search/reading';
import { answer, askedFor, done, isId } from '@/app/server/request';
import { ofBrand } from '@/usecases/rights/readFor';

/** Rows found of each kind. */
const LIMIT = 8;

/** Posts and pieces of `?brand=` that hold the words `?words=`. */
export const GET = door('look', async (request, _context, { work }) => {
  const brandId = askedFor(request, 'brand');
  if (!isId(brandId)) return done([]);
  return answer(await ofBrand(work, brandId, () => findByWords(work.db, brandId, askedFor(request, 'words'), LIMIT)));
});
