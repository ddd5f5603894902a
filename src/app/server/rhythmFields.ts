import { array, mixed, object, string } from 'yup';
import type { Recurrence } from '@/core/rhythm/entry';
import { date, format, text, time } from './fields';

const KINDS = ['daily', 'weekly', 'monthlyWeekday', 'monthlyDate'];

/** An entry of a rhythm as a request or a file brings it, without its pillar. */
export const rhythmEntryFields = {
  recurrence: mixed<Recurrence>()
    .test('kind', 'How often?', (value) => typeof value === 'object' && value !== null && KINDS.includes(value.kind))
    .required(),
  time: text('Time'),
  until: time.default(null),
  format: format.nullable().defined(),
  theme: text('Theme'),
  from: date.defined(),
  to: date.defined(),
};

/** The pauses of a channel. */
export const pauseFields = array(
  object({ name: text('Name'), from: text('From'), to: text('To') }).noUnknown(),
).required();

/** The pillar of an entry, by its id. */
export const pillarField = string().uuid('Pillar is not an identifier.').nullable().defined();
