import { door } from '@/app/server/door';
import { fields, text, time } from '@/app/server/fields';
import { answer, readBody, refusal } from '@/app/server/request';
import { setWays } from '@/usecases/notices/ways';

const ways = fields({
  mailAddress: text('Mail address'),
  quiet: fields({ from: time.required(), to: time.required() }).nullable().defined(),
});

/** Says how whoever asks is told of things. */
export const POST = door('lookAtSelf', async (request, _context, { work }) => {
  const body = await readBody(request, ways);
  return body.ok ? answer(await setWays(work, body.value)) : refusal(body.refusal);
});
