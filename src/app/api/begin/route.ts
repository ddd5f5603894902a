import { cookies } from 'next/headers';
import { number } from 'yup';
import { openDoor } from '@/app/server/door';
import { fields, text } from '@/app/server/fields';
import { done, readBody, refusal } from '@/app/server/request';
import { PERSON_COOKIE, PERSON_COOKIE_OPTIONS } from '@/app/server/who';
import { begin } from '@/usecases/begin/begin';

const schema = fields({
  person: text('Your name'),
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
  const begun = await begin(app, body.value);
  if (!begun.ok) return refusal(begun.refusal);
  (await cookies()).set(PERSON_COOKIE, begun.value.personId, PERSON_COOKIE_OPTIONS);
  return done({ slug: begun.value.slug });
});
