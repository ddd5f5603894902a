import { Readability } from '@mozilla/readability';
import { parseHTML } from 'linkedom';
import { accept, refuse, type Result } from '../refusal';

/** What a page says, as Markdown. */
interface Article {
  title: string;
  markdown: string;
}

const HEADING = /^H([1-6])$/;
const TEXT_NODE = 3;

/**
 * Takes the article out of an HTML page: its title, and its text as Markdown. Nothing of the page runs; scripts, styles and
 * forms are dropped before it is read.
 *
 * @returns refused where the page holds no text, or is nested too deeply
 */
export function readArticle(html: string): Result<Article> {
  const isPage = /<html[\s>]/i.test(html);
  const { document } = parseHTML(isPage ? html : `<!doctype html><html><head></head><body>${html}</body></html>`);
  if (document.body && isDeep(document.body as unknown as DomNode))
    return refuse(
      'tooDeep',
      `The elements of this page stand in one another more than ${DEEPEST} deep, which Bimlo does not read. Save its text as plain text.`,
      'file',
    );
  for (const element of document.querySelectorAll('script,style,noscript,template,iframe,form,svg')) element.remove();
  const ownTitle = tidy(document.querySelector('title')?.textContent ?? '');
  const whole = document.body ? markdownOf(document.body as unknown as DomNode) : '';
  // The reader changes the document it is given.
  const article = document.body ? new Readability(document as never, { keepClasses: false }).parse() : null;
  const content = article?.content
    ? markdownOf(parseHTML(`<html><body>${article.content}</body></html>`).document.body as unknown as DomNode)
    : '';
  const markdown = content === '' ? whole : content;
  if (markdown === '') return refuse('noText', 'There is no text on that page, so nothing was taken from it.', 'file');
  return accept({ title: tidy(article?.title ?? '') || ownTitle, markdown });
}

/** How deep the elements of a page may stand in one another to be read; browsers end at 512. */
const DEEPEST = 400;

/** Whether a page is nested too deeply, found without going into it by recursion. */
function isDeep(root: DomNode): boolean {
  let level = [root];
  for (let depth = 0; level.length > 0; depth++) {
    if (depth > DEEPEST) return true;
    level = level.flatMap((node) => [...node.childNodes]);
  }
  return false;
}

/** What is used of a node of a document. */
interface DomNode {
  nodeType: number;
  nodeName: string;
  textContent: string | null;
  childNodes: Iterable<DomNode>;
}

const tidy = (text: string): string => text.replace(/\s+/g, ' ').trim();

/** Marks of Markdown in a text are words there, not marks. */
const escaped = (text: string): string =>
  text.replace(/([\\`*_[\]<])/g, '\\$1').replace(/^(\s*)([#>+-]|\d+[.)])(?=\s)/, '$1\\$2');

const INLINE = new Set(
  'A ABBR B BDI BDO BR CITE CODE DATA DFN EM I KBD LABEL MARK Q S SAMP SMALL SPAN STRONG SUB SUP TIME U VAR WBR #text'.split(
    ' ',
  ),
);

function markdownOf(root: DomNode): string {
  const blocks: string[] = [];
  let line = '';
  const end = (mark = '') => {
    const words = tidy(line);
    line = '';
    if (words !== '') blocks.push(`${mark}${escaped(words)}`);
  };
  const walk = (node: DomNode, mark: string) => {
    let number = 0;
    for (const child of node.childNodes) {
      if (child.nodeType === TEXT_NODE) line += child.textContent ?? '';
      else if (child.nodeName === 'BR') line += ' ';
      else if (INLINE.has(child.nodeName)) walk(child, mark);
      else if (child.nodeType === 1) {
        end(mark);
        number++;
        const heading = HEADING.exec(child.nodeName);
        const own = heading
          ? `${'#'.repeat(Number(heading[1]))} `
          : child.nodeName === 'LI'
            ? node.nodeName === 'OL'
              ? `${number}. `
              : '- '
            : child.nodeName === 'BLOCKQUOTE'
              ? '> '
              : child.nodeName === 'P' || child.nodeName === 'DIV'
                ? mark
                : '';
        walk(child, own);
        end(own);
      }
    }
  };
  walk(root, '');
  end();
  return joined(blocks);
}

/** Items of one list stand on neighbouring lines, so that it is one list. */
const joined = (blocks: readonly string[]): string =>
  blocks.reduce((text, block, index) => {
    const isItem = /^(?:- |\d+\. )/;
    const gap = index === 0 ? '' : isItem.test(block) && isItem.test(blocks[index - 1]!) ? '\n' : '\n\n';
    return `${text}${gap}${block}`;
  }, '');
