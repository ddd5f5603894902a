import { door } from '@/app/server/door';
import { number, string } from 'yup';
import { archiveChannelOf, saveChannel } from '@/usecases/brands/channels';
import { fields, id, text } from '@/app/server/fields';
import { answer, readBody, refusal } from '@/app/server/request';

const saved = fields({
  brandId: id('Brand'),
  id: string().uuid().nullable().defined(),
  name: text('Name'),
  callSign: text('Call sign'),
  color: text('Colour'),
  account: text('Account'),
  aimDays: number().typeError('The target is a number of days.').required('How many days ahead?'),
  leadMinutes: number().typeError('The lead is a number of minutes.'),
  distanceMinutes: number().typeError('The distance is a number of minutes.'),
  ruleSheetId: id('Rule sheet'),
});
const archived = fields({ brandId: id('Brand'), id: id('Channel') });

/** Makes a channel, or changes the one named. */
export const POST = door('manageBrand', async (request, _context, { work }) => {
  const body = await readBody(request, saved);
  if (!body.ok) return refusal(body.refusal);
  const { brandId, id: channelId, ...input } = body.value;
  return answer(await saveChannel(work, brandId, channelId, input));
});

/** Archives a channel. */
export const DELETE = door('manageBrand', async (request, _context, { work }) => {
  const body = await readBody(request, archived);
  return body.ok ? answer(await archiveChannelOf(work, body.value.brandId, body.value.id)) : refusal(body.refusal);
});
