import type { JSONContent } from '@tiptap/core';
import type { BlockContent, DefinitionContent, List, ListItem, Nodes, PhrasingContent, RootContent } from 'mdast';
import { parseMarkdown } from '@/core/reading/markdown';

type Marks = NonNullable<JSONContent['marks']>;

/**
 * A text of Markdown as the editor takes it. What the editor has no form for (pictures, tables, HTML) stays in it as it is written,
 * so that nothing is lost by opening a text.
 *
 * @returns null for what is nested too deeply
 */
export function richDoc(markdown: string): JSONContent | null {
  const root = parseMarkdown(markdown);
  if (!root) return null;
  const written = (node: Nodes): string =>
    markdown.slice(node.position?.start.offset ?? 0, node.position?.end.offset ?? 0);

  const inline = (nodes: readonly PhrasingContent[], marks: Marks = []): JSONContent[] =>
    nodes.flatMap((node): JSONContent[] => {
      const marked = (type: string, attrs?: Record<string, unknown>) => [...marks, attrs ? { type, attrs } : { type }];
      switch (node.type) {
        case 'text':
          return words(node.value, marks);
        case 'strong':
          return inline(node.children, marked('bold'));
        case 'emphasis':
          return inline(node.children, marked('italic'));
        case 'delete':
          return inline(node.children, marked('strike'));
        case 'link':
          return inline(node.children, marked('link', { href: node.url }));
        case 'inlineCode':
          return words(node.value, [{ type: 'code' }]);
        case 'break':
          return [{ type: 'hardBreak' }];
        default:
          return words(written(node), marks);
      }
    });

  const blocks = (nodes: readonly (RootContent | BlockContent | DefinitionContent)[]): JSONContent[] =>
    nodes.map((node): JSONContent => {
      switch (node.type) {
        case 'paragraph':
          return paragraph(inline(node.children));
        case 'heading':
          return { type: 'heading', attrs: { level: node.depth }, content: inline(node.children) };
        case 'blockquote':
          return { type: 'blockquote', content: filled(blocks(node.children)) };
        case 'list':
          return list(node);
        case 'code':
          return { type: 'codeBlock', attrs: { language: node.lang ?? null }, content: words(node.value, []) };
        case 'thematicBreak':
          return { type: 'horizontalRule' };
        default:
          return paragraph(words(written(node), []));
      }
    });

  const list = (node: List): JSONContent => ({
    type: node.ordered ? 'orderedList' : 'bulletList',
    ...(node.ordered && { attrs: { start: node.start ?? 1 } }),
    content: node.children.map((item) => ({ type: 'listItem', content: beginning(item) })),
  });

  const beginning = (item: ListItem): JSONContent[] => {
    const content = blocks(item.children);
    const tick = item.checked == null ? [] : words(item.checked ? '[x] ' : '[ ] ', []);
    if (content[0]?.type !== 'paragraph') return [paragraph(tick), ...content];
    return [paragraph([...tick, ...(content[0].content ?? [])]), ...content.slice(1)];
  };

  return { type: 'doc', content: filled(blocks(root.children)) };
}

const words = (text: string, marks: Marks): JSONContent[] =>
  text === '' ? [] : [{ type: 'text', text, ...(marks.length > 0 && { marks }) }];

const paragraph = (content: JSONContent[]): JSONContent => ({ type: 'paragraph', content });

/** At least an empty paragraph, as a document or a quotation needs. */
const filled = (content: JSONContent[]): JSONContent[] => (content.length > 0 ? content : [paragraph([])]);
