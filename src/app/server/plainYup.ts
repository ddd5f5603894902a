import { setLocale } from 'yup';

/** Where a value stands, as a person may look for it: “steps, number 3, lead”; empty for the whole. */
export const placeIn = (path: string | undefined): string =>
  (path ?? '').replace(/\[(\d+)\]/g, (_all, index) => `, number ${Number(index) + 1}`).replaceAll('.', ', ');

/** A sentence about a value; about the whole of what was sent where no place in it is meant. */
const says =
  (words: string | ((params: Record<string, unknown>) => string)) =>
  (params: { path?: string }): string =>
    // The whole is called “this” by the package.
    `${placeIn(params.path === 'this' ? '' : params.path) || 'What was sent'} ${typeof words === 'string' ? words : words(params as Record<string, unknown>)}.`;

const KINDS: Record<string, string> = {
  ...{ string: 'a text', number: 'a number', boolean: 'yes or no (true, false)' },
  ...{ array: 'a list', object: 'an object with fields', date: 'a date' },
};

/** What is refused of the form of a request, in plain words, where its schema has none of its own. */
setLocale({
  mixed: {
    ...{ default: says('is not what it may be'), required: says('is missing'), defined: says('is missing') },
    notNull: says('is missing'),
    oneOf: says(({ values }) => `may be one of these: ${String(values)}`),
    notOneOf: says('is not what it may be'),
    notType: says(({ type }) => `has to be ${KINDS[String(type)] ?? 'something else'}`),
  },
  string: {
    length: says(({ length }) => `has to have ${String(length)} characters`),
    min: says(({ min }) => `has to have at least ${String(min)} characters`),
    max: says(({ max }) => `has to have at most ${String(max)} characters`),
    ...{ matches: says('is not written as it has to be'), uuid: says('is not an identifier') },
  },
  number: {
    min: says(({ min }) => `has to be at least ${String(min)}`),
    max: says(({ max }) => `has to be at most ${String(max)}`),
    integer: says('has to be a whole number'),
  },
  array: {
    min: says(({ min }) => `has to have at least ${String(min)} entries`),
    max: says(({ max }) => `has to have at most ${String(max)} entries`),
  },
  object: { noUnknown: says(({ unknown }) => `has a field that does not belong there: ${String(unknown)}`) },
});
