const PART = String.raw`(?:[Cc]hapter|[Ss]ection|[Pp]art|[Kk]apitel|[Aa]bschnitt|[Tt]eil|[Cc]hapitre|[Pp]artie|[Cc]apítulo|[Ss]ección|[Ss]eção|[Pp]arte|[Aa]ppendix|[Aa]nhang|[Aa]nnexe|[Aa]péndice|[Aa]pêndice|[Aa]nexo) (?:\d+(?:\.\d+)*|[IVXLC]+|[A-Z])[.:]`;
const NUMBER = String.raw`(?:${PART}|\d+(?:\.\d+)+\.?|\d+[.)]|[IVX]{1,6}\.|\p{Lu}(?:\.\d+)+\.?|§ ?\d+\.?)\s+(?=\S)`;
const NUMBERED = new RegExp(String.raw`(^|[:–—|]\s)${NUMBER}`, 'gu');

/**
 * A heading without the number of its section, at its beginning and behind the name of what it is a section of.
 *
 * @example withoutNumber('1.2 Old ropes') // 'Old ropes'
 * @example withoutNumber('Chapter 3. Old ropes') // 'Old ropes'
 */
export const withoutNumber = (heading: string): string => heading.replace(NUMBERED, '$1');
