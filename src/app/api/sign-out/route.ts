import { bool } from 'yup';
import { openDoor } from '@/app/server/door';
import { fields } from '@/app/server/fields';
import { done, readBody, refusal } from '@/app/server/request';
import { dropSignIn } from '@/app/server/session';
import { whoAsks, whyDrawnForAnother } from '@/app/server/who';
import { signOut } from '@/usecases/signIn/signIn';

const schema = fields({ everywhere: bool().required() });

/** Signs whoever asks out, in this browser or everywhere; who is signed out already stays so. */
export const POST = openDoor(async (request, _context, { app }) => {
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const who = await whoAsks(app);
  const another = who && whyDrawnForAnother(request, who);
  if (another) return refusal(another);
  if (who?.signInId) await signOut(app, { personId: who.id, signInId: who.signInId }, body.value.everywhere);
  await dropSignIn(app);
  return done({});
});
