import { door } from '@/app/server/door';
import { boolean, object } from 'yup';
import { dropShelfItem, keepShelfItem, loadShelf } from '@/usecases/shelf/shelf';
import { ofBrand } from '@/usecases/rights/readFor';
import { fields, id, version } from '@/app/server/fields';
import { answer, askedFor, isId, nothingThere, readBody, refusal } from '@/app/server/request';
import { shelfFields } from '@/app/server/shelfFields';

const kept = fields({
  brandId: id('Brand'),
  known: object({ id: id('Item'), version })
    .nullable()
    .defined(),
  ...shelfFields,
});
const dropped = fields({ brandId: id('Brand'), id: id('Item'), dropped: boolean().required() });

/** The shelf of a brand (`?brand=` its id). */
export const GET = door('look', async (request, _context, { work }) => {
  const brandId = askedFor(request, 'brand');
  if (!isId(brandId)) return nothingThere('brand');
  return answer(await ofBrand(work, brandId, () => loadShelf(work.db, brandId)));
});

/** Puts an item on the shelf, or changes one; answers with all items. */
export const POST = door('keepShelf', async (request, _context, { work }) => {
  const body = await readBody(request, kept);
  if (!body.ok) return refusal(body.refusal);
  const { brandId, known, ...words } = body.value;
  return answer(await keepShelfItem(work, brandId, known, words));
});

/** Takes an item from the shelf, or puts it back; answers with all items. */
export const DELETE = door('keepShelf', async (request, _context, { work }) => {
  const body = await readBody(request, dropped);
  if (!body.ok) return refusal(body.refusal);
  return answer(await dropShelfItem(work, body.value.brandId, body.value.id, body.value.dropped));
});
