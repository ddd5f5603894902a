import { number } from 'yup';
import { door } from '@/app/server/door';
import { fields, id } from '@/app/server/fields';
import { answer, isId, nothingThere, readBody, refusal } from '@/app/server/request';
import { readKnownTitles } from '@/usecases/repeats/reading';
import { startRepeat, type RepeatStart } from '@/usecases/repeats/repeats';
import { repeatFields } from './fields';

const schema = fields({
  brandId: id('Brand'),
  channelId: id('Channel'),
  postId: id('Post').nullable().defined(),
  pieceId: id('Piece').nullable().defined(),
  firstNumber: number().typeError('The first number is a number.').required('The first number is missing.'),
  ...repeatFields,
});

/** Titles of the dates to plan around, which a seasonal repeat may follow. */
export const GET = door('runRepeats', async (request, _context, { work }) => {
  const brand = new URL(request.url).searchParams.get('brand') ?? '';
  return isId(brand) ? answer(await readKnownTitles(work, brand)) : nothingThere('brand');
});

/** Starts a repeat. */
export const POST = door('runRepeats', async (request, _context, { work }) => {
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const { brandId, ...start } = body.value;
  return answer(await startRepeat(work, brandId, start as RepeatStart));
});
