import { door } from '@/app/server/door';
import { fields, id } from '@/app/server/fields';
import { answer, readBody, refusal } from '@/app/server/request';
import { releaseRestored } from '@/usecases/delivery/restores';
import { string } from 'yup';

const schema = fields({
  brandId: id('Brand'),
  postId: string()
    .uuid('Post is not an identifier.')
    .nullable()
    .defined('postId is missing: an identifier, or null for all.'),
});

/** Lets go on what waits since the data folder was restored: all of a brand, or one post. */
export const POST = door('releaseRestored', async (request, _context, { app, work }) => {
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const released = await releaseRestored(work, body.value.brandId, body.value.postId);
  if (released.ok) void app.worker.look();
  return answer(released);
});
