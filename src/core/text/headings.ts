const NUMBER = String.raw`(?:\d+(?:\.\d+)+\.?|\d+[.)]|\p{Lu}(?:\.\d+)+\.?|§ ?\d+\.?)\s+(?=\S)`;
const NUMBERED = new RegExp(String.raw`(^|[:–—|]\s)${NUMBER}`, 'gu');

/**
 * A heading without the number of its section, at its beginning and behind the name of what it is a section of.
 *
 * @example withoutNumber('1.2 Old ropes') // 'Old ropes'
 */
export const withoutNumber = (heading: string): string => heading.replace(NUMBERED, '$1');
