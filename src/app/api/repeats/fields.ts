import { mixed, number } from 'yup';
import type { RepeatKind } from '@/core/repeats/repeat';
import type { RepeatRule } from '@/core/repeats/rule';
import { date, format, text } from '@/app/server/fields';

/** The fields of a repeat in a request. */
export const repeatFields = {
  kind: mixed<RepeatKind>().required('A series, evergreen or seasonal?'),
  name: text('Name'),
  format: format.required('The format is missing.'),
  rule: mixed<RepeatRule>()
    .required('How often?')
    .test('isRule', 'How often?', (rule) => typeof rule === 'object'),
  time: text('Time'),
  from: text('First day'),
  to: date.defined(),
  times: number().typeError('How many times is a number.').nullable().defined(),
  ahead: number().typeError('How many ahead is a number.').required('How many ahead?'),
  daysBefore: number().typeError('Days before are a number.').required('How many days before?'),
  workDays: number().typeError('Days of work are a number.').nullable().defined(),
};
