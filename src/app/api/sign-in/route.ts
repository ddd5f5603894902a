import { openDoor } from '@/app/server/door';
import { fields, text } from '@/app/server/fields';
import { done, nothingThere, readBody, refusal } from '@/app/server/request';
import { fromOf } from '@/app/server/reach';
import { keepSignIn } from '@/app/server/session';
import { isDemo } from '@/app/server/who';
import { signIn } from '@/usecases/signIn/signIn';

const schema = fields({ name: text('Name'), password: text('Password') });

/** Signs somebody in by name and password. */
export const POST = openDoor(async (request, _context, { app }) => {
  if (isDemo()) return nothingThere('sign-in');
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const signedIn = await signIn(app, body.value, fromOf(request));
  if (!signedIn.ok) return refusal(signedIn.refusal);
  await keepSignIn(app, signedIn.value.signInId);
  return done({});
});
