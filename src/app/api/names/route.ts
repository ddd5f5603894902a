import { door } from '@/app/server/door';
import { boolean, object } from 'yup';
import { dropName, keepName } from '@/usecases/shelf/shelf';
import { fields, id, version } from '@/app/server/fields';
import { answer, readBody, refusal } from '@/app/server/request';
import { nameFields } from '@/app/server/shelfFields';

const kept = fields({
  brandId: id('Brand'),
  known: object({ id: id('Name'), version })
    .nullable()
    .defined(),
  ...nameFields,
});
const dropped = fields({ brandId: id('Brand'), id: id('Name'), dropped: boolean().required() });

/** Adds a name to a brand's list, or changes one; answers with all. */
export const POST = door('keepShelf', async (request, _context, { work }) => {
  const body = await readBody(request, kept);
  if (!body.ok) return refusal(body.refusal);
  const { brandId, known, ...name } = body.value;
  return answer(await keepName(work, brandId, known, name));
});

/** Takes a name from the list, or puts it back; answers with all. */
export const DELETE = door('keepShelf', async (request, _context, { work }) => {
  const body = await readBody(request, dropped);
  if (!body.ok) return refusal(body.refusal);
  return answer(await dropName(work, body.value.brandId, body.value.id, body.value.dropped));
});
