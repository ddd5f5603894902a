import { array, bool, number, string } from 'yup';
import { date, fields, ids, text, time } from './fields';

/** How a post is to be used again, as a request brings it. */
const ask = fields({
  channelIds: ids('Channels').required(),
  times: number().typeError('How often is a number.').integer().required(),
  everyDays: number().typeError('The days between are a number.').integer().required(),
  from: date.defined(),
  isDated: bool().required(),
  isReopened: bool().required(),
  isFitted: bool().required(),
});

/** A preview of using a post again. */
export const previewAgainFields = fields({ ask: ask.required() });

/** Posts to be made again. */
export const makeAgainFields = fields({
  ask: ask.required(),
  posts: array(
    fields({
      key: string().required(),
      caption: text('Text'),
      date: date.defined(),
      time: time.defined(),
      isMoved: bool().required(),
    }).required(),
  )
    .max(200, 'At most 200 posts are made at once.')
    .required(),
});
