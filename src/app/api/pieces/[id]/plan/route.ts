import { array, string } from 'yup';
import { planPiece } from '@/usecases/planning';
import { loadSlip } from '@/usecases/views';
import { date, fields, time } from '@/app/server/fields';
import { done, isId, nothingThere, readBody, refusal, workOfRequest } from '@/app/server/request';

const schema = fields({
  channelIds: array(string().uuid('Channels holds something that is no identifier.').required()).max(200).required(),
  date: date.defined(),
  time: time.defined(),
});

/** Plans a piece: makes a post for each channel. Answers with their slips. */
export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return nothingThere('idea');
  const { app, work } = await workOfRequest();
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const result = await planPiece(work, id, body.value.channelIds, { date: body.value.date, time: body.value.time });
  if (!result.ok) return refusal(result.refusal);
  return done({ slips: await Promise.all(result.value.map((postId) => loadSlip(app.db, postId))) });
}
