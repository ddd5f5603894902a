import { door } from '@/app/server/door';
import { number } from 'yup';
import { startSeries, type SeriesInput } from '@/usecases/rhythm/series';
import { fields, id } from '@/app/server/fields';
import { answer, readBody, refusal } from '@/app/server/request';
import { seriesFields } from './fields';

const schema = fields({
  brandId: id('Brand'),
  channelId: id('Channel'),
  firstNumber: number().typeError('The first number is a number.').required('The first number is missing.'),
  ...seriesFields,
});

/** Starts a series. */
export const POST = door('runSeries', async (request, _context, { work }) => {
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const { brandId, channelId, ...input } = body.value;
  return answer(await startSeries(work, brandId, channelId, input as SeriesInput & { firstNumber: number }));
});
