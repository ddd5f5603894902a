import { maybePiece } from '@/data/pieces';
import { editPiece } from '@/usecases/pieces';
import { fields, ids, maybeText, version } from '@/app/server/fields';
import { done, isId, nothingThere, readBody, refusal, workOfRequest } from '@/app/server/request';

const schema = fields({
  version,
  title: maybeText('Title'),
  note: maybeText('Note'),
  link: maybeText('Link'),
  sourceText: maybeText('Source text'),
  channelIds: ids('Channels').optional(),
});

/** Edits a piece. */
export async function PATCH(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return nothingThere('idea');
  const { app, work } = await workOfRequest();
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const { version: basedOn, ...edit } = body.value;
  const result = await editPiece(work, id, basedOn, edit);
  return result.ok ? done(result.value) : refusal(result.refusal, await maybePiece(app.db, id));
}
