import { door } from '@/app/server/door';
import { fields, id } from '@/app/server/fields';
import { answer, done, nothingThere, readBody, refusal } from '@/app/server/request';
import { linkTo } from '@/app/server/reach';
import { isDemo } from '@/app/server/who';
import { makeEntryLink, takeBackEntryLink } from '@/usecases/signIn/entry';

const schema = fields({ personId: id('Person') });

/** Makes a link by which somebody sets their password: an invitation, or one for another password. */
export const POST = door('manageHouse', async (request, _context, { work }) => {
  if (isDemo()) return nothingThere('invitation');
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const made = await makeEntryLink(work, body.value.personId);
  if (!made.ok) return refusal(made.refusal);
  const { key, purpose, expiresAt } = made.value;
  return done({ link: linkTo(request, `/join/${key}`), purpose, expiresAt });
});

/** Takes back the link that was made for somebody. */
export const DELETE = door('manageHouse', async (request, _context, { work }) => {
  const body = await readBody(request, schema);
  return body.ok ? answer(await takeBackEntryLink(work, body.value.personId)) : refusal(body.refusal);
});
