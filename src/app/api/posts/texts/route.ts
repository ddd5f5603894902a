import { array, string } from 'yup';
import { WRITTEN_FIELDS } from '@/core/posts/written';
import { listTexts } from '@/usecases/posts/listTexts';
import { door } from '@/app/server/door';
import { fields, ids } from '@/app/server/fields';
import { done, nothingThere, readBody, refusal } from '@/app/server/request';

const schema = fields({
  ids: ids('Posts').required('Posts are missing.'),
  fields: array(
    string()
      .oneOf([...WRITTEN_FIELDS], 'There is no such text.')
      .required(),
  )
    .max(WRITTEN_FIELDS.length)
    .required('Texts are missing.'),
});

/** Some texts of posts, for a list that shows them. It changes nothing: what is asked for is too long for an address. */
export const POST = door('look', async (request, _context, { work }) => {
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const posts = await listTexts(work, body.value.ids, body.value.fields);
  return posts.length === 0 ? nothingThere('post') : done({ posts });
});
