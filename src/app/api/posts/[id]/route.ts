import { door } from '@/app/server/door';
import { followCardsOf } from '@/usecases/cards/cards';
import { editPost } from '@/usecases/captions/editPost';
import { ofPost } from '@/usecases/rights/readFor';
import { loadSheet } from '@/usecases/posts/loadPosts';
import { WRITTEN_FIELDS, type WrittenField } from '@/core/posts/written';
import { fields, format, maybeText, version } from '@/app/server/fields';
import { parts, partTexts } from '@/app/server/partFields';
import { answer, isId, nothingThere, readBody, refusal } from '@/app/server/request';
import { answerPost } from '../answer';

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
  ownerId: maybeText('Owner').uuid('Owner is not an identifier.'),
  pillarId: maybeText('Pillar').uuid('Pillar is not an identifier.').nullable(),
  campaignId: maybeText('Campaign').uuid('Campaign is not an identifier.').nullable(),
});

/** An open post. */
export const GET = door<{ id: string }>('look', async (_request, { params }, { work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('post');
  const sheet = await ofPost(work, id, 'post', () => loadSheet(work.db, id));
  return sheet.ok && sheet.value.deleted ? nothingThere('post') : answer(sheet);
});

/** Saves fields of a post. */
export const PATCH = door<{ id: string }>('changePosts', async (request, { params }, { app, work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('post');
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const { version: basedOn, ...edit } = body.value;
  // The version says already whether it was sent before.
  const { request: _key, ...plain } = work;
  const edited = await editPost(plain, id, basedOn, edit);
  if (edited.ok) await followCardsOf({ ...plain, folder: app.folder.media }, [id]);
  return answerPost(app, id, edited);
});
