import { door } from '@/app/server/door';
import { fields, maybeText, text } from '@/app/server/fields';
import { answer, nothingThere, readBody, refusal } from '@/app/server/request';
import { fromOf } from '@/app/server/reach';
import { keepSignIn } from '@/app/server/session';
import { isDemo } from '@/app/server/who';
import { changeOwnPassword } from '@/usecases/signIn/ownPassword';

const schema = fields({ present: maybeText('Current password'), password: text('New password') });

/** Sets the password of whoever asks. Where it is their first, this browser is signed in with it. */
export const POST = door('lookAtSelf', async (request, _context, { app, work, signInId }) => {
  if (isDemo()) return nothingThere('password');
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const { present, password } = body.value;
  const changed = await changeOwnPassword(work, { signInId, present: present ?? '', password, from: fromOf(request) });
  if (!changed.ok) return refusal(changed.refusal);
  if (changed.value.signInId !== signInId) await keepSignIn(app, changed.value.signInId);
  return answer({ ok: true, value: {} });
});
