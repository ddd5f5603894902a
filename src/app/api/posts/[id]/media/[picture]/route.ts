import { describePicture, removePicture } from '@/usecases/pictures';
import { fields, text } from '@/app/server/fields';
import { isId, nothingThere, readBody, refusal, workOfRequest } from '@/app/server/request';
import { answerPost } from '../../../answer';

type Context = { params: Promise<{ id: string; picture: string }> };

const schema = fields({ alt: text('Alt text') });

/** Writes a picture's alt text. */
export async function PATCH(request: Request, { params }: Context): Promise<Response> {
  const { id, picture } = await params;
  if (!isId(id) || !isId(picture)) return nothingThere('picture');
  const { app, work } = await workOfRequest();
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  return answerPost(app, id, await describePicture(work, id, picture, body.value.alt));
}

/** Takes a picture from a post. */
export async function DELETE(_request: Request, { params }: Context): Promise<Response> {
  const { id, picture } = await params;
  if (!isId(id) || !isId(picture)) return nothingThere('picture');
  const { app, work } = await workOfRequest();
  return answerPost(app, id, await removePicture(work, id, picture));
}
