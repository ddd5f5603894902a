import { looksLikeCode } from './code';
import { onOneLine, type RawBlock } from './rawBlock';

/** A line of plain text. */
interface Line {
  text: string;
  /** Columns before its first letter; a tab counts four. */
  indent: number;
}

/** What is known of the lines of a whole text. */
interface Manner {
  /** Columns that its full lines have; infinite where nobody broke its lines. */
  width: number;
  /** Its paragraphs begin with an indented line. */
  isIndented: boolean;
  /** Most of its lines are short and end without a mark: a poem, notes. None of them is a heading then. */
  isBrief: boolean;
}

const LIST_MARK = /^(?:[-*•·‣◦]|(\d{1,3})[.)]|\(\d{1,2}\))\s+(?=\S)/u;
const UNDERLINE = /^\s*(?:={3,}|-{3,})\s*$/;
const RULE = /^\s*(?:[-*_=~•·#]\s*){3,}$/u;
const ENDS = /[.!?…。！？:;,][”"’»)\]]*$/u;
const ENDS_SENTENCE = /[.!?…。！？][”"’»)\]]*$/u;

/**
 * The stretches of plain text in their order. Paragraphs stand apart by blank lines or begin indented; lines that were broken at a
 * width are joined; a whole paragraph set in from the others is a quotation; short lines by themselves before prose are headings;
 * lines of code and of columns are left out. No mark in it means anything but itself, save those that begin the items of a list.
 */
export function plainBlocks(source: string): RawBlock[] {
  const lines = source.split('\n').map(lineOf);
  const chunks = chunksOf(lines);
  const manner = mannerOf(lines, chunks);
  const blocks = chunks.flatMap((chunk) => blocksOf(chunk, manner));
  return manner.isBrief ? blocks : withHeadings(blocks);
}

/** A stretch that may turn out to be a heading. */
interface PlainBlock extends RawBlock {
  isAlone?: true;
}

function lineOf(line: string): Line {
  const lead = /^[ \t]*/.exec(line)![0];
  return { text: line.trim(), indent: [...lead].reduce((sum, char) => sum + (char === '\t' ? 4 : 1), 0) };
}

function chunksOf(lines: readonly Line[]): Line[][] {
  const chunks: Line[][] = [];
  let open: Line[] = [];
  for (const line of [...lines, { text: '', indent: 0 }]) {
    if (line.text !== '') open.push(line);
    else if (open.length > 0) {
      chunks.push(open);
      open = [];
    }
  }
  return chunks;
}

/** Columns up to which lines may have been broken by hand or program. */
const WIDEST = 110;
/** Of all lines, the share that is as long as the width is told from. */
const FULL = 0.9;

function mannerOf(lines: readonly Line[], chunks: readonly (readonly Line[])[]): Manner {
  const written = lines.filter(({ text }) => text !== '');
  const lengths = written.map(({ text, indent }) => text.length + indent).sort((one, other) => one - other);
  const full = lengths[Math.floor((lengths.length - 1) * FULL)] ?? 0;
  const neighbours = chunks.filter(({ length }) => length > 1).flatMap((chunk) => chunk.slice(0, -1));
  const wrapped = neighbours.filter(({ text }) => !ENDS_SENTENCE.test(text)).length;
  const isWrapped = full <= WIDEST && neighbours.length > 0 && wrapped * 3 > neighbours.length;
  const starts = chunks.map(([first]) => first!);
  const indented = starts.filter(({ indent }) => indent > 0).length;
  const brief = chunks.filter((chunk) => chunk.length === 1 && mayBeHeading(chunk[0]!.text)).length;
  return {
    width: isWrapped ? full : Infinity,
    isIndented: indented * 2 > starts.length,
    isBrief: brief > 4 && brief * 5 > chunks.length * 2,
  };
}

function blocksOf(chunk: readonly Line[], manner: Manner): PlainBlock[] {
  const text = chunk.map((line) => line.text).join('\n');
  if (chunk.length > 1 && looksLikeCode(text)) return [{ kind: 'paragraph', reason: 'code', text }];
  if (isTable(chunk)) return [{ kind: 'paragraph', reason: 'table', text }];
  if (chunk.every((line) => line.text.startsWith('>')))
    return plainBlocks(chunk.map((line) => line.text.replace(/^(?:>\s?)+/, '')).join('\n')).map((block) =>
      block.kind === 'paragraph' ? { ...block, kind: 'quote' } : block,
    );
  const setting = settingOf(chunk);
  const isSetIn = setting.base >= 2 && chunk.length > 1 && !manner.isIndented;
  const blocks: PlainBlock[] = [];
  chunk.forEach((line, at) => {
    if (RULE.test(line.text)) return;
    const last = blocks.at(-1);
    const before = chunk[at - 1];
    const item = LIST_MARK.exec(line.text);
    const isItem = item !== null && (last === undefined || last.kind === 'listItem' || at < setting.lastItem);
    if (isItem)
      blocks.push({
        kind: 'listItem',
        text: line.text.slice(item[0].length),
        ...(item[1] !== undefined && { number: Number(item[1]) }),
      });
    else if (last && before && goesOn(before, line, setting, manner)) last.text = joinedLine(last.text, line.text);
    else blocks.push({ kind: isSetIn ? 'quote' : 'paragraph', text: line.text });
  });
  const [only] = blocks;
  if (only && blocks.length === 1 && only.kind === 'paragraph' && chunk.length <= 2) {
    if (chunk.length === 2 && UNDERLINE.test(chunk[1]!.text))
      return [{ kind: 'heading', level: chunk[1]!.text.startsWith('=') ? 1 : 2, text: onOneLine(only.text) }];
    if (chunk.length === 1) only.isAlone = true;
  }
  return blocks.map((block) => ({ ...block, text: onOneLine(block.text) }));
}

/** How the lines of a chunk stand. */
interface Setting {
  /** The least indent. */
  base: number;
  /** Some of its lines stand further in. */
  isUneven: boolean;
  /** The place of the last line that begins an item of a list; -1 for none. */
  lastItem: number;
}

const settingOf = (chunk: readonly Line[]): Setting => {
  const base = chunk.reduce((least, { indent }) => Math.min(least, indent), Infinity);
  return {
    base,
    isUneven: chunk.some(({ indent }) => indent > base),
    lastItem: chunk.findLastIndex(({ text }) => LIST_MARK.test(text)),
  };
};

/** Whether a line goes on with the one before, in the manner of the text. */
function goesOn(before: Line, line: Line, { base, isUneven }: Setting, { width }: Manner): boolean {
  if (line.indent > base && before.indent === base) return LIST_MARK.test(before.text);
  if (isUneven) return true;
  if (/^\p{Ll}/u.test(line.text)) return true;
  if (!ENDS_SENTENCE.test(before.text)) return width !== Infinity || /[,;–—-]$/u.test(before.text);
  const [word = ''] = line.text.split(/\s/, 1);
  return width !== Infinity && before.text.length + before.indent + word.length + 1 > width * 0.9;
}

/** A line behind another: a word that was parted at its end is whole again where both halves are small letters. */
const joinedLine = (text: string, line: string): string =>
  /\p{L}-$/u.test(text) && /^\p{Ll}/u.test(line) ? `${text}${line}` : `${text} ${line}`;

/** Whether lines are rows of columns: set apart by tabs, bars, or three spaces and more. */
function isTable(chunk: readonly Line[]): boolean {
  if (chunk.length < 2) return false;
  const columns = chunk.map(({ text }) => text.split(/\t|\||\s{3}/).filter((cell) => cell.trim() !== '').length);
  return columns.filter((count) => count > 1).length >= chunk.length * 0.8 && columns.some((count) => count > 1);
}

/** Letters that a heading has at most. */
const LONGEST_HEADING = 80;

const mayBeHeading = (text: string): boolean =>
  text.length <= LONGEST_HEADING &&
  /^[\p{Lu}\p{N}“"«¿¡'‘]/u.test(text) &&
  /\p{L}/u.test(text) &&
  (!ENDS.test(text) || /[?!]$/.test(text));

/** A line by itself that could be a heading is one where prose or a list follows, longer than it. */
function withHeadings(blocks: readonly PlainBlock[]): RawBlock[] {
  let isFirst = true;
  return blocks.map(({ isAlone, ...block }, at): RawBlock => {
    const next = blocks[at + 1];
    const isHeading =
      isAlone === true &&
      mayBeHeading(block.text) &&
      !ENDS_SENTENCE.test(block.text) &&
      next !== undefined &&
      next.reason === undefined &&
      (next.kind === 'listItem' ||
        (next.isAlone !== true && next.text.length > block.text.length) ||
        next.text.length > LONGEST_HEADING ||
        (isFirst && at === 0));
    const level = isFirst && at === 0 ? 1 : 2;
    if (block.reason === undefined) isFirst = false;
    return isHeading ? { kind: 'heading', level, text: block.text } : block;
  });
}
