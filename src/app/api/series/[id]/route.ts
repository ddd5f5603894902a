import { door } from '@/app/server/door';
import { changeSeries, endSeries, type SeriesInput } from '@/usecases/rhythm/series';
import { fields } from '@/app/server/fields';
import { answer, isId, nothingThere, readBody, refusal } from '@/app/server/request';
import { seriesFields } from '../fields';

const schema = fields(seriesFields);

/** Changes a series from here on. */
export const POST = door<{ id: string }>('runSeries', async (request, { params }, { work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('series');
  const body = await readBody(request, schema);
  return body.ok ? answer(await changeSeries(work, id, body.value as SeriesInput)) : refusal(body.refusal);
});

/** Ends a series. */
export const DELETE = door<{ id: string }>('runSeries', async (_request, { params }, { work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('series');
  return answer(await endSeries(work, id));
});
