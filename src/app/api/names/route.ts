import { door } from '@/app/server/door';
import { boolean, mixed, object, string } from 'yup';
import { dropName, keepName } from '@/usecases/shelf/shelf';
import { fields, id, text, version } from '@/app/server/fields';
import { answer, readBody, refusal } from '@/app/server/request';

const handles = mixed<Record<string, string>>()
  .test(
    'handles',
    'Handles have to be texts by network.',
    (value) =>
      typeof value === 'object' && value !== null && Object.values(value).every((handle) => typeof handle === 'string'),
  )
  .required();

const kept = fields({
  brandId: id('Brand'),
  known: object({ id: id('Name'), version })
    .nullable()
    .defined(),
  kind: string()
    .oneOf(['person', 'place'] as const, 'A person or a place?')
    .required(),
  name: text('Name'),
  handles,
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
