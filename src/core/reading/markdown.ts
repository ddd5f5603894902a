import type { Nodes, Parents, Root } from 'mdast';
import { fromMarkdown } from 'mdast-util-from-markdown';
import { gfmStrikethroughFromMarkdown } from 'mdast-util-gfm-strikethrough';
import { gfmTableFromMarkdown } from 'mdast-util-gfm-table';
import { gfmTaskListItemFromMarkdown } from 'mdast-util-gfm-task-list-item';
import { gfmStrikethrough } from 'micromark-extension-gfm-strikethrough';
import { gfmTable } from 'micromark-extension-gfm-table';
import { gfmTaskListItem } from 'micromark-extension-gfm-task-list-item';

/** How deep quotations, lists and emphasis may stand in one another to be read. */
export const DEEPEST = 100;

const OPTIONS = {
  extensions: [gfmTable(), gfmStrikethrough(), gfmTaskListItem()],
  mdastExtensions: [gfmTableFromMarkdown(), gfmStrikethroughFromMarkdown(), gfmTaskListItemFromMarkdown()],
};

/**
 * Parses Markdown (CommonMark, with tables, struck out words and lists to tick) into a tree with positions.
 *
 * @returns null for what is nested deeper than `DEEPEST`
 */
export function parseMarkdown(source: string): Root | null {
  if (deepestLine(source) > DEEPEST) return null;
  const root = fromMarkdown(source, OPTIONS);
  return isDeep(root) ? null : root;
}

const isParent = (node: Nodes): node is Parents => 'children' in node;

/** Whether a tree is nested too deeply, found without going into it by recursion. */
function isDeep(root: Root): boolean {
  // A list holds items, which hold paragraphs: three levels of the tree for one that is seen.
  const limit = DEEPEST * 3;
  let level: Nodes[] = [root];
  for (let depth = 0; level.length > 0; depth++) {
    if (depth > limit) return true;
    level = level.flatMap((node) => (isParent(node) ? (node.children as Nodes[]) : []));
  }
  return false;
}

const DIGIT = /\d/;

/** The most marks of quotations and lists that stand in a row at the beginning of a line: the parser's time grows with their square. */
function deepestLine(source: string): number {
  let deepest = 0;
  let at = 0;
  while (at < source.length) {
    let marks = 0;
    for (; at < source.length; at++) {
      const char = source[at]!;
      if (char === ' ' || char === '\t') continue;
      if (char === '>') marks++;
      else if ('-+*'.includes(char) && isBlank(source[at + 1])) marks++;
      else if (DIGIT.test(char)) {
        let end = at;
        while (end - at < 10 && DIGIT.test(source[end] ?? '')) end++;
        if (!'.)'.includes(source[end] ?? 'x') || !isBlank(source[end + 1])) break;
        marks++;
        at = end;
      } else break;
    }
    deepest = Math.max(deepest, marks);
    const next = source.indexOf('\n', at);
    if (next < 0) break;
    at = next + 1;
  }
  return deepest;
}

const isBlank = (char: string | undefined): boolean =>
  char === ' ' || char === '\t' || char === '\n' || char === undefined;

/** What is parsed at once, without a thread: so long a text, so many lines, and so many marks in one stretch without a blank line. */
const QUICK = { characters: 60_000, lines: 3_000, marks: 400, indent: 40, deepest: 15 } as const;
const MARKS = new Set('*_[]()<>`~|#=&\\!');

/**
 * Whether a text is parsed within some ten milliseconds, told from its length and marks alone. What is quick is never nested too
 * deeply: its lines are indented too little, and its stretches have too few marks.
 */
export function isQuick(source: string): boolean {
  if (source.length > QUICK.characters) return false;
  let [lines, marks, indent] = [0, 0, 0];
  for (let at = 0; at < source.length; at++) {
    const char = source[at]!;
    if (indent >= 0) indent = char === ' ' ? indent + 1 : char === '\t' ? indent + 4 : -1;
    if (indent > QUICK.indent) return false;
    if (char === '\n') {
      indent = 0;
      if (++lines > QUICK.lines) return false;
      if (source[at + 1] === '\n') marks = 0;
    } else if (MARKS.has(char) && ++marks > QUICK.marks) return false;
  }
  return deepestLine(source) <= QUICK.deepest;
}
