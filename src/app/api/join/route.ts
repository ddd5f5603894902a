import { openDoor } from '@/app/server/door';
import { fields, text } from '@/app/server/fields';
import { done, readBody, refusal } from '@/app/server/request';
import { fromOf } from '@/app/server/reach';
import { keepSignIn } from '@/app/server/session';
import { enter } from '@/usecases/signIn/entry';

const schema = fields({ key: text('Key'), password: text('Password') });

/** Lets somebody in by a link, with the password they choose. */
export const POST = openDoor(async (request, _context, { app }) => {
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const entered = await enter(app, body.value, fromOf(request));
  if (!entered.ok) return refusal(entered.refusal);
  await keepSignIn(app, entered.value.signInId);
  return done({});
});
