import { door } from '@/app/server/door';
import { array, lazy, mixed, number, object, string } from 'yup';
import { CHANGE_LIMIT, type Change } from '@/core/calendar/change';
import { changePosts, type ChangeTarget } from '@/usecases/calendar/changePosts';
import { date, fields, format, id, ids, text, time, version } from '@/app/server/fields';
import { readBody, refusal } from '@/app/server/request';
import { answerChange } from '../answer';

const kind = string().required();
const days = number().integer('Days are whole.').required('How many days?');
const maybeId = (label: string) =>
  string().uuid(`${label} is not an identifier.`).nullable().defined(`${label} is missing.`);

const CHANGES = {
  place: fields({
    kind,
    date: date.defined(),
    time: time.optional(),
    channelId: string().uuid().optional(),
    format: format.optional(),
  }),
  carry: fields({
    kind,
    places: array(object({ id: id('Post'), date: date.nonNullable().required(), time: time.defined() }).noUnknown())
      .max(CHANGE_LIMIT, `At most ${CHANGE_LIMIT} posts are moved at once.`)
      .required('No place is named.'),
  }),
  shift: fields({ kind, days }),
  time: fields({ kind, time: time.defined() }),
  stage: fields({
    kind,
    stage: string()
      .oneOf(['drafting', 'production', 'signOff', 'ready', 'scheduled'], 'That stage is not chosen by hand.')
      .required(),
  }),
  title: fields({ kind, title: text('Working title') }),
  owner: fields({ kind, ownerId: id('Owner') }),
  pillar: fields({ kind, pillarId: maybeId('Pillar') }),
  campaign: fields({ kind, campaignId: maybeId('Campaign') }),
  setAside: fields({ kind, reason: text('Reason') }),
  copy: fields({ kind, days, channelIds: ids('Channels').nullable().defined() }),
};

const schema = fields({
  brandId: id('Brand'),
  posts: array(object({ id: id('Post'), version }).noUnknown())
    .max(CHANGE_LIMIT, `At most ${CHANGE_LIMIT} posts are changed at once.`)
    .required('No post is named.'),
  change: lazy((value: unknown) => {
    const asked = (value as { kind?: string } | undefined)?.kind ?? '';
    return Object.hasOwn(CHANGES, asked)
      ? CHANGES[asked as keyof typeof CHANGES]
      : mixed().test('kind', 'There is no such change.', () => false);
  }),
});

/** Changes one or many posts on the calendar. */
export const POST = door('changePosts', async (request, _context, { app, work }) => {
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const { brandId, posts, change } = body.value as { brandId: string; posts: ChangeTarget[]; change: Change };
  return answerChange(app, work, await changePosts(work, brandId, posts, change));
});
