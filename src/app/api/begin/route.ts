import { number } from 'yup';
import { openDoor } from '@/app/server/door';
import { fields, text } from '@/app/server/fields';
import { done, readBody, refusal } from '@/app/server/request';
import { fromOf, isOnlyHere } from '@/app/server/reach';
import { keepSignIn } from '@/app/server/session';
import { begin } from '@/usecases/begin/begin';

const schema = fields({
  person: text('Your name'),
  password: text('Password'),
  brand: fields({
    name: text('Name'),
    zone: text('Time zone'),
    weekStart: number().integer().required(),
  }).required(),
});

/** Begins an empty data folder: whoever does it is its manager, and is who they are from now on. */
export const POST = openDoor(async (request, _context, { app }) => {
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const begun = await begin(app, body.value, fromOf(request), isOnlyHere());
  if (!begun.ok) return refusal(begun.refusal);
  await keepSignIn(app, begun.value.signInId);
  return done({ slug: begun.value.slug });
});
