import { array, string } from 'yup';
import { door } from '@/app/server/door';
import { fields } from '@/app/server/fields';
import { answer, readBody, refusal } from '@/app/server/request';
import { accept } from '@/core/refusal';
import { loadFresh, markRead } from '@/usecases/notices/notices';

const read = fields({ ids: array(string().uuid().required()).max(1000).nullable().defined() });

/** What whoever asks has still to look at. */
export const GET = door('lookAtSelf', async (_request, _context, { app, work }) =>
  answer(accept(await loadFresh(app.db, work.actorId))),
);

/** Notes that they looked at some, or with null at all. */
export const POST = door('lookAtSelf', async (request, _context, { work }) => {
  const body = await readBody(request, read);
  return body.ok ? answer(await markRead(work, body.value.ids)) : refusal(body.refusal);
});
