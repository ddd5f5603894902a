/** A noun with its article, by its first letter: “a talk”, “an episode”. */
export const withArticle = (noun: string): string => `${/^[aeiou]/i.test(noun) ? 'an' : 'a'} ${noun}`;

/** Words with their first letter in upper case. */
export const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);

const PLURALS = new Intl.PluralRules('en');
const FIGURES = new Intl.NumberFormat('en-GB');

/** A number as people read it: `2,000`. The server and the browser write it alike. */
export const figure = (count: number): string => FIGURES.format(count);

/**
 * A number with its noun in the right form.
 *
 * @param many the noun's plural where it is not the singular with an s
 * @example counted(1, 'entry', 'entries') // '1 entry'
 */
export const counted = (count: number, one: string, many = `${one}s`): string =>
  `${figure(count)} ${PLURALS.select(count) === 'one' ? one : many}`;
