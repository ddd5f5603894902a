import { changeSeries, endSeries, type SeriesInput } from '@/usecases/series';
import { fields } from '@/app/server/fields';
import { answer, isId, nothingThere, readBody, refusal, workOfRequest } from '@/app/server/request';
import { seriesFields } from '../fields';

type Context = { params: Promise<{ id: string }> };
const schema = fields(seriesFields);

/** Changes a series from here on. */
export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return nothingThere('series');
  const { work } = await workOfRequest();
  const body = await readBody(request, schema);
  return body.ok ? answer(await changeSeries(work, id, body.value as SeriesInput)) : refusal(body.refusal);
}

/** Ends a series. */
export async function DELETE(_request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return nothingThere('series');
  const { work } = await workOfRequest();
  return answer(await endSeries(work, id));
}
