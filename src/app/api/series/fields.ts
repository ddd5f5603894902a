import { mixed, number } from 'yup';
import type { Recurrence } from '@/core/rhythm/entry';
import { date, format, text } from '@/app/server/fields';

/** The fields of a series in a request. */
export const seriesFields = {
  name: text('Name'),
  format: format.required('The format is missing.'),
  recurrence: mixed<Recurrence>().required('How often?'),
  time: text('Time'),
  from: text('First day'),
  to: date.defined(),
  ahead: number().typeError('How many ahead is a number.').required('How many ahead?'),
};
