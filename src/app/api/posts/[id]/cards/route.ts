import type { Card } from '@/core/cards/card';
import { cardField } from '@/app/server/cardFields';
import { door } from '@/app/server/door';
import { fields, maybeText } from '@/app/server/fields';
import { isId, nothingThere, readBody, refusal } from '@/app/server/request';
import { attachCard } from '@/usecases/cards/cards';
import { answerPost } from '../../answer';

const schema = fields({
  card: cardField,
  replaces: maybeText('Picture').uuid('Picture is not an identifier.').nullable().defined(),
});

/** Sets words as a picture of the post, or anew in the place of one it has. */
export const POST = door<{ id: string }>('changePosts', async (request, { params }, { app, work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('post');
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const { card, replaces } = body.value;
  return answerPost(app, id, await attachCard({ ...work, folder: app.folder.media }, id, card as Card, replaces));
});
