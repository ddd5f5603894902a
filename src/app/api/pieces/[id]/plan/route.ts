import { door } from '@/app/server/door';
import { array, bool, string } from 'yup';
import type { Format } from '@/core/rulesheets/types';
import { planPiece, type Asked } from '@/usecases/posts/planPosts';
import { loadSlips } from '@/usecases/posts/loadPosts';
import { date, fields, format, time } from '@/app/server/fields';
import { done, isId, nothingThere, readBody, refusal } from '@/app/server/request';

const schema = fields({
  channelIds: array(string().uuid('Channels holds something that is not an identifier.').required())
    .max(200)
    .required(),
  date: date.defined(),
  time: time.defined(),
  format: format.nullable().optional(),
  pillarId: string().uuid('Pillar is not an identifier.').nullable().optional(),
  isMadeForIt: bool().optional(),
  places: array(
    fields({
      channelId: string().uuid('Channel is not an identifier.').required(),
      date: date.defined(),
      time: time.defined(),
      format: format.nullable().defined(),
      pillarId: string().uuid('Pillar is not an identifier.').nullable().defined(),
    }).required(),
  )
    .max(200)
    .optional(),
});

/** Plans a piece: makes a post for each channel. Answers with their slips. */
export const POST = door<{ id: string }>('changePosts', async (request, { params }, { app, work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('idea');
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const { channelIds, date: on, time: at, format: asked, pillarId, isMadeForIt = false, places } = body.value;
  const result = await planPiece(
    work,
    id,
    channelIds,
    { date: on, time: at },
    {
      format: (asked ?? null) as Format | null,
      pillarId: pillarId ?? null,
      isMadeForIt,
      ...(places && { places: places as Asked['places'] & object }),
    },
  );
  if (!result.ok) return refusal(result.refusal);
  const { postIds, changeId } = result.value;
  return done({ slips: await loadSlips(app.db, postIds), changeId });
});
