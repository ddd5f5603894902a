import type { RawBlock } from './rawBlock';

/** Letters from which a paragraph may hold headings that were written into it. */
const ENDLESS = 3_000;
/** Two or more words in large letters between two sentences, perhaps with a number. */
const HEADING =
  /(?<=^|[.!?]["”’)]? )(?:[IVX]{1,5}\. )?\p{Lu}[\p{Lu}'’&-]+(?: \p{Lu}[\p{Lu}'’&-]*){1,7} (?=["“]?\p{Lu}(?:\p{Ll}| \p{Ll}))/gu;
/** Below a title. */
const LEVEL = 2;

/** Cuts an endless paragraph at the headings that were written into it, in large letters: “… is done. OF ROPES But that is not all.” */
export function withRunInHeadings(block: RawBlock): RawBlock[] {
  if (block.reason !== undefined || block.kind !== 'paragraph' || block.text.length < ENDLESS) return [block];
  const parts: RawBlock[] = [];
  let from = 0;
  for (const { 0: heading, index } of block.text.matchAll(HEADING)) {
    parts.push({ ...block, text: block.text.slice(from, index).trim() });
    parts.push({ kind: 'heading', level: LEVEL, text: heading.trim() });
    from = index + heading.length;
  }
  parts.push({ ...block, text: block.text.slice(from).trim() });
  return parts.filter(({ text }) => text !== '');
}
