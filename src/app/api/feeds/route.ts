import { string } from 'yup';
import { door } from '@/app/server/door';
import { fields, id } from '@/app/server/fields';
import { linkTo } from '@/app/server/reach';
import { answer, readBody, refusal } from '@/app/server/request';
import { accept } from '@/core/refusal';
import { endFeed, makeFeed } from '@/usecases/feeds/feeds';

const made = fields({ brandId: string().uuid().nullable().defined() });
const ended = fields({ id: id('Feed') });

/** Makes a calendar feed of whoever asks, or of a brand for them; answers its address, which is told this once. */
export const POST = door('lookAtSelf', async (request, _context, { work }) => {
  const body = await readBody(request, made);
  if (!body.ok) return refusal(body.refusal);
  const feed = await makeFeed(work, body.value.brandId);
  return feed.ok ? answer(accept({ address: linkTo(request, `/feeds/${feed.value.key}.ics`) })) : refusal(feed.refusal);
});

/** Revokes one. */
export const DELETE = door('lookAtSelf', async (request, _context, { work }) => {
  const body = await readBody(request, ended);
  return body.ok ? answer(await endFeed(work, body.value.id)) : refusal(body.refusal);
});
