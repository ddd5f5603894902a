import { guessLanguage } from '../extracts/languages';
import { cleanText } from '../text/clean';
import { foreignLanguage } from './foreign';
import { countWords, nameOfLeftOut, type LeftOut } from './leftOut';
import { parseMarkdown } from './markdown';
import { markdownBlocks } from './markdownBlocks';
import { plainBlocks } from './plainBlocks';
import { onOneLine, type RawBlock } from './rawBlock';
import type { ReadAs } from './readAs';
import { withRunInHeadings } from './runInHeadings';
import { tellApart } from './tellApart';
import { cutAtTurns } from './topics';

/** A stretch of a reading text that stands by itself. Offsets are UTF-16 units of the text. */
export interface Block {
  kind: 'heading' | 'paragraph' | 'listItem' | 'quote';
  start: number;
  end: number;
  /** Of a heading, 1 to 6. */
  level?: number;
  /** Of an item of a numbered list. */
  number?: number;
  /** Who says it, where a text says so. */
  speaker?: string;
  /** Another language than the text's: nothing is drawn from it. */
  language?: string;
}

/** A text to be read: no marks of any language in it, its blocks apart by blank lines. */
export interface ReadingText {
  text: string;
  blocks: readonly Block[];
  /** The text of its first heading of the first level, if there is one before all else. */
  title: string | null;
  /** How it was read: a text with times is read as it was said. */
  as: ReadAs | 'said';
  /** What of the source is not read. */
  leftOut: readonly LeftOut[];
  /** What would be left out and was taken in after all. */
  takenIn: readonly LeftOut[];
  words: { read: number; all: number };
  /** It is too intricate to be read as Markdown, so its marks stand in it as they are. */
  isPlain?: true;
}

const NONE: ReadonlySet<string> = new Set();

/**
 * Reads Markdown (CommonMark, with tables, struck out words and lists to tick) as a person reads it: headings, paragraphs, items of
 * lists and quotations in their order, emphasis and links as their words. What is not the thought of the text is left out, with its
 * reason. What cannot be read so is read as plain text.
 *
 * @param taken names of what is taken in that would be left out (`nameOfLeftOut`)
 * @example readMarkdown('# Rings\n\nThey **vanish**.').text // 'Rings\n\nThey vanish.'
 */
export function readMarkdown(source: string, taken: ReadonlySet<string> = NONE): ReadingText {
  const reading = maybeReadMarkdown(source, taken);
  return typeof reading === 'string' ? { ...readPlain(source, taken), isPlain: true } : reading;
}

/** Blocks that a text to be read has at most: a long book has half as many. */
export const MOST_BLOCKS = 10_000;

/** Why a text is not read. */
type Unreadable = 'tooIntricate' | 'tooManyParagraphs';

/** The same, or why it is not read so: it is nested too deeply, or has more than `MOST_BLOCKS`. */
export function maybeReadMarkdown(source: string, taken: ReadonlySet<string> = NONE): ReadingText | Unreadable {
  const { front, body } = withoutFrontMatter(cleanText(source));
  const root = parseMarkdown(body);
  if (!root) return 'tooIntricate';
  const blocks = [...front, ...markdownBlocks(root, body)];
  if (blocks.length > MOST_BLOCKS) return 'tooManyParagraphs';
  return assembled(tellApart(blocks, isIn(taken)), 'markdown', taken);
}

function withoutFrontMatter(source: string): { front: RawBlock[]; body: string } {
  const end = source.startsWith('---\n') ? source.indexOf('\n---\n', 3) : -1;
  if (end < 0) return { front: [], body: source };
  const at = end + '\n---\n'.length;
  return { front: [{ kind: 'paragraph', reason: 'fileNote', text: source.slice(0, at) }], body: source.slice(at) };
}

/**
 * Reads plain text, in which marks are marks: paragraphs, headings, items of lists and quotations as they are set
 * (`plainBlocks`). Where there are more than `MOST_BLOCKS`, several are read as one.
 */
export function readPlain(source: string, taken: ReadonlySet<string> = NONE): ReadingText {
  const blocks = tellApart(plainBlocks(cleanText(source)).flatMap(cutBlock), isIn(taken));
  return assembled(blocks.length <= MOST_BLOCKS ? blocks : together(blocks), 'plain', taken);
}

/** The same, or that it has too many paragraphs. */
export function maybeReadPlain(source: string): ReadingText | Unreadable {
  const blocks = plainBlocks(cleanText(source));
  return blocks.length > MOST_BLOCKS
    ? 'tooManyParagraphs'
    : assembled(tellApart(blocks.flatMap(cutBlock)), 'plain', NONE);
}

/** Whether something is named in a set. */
const isIn =
  (names: ReadonlySet<string>) =>
  (one: LeftOut): boolean =>
    names.size > 0 && names.has(nameOfLeftOut(one));

const cutBlock = (block: RawBlock): RawBlock[] =>
  withRunInHeadings(block).flatMap((part) =>
    part.reason === undefined && part.kind === 'paragraph'
      ? cutAtTurns(part.text).map((text) => ({ ...part, text }))
      : [part],
  );

function together(blocks: readonly RawBlock[]): RawBlock[] {
  const size = Math.ceil(blocks.length / MOST_BLOCKS);
  return Array.from({ length: Math.ceil(blocks.length / size) }, (_, at) => {
    const own = blocks.slice(at * size, (at + 1) * size);
    return {
      kind: 'paragraph' as const,
      text: own.flatMap(({ text, reason }) => (reason === undefined ? [text] : [])).join(' '),
      marks: own.flatMap(({ reason, text, marks = [] }) => (reason === undefined ? marks : [{ reason, text }])),
    };
  });
}

/** Stretches as a text to be read. */
function assembled(raw: readonly RawBlock[], as: ReadAs, taken: ReadonlySet<string>): ReadingText {
  const texts: string[] = [];
  const blocks: Block[] = [];
  const leftOut: LeftOut[] = [];
  const takenIn: LeftOut[] = [];
  let at = 0;
  const add = ({ text, reason: _reason, marks: _marks, takenIn: _taken, ...block }: RawBlock) => {
    if (text === '') return;
    if (at > 0) at += texts.push('\n\n') && 2;
    blocks.push({ ...block, start: at, end: at + text.length });
    texts.push(text);
    at += text.length;
  };
  const isTaken = isIn(taken);
  for (const block of raw) {
    const { reason, text, marks = [] } = block;
    if (reason === undefined) {
      add(block);
      takenIn.push(...(block.takenIn ?? []));
      for (const mark of marks) {
        (isTaken(mark) ? takenIn : leftOut).push(mark);
        if (isTaken(mark)) add({ kind: 'paragraph', text: mark.text });
      }
    } else if (isTaken({ reason, text })) {
      takenIn.push({ reason, text });
      for (const line of text.split('\n')) add({ ...block, text: line.replace(/\s+/g, ' ').trim() });
    } else leftOut.push({ reason, text }, ...marks);
  }
  const text = texts.join('');
  const [first] = blocks;
  const title = first?.kind === 'heading' && first.level === 1 ? text.slice(first.start, first.end) : null;
  return accounted({ text, blocks: inOwnLanguage(text, blocks), title, as, leftOut, takenIn });
}

/** Marks the blocks that are in another language than their text. */
export function inOwnLanguage(text: string, blocks: readonly Block[]): Block[] {
  const own = guessLanguage(text);
  return blocks.map((block) => {
    const language = block.kind === 'heading' ? null : foreignLanguage(text.slice(block.start, block.end), own);
    return language === null ? block : { ...block, language };
  });
}

/** A reading with its words counted. */
export function accounted(reading: Omit<ReadingText, 'words'>): ReadingText {
  const { text, blocks, leftOut } = reading;
  const read = blocks.reduce((sum, { start, end }) => sum + countWords(text.slice(start, end)), 0);
  return { ...reading, words: { read, all: read + leftOut.reduce((sum, one) => sum + countWords(one.text), 0) } };
}

/** The text of Markdown as it was read before anything was told apart: what extracts kept from then point into. */
export function textBeforeTellingApart(source: string): string {
  const { body } = withoutFrontMatter(cleanText(source));
  const root = parseMarkdown(body);
  if (!root) return onOneLine(body);
  return markdownBlocks(root, body)
    .flatMap(({ reason, text }) =>
      reason === undefined ? [text] : reason === 'table' ? text.split('\n').slice(1) : [],
    )
    .filter((text) => text !== '')
    .join('\n\n');
}
