import { editPost } from '@/usecases/writing';
import { loadSheet } from '@/usecases/views';
import { WRITTEN_FIELDS, type WrittenField } from '@/core/posts/written';
import { fields, format, maybeText, version } from '@/app/server/fields';
import { parts, partTexts } from '@/app/server/partFields';
import { done, isId, nothingThere, readBody, refusal, workOfRequest } from '@/app/server/request';
import { answerPost } from '../answer';

type Context = { params: Promise<{ id: string }> };

const schema = fields({
  version,
  title: maybeText('Working title'),
  ...(Object.fromEntries(WRITTEN_FIELDS.map((field) => [field, maybeText(field)])) as Record<
    WrittenField,
    ReturnType<typeof maybeText>
  >),
  parts,
  partTexts,
  format: format.optional(),
  ownerId: maybeText('Owner').uuid('Owner is no identifier.'),
  pillarId: maybeText('Pillar').uuid('Pillar is no identifier.').nullable(),
  campaignId: maybeText('Campaign').uuid('Campaign is no identifier.').nullable(),
});

/** An open post. */
export async function GET(_request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  const { app } = await workOfRequest();
  const sheet = isId(id) ? await loadSheet(app.db, id) : undefined;
  return sheet && !sheet.deleted ? done(sheet) : nothingThere('post');
}

/** Saves fields of a post. */
export async function PATCH(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return nothingThere('post');
  const { app, work } = await workOfRequest();
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const { version: basedOn, ...edit } = body.value;
  return answerPost(app, id, await editPost(work, id, basedOn, edit));
}
