import { array, object, string } from 'yup';
import { door } from '@/app/server/door';
import { fields, id as idField, version } from '@/app/server/fields';
import { answer, isId, nothingThere, readBody, refusal } from '@/app/server/request';
import { CHANGE_LIMIT } from '@/core/calendar/change';
import { correctPosts, leaveAsTheyAre } from '@/usecases/corrections/correctPosts';
import type { ChangeTarget } from '@/usecases/calendar/changePosts';
import { answerChange } from '../../../calendar/answer';
import { loadCorrections } from '@/usecases/corrections/reading';

const schema = fields({
  deed: string().oneOf(['correct', 'leave'], 'There is no such deed.').required(),
  posts: array(object({ id: idField('Post'), version }).noUnknown())
    .min(1, 'No post is named.')
    .max(CHANGE_LIMIT, `At most ${CHANGE_LIMIT} posts are changed at once.`)
    .required('No post is named.'),
});

/** The posts that say what a piece no longer says, each with its texts before and after. */
export const GET = door<{ id: string }>('look', async (_request, { params }, { work }) => {
  const { id } = await params;
  return isId(id) ? answer(await loadCorrections(work, id)) : nothingThere('piece');
});

/** Corrects some of them in one step, or leaves them as they are. */
export const POST = door<{ id: string }>('changePosts', async (request, { params }, { app, work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('piece');
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const { deed, posts } = body.value as { deed: 'correct' | 'leave'; posts: ChangeTarget[] };
  const changed =
    deed === 'leave'
      ? await leaveAsTheyAre(work, id, posts)
      : await correctPosts({ ...work, folder: app.folder.media }, id, posts);
  return answerChange(app, work, changed);
});
