import { marked, type Token, type Tokens } from 'marked';
import { cleanText } from '../text/clean';

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
}

/**
 * Reads Markdown (CommonMark; plain text is Markdown without marks) as a person reads it: headings, paragraphs, items of lists
 * and quotations in their order, emphasis and links as their words, without code, pictures and HTML.
 *
 * @example readMarkdown('# Rings\n\nThey **vanish**.').text // 'Rings\n\nThey vanish.'
 */
export function readMarkdown(source: string): ReadingText {
  const text: string[] = [];
  const blocks: Block[] = [];
  let at = 0;
  const add = (words: string, block: Omit<Block, 'start' | 'end'>) => {
    const tidy = words
      .replace(/[^\S\n]*\n[^\S\n]*/g, ' ')
      .replace(/[^\S\n]{2,}/g, ' ')
      .trim();
    if (tidy === '') return;
    if (at > 0) at += text.push('\n\n') && 2;
    blocks.push({ ...block, start: at, end: at + tidy.length });
    text.push(tidy);
    at += tidy.length;
  };
  const walk = (tokens: readonly Token[], kind: 'paragraph' | 'quote') => {
    for (const token of tokens)
      if (token.type === 'heading')
        add(wordsOf(token.tokens), { kind: 'heading', level: (token as Tokens.Heading).depth });
      else if (token.type === 'paragraph' || token.type === 'text') add(wordsOf(token.tokens ?? [token]), { kind });
      else if (token.type === 'blockquote') walk(token.tokens ?? [], 'quote');
      else if (token.type === 'list') addList(token as Tokens.List);
      else if (token.type === 'table')
        for (const row of (token as Tokens.Table).rows)
          add(row.map(({ tokens }) => wordsOf(tokens)).join(' · '), { kind });
  };
  const addList = (list: Tokens.List) => {
    list.items.forEach((item, index) => {
      const inline = item.tokens.filter((token) => token.type !== 'list');
      const number = list.ordered ? { number: Number(list.start || 1) + index } : {};
      add(wordsOf(inline), { kind: 'listItem', ...number });
      walk(
        item.tokens.filter((token) => token.type === 'list'),
        'paragraph',
      );
    });
  };
  walk(marked.lexer(cleanText(source).replace(/^---\n[^]*?\n---\n/, '')), 'paragraph');
  const [first] = blocks;
  const whole = text.join('');
  const title = first?.kind === 'heading' && first.level === 1 ? whole.slice(first.start, first.end) : null;
  return { text: whole, blocks, title };
}

/** The words of a line, without what marks them. */
function wordsOf(tokens: readonly Token[] | undefined): string {
  return (tokens ?? [])
    .map((token) => {
      if (token.type === 'image' || token.type === 'html' || token.type === 'checkbox') return '';
      if (token.type === 'br') return '\n';
      if ('tokens' in token && token.tokens) return wordsOf(token.tokens);
      return plain('text' in token ? String(token.text) : token.raw);
    })
    .join('');
}

/** The lexer leaves the references of HTML in texts as they were written. */
const NAMED: Record<string, string> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'", nbsp: '\u00a0' };
const plain = (text: string): string =>
  text.replace(/&(?:#(\d{1,7})|#x([\da-f]{1,6})|([a-z]+));/gi, (whole, decimal, hex, name) => {
    if (name) return NAMED[String(name).toLowerCase()] ?? whole;
    const code = decimal ? Number(decimal) : parseInt(String(hex), 16);
    return code > 0 && code <= 0x10ffff && !(code >= 0xd800 && code <= 0xdfff) ? String.fromCodePoint(code) : whole;
  });

/** The sections of a reading text: what stands below each heading, with the stretch before the first under none. */
export function sectionsOf({ text, blocks }: ReadingText): { heading: string; blocks: Block[] }[] {
  const sections: { heading: string; blocks: Block[] }[] = [];
  for (const block of blocks)
    if (block.kind === 'heading') sections.push({ heading: text.slice(block.start, block.end), blocks: [] });
    else {
      if (sections.length === 0) sections.push({ heading: '', blocks: [] });
      sections.at(-1)!.blocks.push(block);
    }
  return sections.filter(({ heading, blocks: own }) => heading !== '' || own.length > 0);
}
