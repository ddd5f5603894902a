import { openDoor } from '@/app/server/door';
import { cookies } from 'next/headers';
import { maybeActor } from '@/usecases/people/reading';
import { fields, id } from '@/app/server/fields';
import { done, nothingThere, readBody, refusal } from '@/app/server/request';
import { isDemo, PERSON_COOKIE, PERSON_COOKIE_OPTIONS } from '@/app/server/who';

const schema = fields({ personId: id('Person') });

/** Says who one is, in a demo. */
export const POST = openDoor(async (request, _context, { app }) => {
  if (!isDemo()) return nothingThere('choice');
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  if (!(await maybeActor(app.db, body.value.personId))) return nothingThere('person');
  (await cookies()).set(PERSON_COOKIE, body.value.personId, PERSON_COOKIE_OPTIONS);
  return done({});
});
