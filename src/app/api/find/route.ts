import { findByWords } from '@/data/find';
import { bimlo } from '@/runtime/bimlo';
import { done, isId } from '@/app/server/request';

/** Rows found of each kind. */
const LIMIT = 8;

/** Posts and pieces of `?brand=` that hold the words `?words=`. */
export async function GET(request: Request): Promise<Response> {
  const query = new URL(request.url).searchParams;
  const brandId = query.get('brand') ?? '';
  if (!isId(brandId)) return done([]);
  const { db } = await bimlo();
  return done(await findByWords(db, brandId, query.get('words') ?? '', LIMIT));
}
