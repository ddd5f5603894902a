/** How many times a text holds what is looked for; upper and lower case are the same unless they shall count. */
export function countMatches(text: string, wanted: string, matchCase: boolean): number {
  return wanted === '' ? 0 : [...text.matchAll(patternOf(wanted, matchCase))].length;
}

/** The text with every match replaced. What is put in is taken letter by letter. */
export function replaceMatches(text: string, wanted: string, put: string, matchCase: boolean): string {
  return wanted === '' ? text : text.replace(patternOf(wanted, matchCase), () => put);
}

const patternOf = (wanted: string, matchCase: boolean): RegExp =>
  new RegExp(wanted.replace(/[.*+?^${}()|[\]\\/]/g, '\\$&'), matchCase ? 'gu' : 'giu');
