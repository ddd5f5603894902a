import { catchIdea } from '@/usecases/pieces';
import { fields, id, ids, maybeText, text } from '@/app/server/fields';
import { answer, readBody, refusal, workOfRequest } from '@/app/server/request';

const schema = fields({
  brandId: id('Brand'),
  title: text('Title'),
  note: maybeText('Note'),
  link: maybeText('Link'),
  channelIds: ids('Channels').optional(),
});

/** Catches an idea. */
export async function POST(request: Request): Promise<Response> {
  const { work } = await workOfRequest();
  const body = await readBody(request, schema);
  return body.ok ? answer(await catchIdea(work, body.value)) : refusal(body.refusal);
}
