import './plainYup';
import { array, number, object, string } from 'yup';
import { readDate, readTime } from '@/core/time/plan';
import { FORMATS } from '@/core/rulesheets/types';

const asText = (label: string) => string().typeError(`${label} has to be text.`);

/** A text of any length; its limit is the use case's to state. */
export const text = (label: string) => asText(label).defined(`${label} is missing.`);
/** A text that may be absent. */
export const maybeText = (label: string) => asText(label).optional();
/** An identifier. */
export const id = (label: string) =>
  asText(label).uuid(`${label} is not an identifier.`).required(`${label} is missing.`);
/** A list of identifiers. */
export const ids = (label: string) =>
  array(string().uuid(`${label} holds something that is not an identifier.`).required()).max(
    200,
    `${label}: at most 200.`,
  );
/** The version a change is based on. */
export const version = number().typeError('version has to be a number.').integer().required('version is missing.');
/** A format. */
export const format = string().oneOf([...FORMATS], 'That is not a format of the list. Choose one.');

/** A date as text, or null for none. */
export const date = string()
  .nullable()
  .test('date', (value, context) => {
    if (value == null) return true;
    const read = readDate(value);
    return read.ok || context.createError({ message: read.refusal.message });
  });

/** A time as text, or null for none. */
export const time = string()
  .nullable()
  .test('time', (value, context) => {
    if (value == null) return true;
    const read = readTime(value);
    return read.ok || context.createError({ message: read.refusal.message });
  });

/** An object with exactly these fields; an unknown one is named. */
export const fields: typeof object = ((shape: Parameters<typeof object>[0]) =>
  object(shape).noUnknown(
    ({ unknown }: { unknown: string }) => `“${unknown}” is not a field of this form.`,
  )) as typeof object;
