import type { Link, LinkReference, List, ListItem, Nodes, PhrasingContent, Root, RootContent, Table } from 'mdast';
import { looksLikeCode } from './code';
import type { LeftOut } from './leftOut';
import { onOneLine, type RawBlock } from './rawBlock';

/**
 * The stretches of Markdown in their order: headings, paragraphs, items of lists and quotations as their words; code, tables,
 * addresses of links, descriptions of pictures and HTML as what is left out. Code by its indent alone that reads as prose is a
 * paragraph: many people indent.
 *
 * @param source the text that the tree was parsed from
 */
export function markdownBlocks(root: Root, source: string): RawBlock[] {
  const blocks: RawBlock[] = [];
  const add = (nodes: readonly (Nodes | PhrasingContent)[], block: Omit<RawBlock, 'text'>) => {
    const marks: LeftOut[] = [];
    const text = onOneLine(wordsOf(nodes, source, marks));
    if (text !== '' || marks.length > 0) blocks.push({ ...block, text, ...(marks.length > 0 && { marks }) });
  };
  const walk = (nodes: readonly RootContent[], kind: 'paragraph' | 'quote') => {
    for (const node of nodes) {
      if (node.type === 'heading') add(node.children, { kind: 'heading', level: node.depth });
      else if (node.type === 'paragraph') add(node.children, { kind });
      else if (node.type === 'blockquote') walk(node.children, 'quote');
      else if (node.type === 'list') addList(node, kind);
      else if (node.type === 'table') addTable(node);
      else if (node.type === 'code') addCode(sliceOf(node, source));
      else if (node.type === 'html') blocks.push({ kind, reason: 'fileNote', text: sliceOf(node, source) });
      else if (node.type === 'definition') blocks.push({ kind, reason: 'address', text: sliceOf(node, source) });
    }
  };
  const addCode = (slice: string) => {
    const isFenced = /^ {0,3}(?:```|~~~)/.test(slice);
    if (isFenced || looksLikeCode(slice)) blocks.push({ kind: 'paragraph', reason: 'code', text: slice });
    else for (const paragraph of slice.split(/\n\s*\n/)) blocks.push({ kind: 'paragraph', text: onOneLine(paragraph) });
  };
  const addList = (node: List, kind: 'paragraph' | 'quote') => {
    node.children.forEach((item, index) => {
      const { words, rest } = partsOf(item);
      const number = node.ordered ? { number: (node.start ?? 1) + index } : {};
      add(words, { kind: 'listItem', ...number });
      walk(rest, kind);
    });
  };
  const addTable = ({ children }: Table) => {
    const marks: LeftOut[] = [];
    const rows = children.map((row) => row.children.map((cell) => wordsOf(cell.children, source, marks)).join(' · '));
    blocks.push({ kind: 'paragraph', reason: 'table', text: rows.join('\n') });
    for (const mark of marks) blocks.push({ kind: 'paragraph', ...mark });
  };
  walk(root.children, 'paragraph');
  return blocks;
}

/** What an item of a list says, and what stands in it beside. */
function partsOf({ children }: ListItem): { words: Nodes[]; rest: RootContent[] } {
  const isWords = ({ type }: RootContent) => type === 'paragraph' || type === 'heading';
  return { words: children.filter(isWords), rest: children.filter((node) => !isWords(node)) };
}

function sliceOf({ position }: Nodes, source: string): string {
  return source.slice(position?.start.offset ?? 0, position?.end.offset ?? 0);
}

/** The words of a line without what marks them; what is none of them goes to `marks`. Paragraphs of one item are apart by a space. */
function wordsOf(nodes: readonly (Nodes | PhrasingContent)[], source: string, marks: LeftOut[]): string {
  return nodes
    .map((node): string => {
      if (node.type === 'text' || node.type === 'inlineCode') return node.value;
      if (node.type === 'break') return ' ';
      if (node.type === 'image' || node.type === 'imageReference') {
        marks.push({ reason: 'picture', text: sliceOf(node, source) });
        return '';
      }
      if (node.type === 'html') {
        marks.push({ reason: 'fileNote', text: sliceOf(node, source) });
        return '';
      }
      if (!('children' in node)) return '';
      const words = wordsOf(node.children, source, marks);
      if (node.type === 'link' || node.type === 'linkReference') addAddress(node, source, marks);
      return node.type === 'paragraph' || node.type === 'heading' ? `${words} ` : words;
    })
    .join('');
}

/** Where a link leads, as it is written behind its words. */
function addAddress(node: Link | LinkReference, source: string, marks: LeftOut[]): void {
  const from = node.children.at(-1)?.position?.end.offset ?? node.position?.start.offset ?? 0;
  const text = source
    .slice(from, node.position?.end.offset ?? from)
    .replace(/^\]?[([]?/, '')
    .replace(/[)\]>]$/, '');
  if (/[\p{L}\p{N}]/u.test(text)) marks.push({ reason: 'address', text });
}
