import { array, bool, mixed, number, string } from 'yup';
import { WRITTEN_FIELDS } from '@/core/posts/written';
import { date, fields, format, id, maybeText, text, time } from './fields';

const isIdByPlace = (value: unknown): value is Record<string, string> =>
  typeof value === 'object' &&
  value !== null &&
  Object.entries(value).every(([place, id]) => /^\d{1,3}$/.test(place) && typeof id === 'string');

/** What is asked of a fan-out, as a request brings it. */
const ask = fields({
  fanOut: text('Fan-out'),
  only: fields({ channelId: id('Channel'), format: format.required() })
    .nullable()
    .default(null),
  anchor: date.defined(),
  chosen: mixed<Record<string, string>>()
    .test('chosen', 'Channels are named by the place of their row.', isIdByPlace)
    .required(),
  on: array(number().integer().min(0).max(200).required()).max(200).nullable().defined(),
  under: number()
    .typeError('A length is a number.')
    .integer()
    .min(20, 'A caption has room for at least 20.')
    .max(100_000)
    .nullable()
    .defined(),
  seed: number().integer().required(),
  isWritten: bool().optional(),
});

/** A fan-out to be shown. */
export const previewFields = fields({ ask: ask.required() });

/** A fan-out to be made. */
export const makeFields = fields({
  ask: ask.required(),
  posts: array(
    fields({
      key: string().required(),
      draft: number().integer().min(0).max(20).required(),
      shown: string().defined(),
      date: date.defined(),
      time: time.defined(),
      isMoved: bool().required(),
      words: fields(Object.fromEntries(WRITTEN_FIELDS.map((field) => [field, maybeText('A text')]))).optional(),
      parts: array(text('A part')).max(200, 'A post has at most 200 parts.').optional(),
    }).required(),
  )
    .max(200, 'At most 200 posts are made at once.')
    .required(),
});

/** Posts of a fan-out to be written by the team's service; without the address that was shown, nothing is sent. */
export const writingFields = fields({
  ask: ask.required(),
  keys: array(string().required()).max(200).nullable().default(null),
  sendTo: maybeText('Address'),
});
