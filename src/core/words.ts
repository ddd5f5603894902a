/** A noun with its article, by its first letter: “a talk”, “an episode”. */
export const withArticle = (noun: string): string => `${/^[aeiou]/i.test(noun) ? 'an' : 'a'} ${noun}`;

/** Words with their first letter in upper case. */
export const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);
