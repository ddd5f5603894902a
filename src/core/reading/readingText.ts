import type { List, Nodes, PhrasingContent, Root, Table } from 'mdast';
import { cleanText } from '../text/clean';
import { parseMarkdown } from './markdown';

/** A stretch of a reading text that stands by itself. Offsets are UTF-16 units of the text. */
export interface Block {
  kind: 'heading' | 'paragraph' | 'listItem' | 'quote';
  start: number;
  end: number;
  /** Of a heading, 1 to 6. */
  level?: number;
  /** Of an item of a numbered list. */
  number?: number;
}

/** A text to be read: no marks of any language in it, its blocks apart by blank lines. */
export interface ReadingText {
  text: string;
  blocks: readonly Block[];
  /** The text of its first heading of the first level, if there is one before all else. */
  title: string | null;
  /** It is too intricate to be read as Markdown, so its marks stand in it as they are. */
  isPlain?: true;
}

/**
 * Reads Markdown (CommonMark; plain text is Markdown without marks) as a person reads it: headings, paragraphs, items of lists
 * and quotations in their order, emphasis and links as their words, without code, pictures and HTML. What cannot be read so is read
 * as plain text.
 *
 * @example readMarkdown('# Rings\n\nThey **vanish**.').text // 'Rings\n\nThey vanish.'
 */
export function readMarkdown(source: string): ReadingText {
  const reading = maybeReadMarkdown(source);
  return typeof reading === 'string' ? readPlain(source) : reading;
}

/** Blocks that a text to be read has at most: a long book has half as many. */
export const MOST_BLOCKS = 10_000;

/** The same, or why it is not read so: it is nested too deeply, or has more than `MOST_BLOCKS`. */
export function maybeReadMarkdown(source: string): ReadingText | 'tooIntricate' | 'tooManyParagraphs' {
  const root = parseMarkdown(withoutFrontMatter(cleanText(source)));
  if (!root) return 'tooIntricate';
  const reading = readTree(root);
  return reading.blocks.length <= MOST_BLOCKS ? reading : 'tooManyParagraphs';
}

const withoutFrontMatter = (source: string): string => {
  if (!source.startsWith('---\n')) return source;
  const end = source.indexOf('\n---\n', 3);
  return end < 0 ? source : source.slice(end + '\n---\n'.length);
};

/** Reads a text that is too intricate to be read otherwise, as it stands: its paragraphs, apart by blank lines; several as one where there are too many. */
export function readPlain(source: string): ReadingText {
  const reading = new Reading();
  const paragraphs = cleanText(source).split(/\n{2,}/);
  const together = Math.ceil(paragraphs.length / MOST_BLOCKS);
  for (let at = 0; at < paragraphs.length; at += together)
    reading.add(paragraphs.slice(at, at + together).join(' '), { kind: 'paragraph' });
  return { ...reading.whole(), isPlain: true };
}

/** A reading text as it grows. */
class Reading {
  private readonly text: string[] = [];
  private readonly blocks: Block[] = [];
  private at = 0;

  add(words: string, block: Omit<Block, 'start' | 'end'>): void {
    const tidy = words.replace(/\s+/g, (space) => (space.length === 1 && space !== '\n' ? space : ' ')).trim();
    if (tidy === '') return;
    if (this.at > 0) this.at += this.text.push('\n\n') && 2;
    this.blocks.push({ ...block, start: this.at, end: this.at + tidy.length });
    this.text.push(tidy);
    this.at += tidy.length;
  }

  whole(): ReadingText {
    const text = this.text.join('');
    const [first] = this.blocks;
    const title = first?.kind === 'heading' && first.level === 1 ? text.slice(first.start, first.end) : null;
    return { text, blocks: this.blocks, title };
  }
}

function readTree(root: Root): ReadingText {
  const reading = new Reading();
  const walk = (nodes: readonly Nodes[], kind: 'paragraph' | 'quote') => {
    for (const node of nodes)
      if (node.type === 'heading') reading.add(wordsOf(node.children), { kind: 'heading', level: node.depth });
      else if (node.type === 'paragraph') reading.add(wordsOf(node.children), { kind });
      else if (node.type === 'blockquote') walk(node.children, 'quote');
      else if (node.type === 'list') addList(node);
      else if (node.type === 'table') addTable(node, kind);
  };
  const addList = (list: List) => {
    list.children.forEach((item, index) => {
      const own = item.children.filter((node) => node.type !== 'list');
      const number = list.ordered ? { number: (list.start ?? 1) + index } : {};
      reading.add(own.map((node) => wordsOf([node])).join(' '), { kind: 'listItem', ...number });
      walk(
        item.children.filter((node) => node.type === 'list'),
        'paragraph',
      );
    });
  };
  const addTable = (table: Table, kind: 'paragraph' | 'quote') => {
    for (const row of table.children.slice(1))
      reading.add(row.children.map((cell) => wordsOf(cell.children)).join(' · '), { kind });
  };
  walk(root.children, 'paragraph');
  return reading.whole();
}

/** The words of a line, without what marks them. */
function wordsOf(nodes: readonly (Nodes | PhrasingContent)[]): string {
  return nodes
    .map((node) => {
      if (node.type === 'text' || node.type === 'inlineCode') return node.value;
      if (node.type === 'break') return ' ';
      return 'children' in node ? wordsOf(node.children) : '';
    })
    .join('');
}
