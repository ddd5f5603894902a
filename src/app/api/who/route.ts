import { cookies } from 'next/headers';
import { maybePerson } from '@/data/people';
import { bimlo } from '@/runtime/bimlo';
import { fields, id } from '@/app/server/fields';
import { done, nothingThere, PERSON_COOKIE, readBody, refusal } from '@/app/server/request';

const schema = fields({ personId: id('Person') });

/** Says who one is, until signing in exists. */
export async function POST(request: Request): Promise<Response> {
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  if (!(await maybePerson((await bimlo()).db, body.value.personId))) return nothingThere('person');
  (await cookies()).set(PERSON_COOKIE, body.value.personId, {
    httpOnly: true,
    sameSite: 'strict',
    path: '/',
    maxAge: 31_536_000,
  });
  return done({});
}
