import { closedUp, GONE } from './closedUp';
import type { LeftOut, LeftOutReason } from './leftOut';

/** What is used of an element of a document. */
export interface DomElement {
  nodeType: number;
  nodeName: string;
  textContent: string | null;
  childNodes: Iterable<DomElement>;
  parentElement: DomElement | null;
  ownerDocument: { documentElement: { outerHTML: string } };
  getAttribute: (name: string) => string | null;
  setAttribute: (name: string, value: string) => void;
  querySelectorAll: (selector: string) => Iterable<DomElement>;
  querySelector: (selector: string) => DomElement | null;
}

const [ELEMENT, TEXT] = [1, 3];
const HEADING = /^H([1-6])$/;
/** What stands in a line of text, by the names of nodes. */
export const INLINE = new Set(
  'A ABBR ACRONYM B BDI BDO BIG BR CITE CODE DATA DEL DFN EM FONT I INS KBD LABEL MARK NOBR OUTPUT Q RB RT RUBY S SAMP SMALL SPAN STRIKE STRONG SUB SUP TIME TT U VAR WBR IMG #text'.split(
    ' ',
  ),
);

const tidy = (text: string | null): string => (text ?? '').replace(/\s+/g, ' ').trim();

/** Marks of Markdown in a text are words there, not marks; an address stays to the letter. */
const escaped = (text: string): string =>
  text
    .split(/(\bhttps?:\/\/[^\s<>]+)/)
    .map((part, at) =>
      at % 2 === 1
        ? part
        : part.replace(/([\\`*[\]<~])|(?<![\p{L}\p{N}])_|_(?![\p{L}\p{N}])/gu, '\\$&').replace(/&(?=#?\w+;)/g, '\\&'),
    )
    .join('')
    .replace(/^(\s*\d*)([#>+.)-])(?=\s)/, '$1\\$2');

/** Names by which pages call what stands around their text. */
const AROUND =
  /\b(?:share|sharing|social|related|recommend(?:ed|ations)?|newsletter|subscribe|signup|comments?|breadcrumbs?|cookies?|promo|advert(?:isement)?s?|sponsored|sidebar|skip-?link|pagination|pager|toolbar|footer|site-?(?:header|nav)|menu|categories)\b/i;
const AROUND_TAGS = new Set('NAV ASIDE FOOTER FORM BUTTON SELECT DIALOG MENU INPUT TEXTAREA'.split(' '));
const AROUND_ROLES = new Set('navigation banner contentinfo search complementary dialog alert note'.split(' '));
/** Share of an article's letters from which a part of it is no part around it, whatever it is called. */
const MUCH = 0.4;

const namesOf = (element: DomElement): string =>
  `${element.getAttribute('class') ?? ''} ${element.getAttribute('id') ?? ''}`;

/**
 * Why an element of an article is no part of it; null where it is.
 *
 * @param letters of the whole article: much of it is no part around it; `Infinity` where only what an element is called counts
 */
export function reasonFor(element: DomElement, letters: number): LeftOutReason | null {
  const { nodeName } = element;
  const names = namesOf(element);
  if (nodeName === 'FIGCAPTION' || nodeName === 'CAPTION' || /\b(?:(?:photo|image|picture)-?)?caption\b/i.test(names))
    return 'caption';
  if (/\binfobox\b|\bfactbox\b|\bfact-box\b/i.test(names)) return 'facts';
  if (/\bedit-?(?:section|link)\b/i.test(names)) return 'editMark';
  if (/\b(?:references|footnotes|endnotes)\b/i.test(names) || element.getAttribute('role') === 'doc-endnotes')
    return 'reference';
  if (nodeName === 'SUP' && (/\breference\b|\bfootnote/i.test(names) || isMarkOfNote(element))) return 'referenceMark';
  if (/\b(?:toc|table-of-contents)\b/i.test(names) || isListOfPlaces(element)) return 'contents';
  const isAround =
    AROUND_TAGS.has(nodeName) ||
    AROUND_ROLES.has(element.getAttribute('role') ?? '') ||
    isHidden(element) ||
    (!INLINE.has(nodeName) && AROUND.test(names));
  return isAround && tidy(element.textContent).length < letters * MUCH ? 'navigation' : null;
}

const isMarkOfNote = (element: DomElement): boolean =>
  /^\[?[\d\p{L}*†‡]{1,3}\]?$/u.test(tidy(element.textContent)) &&
  /^#/.test(element.querySelector('a')?.getAttribute('href') ?? '');

const isHidden = (element: DomElement): boolean =>
  element.getAttribute('hidden') !== null ||
  element.getAttribute('aria-hidden') === 'true' ||
  /display\s*:\s*none/i.test(element.getAttribute('style') ?? '');

/** A list of links to places of the same page, and nothing else. */
function isListOfPlaces(element: DomElement): boolean {
  if (element.nodeName !== 'UL' && element.nodeName !== 'OL') return false;
  const links = [...element.querySelectorAll('a')];
  if (links.length < 3 || !links.every((link) => /^#./.test(link.getAttribute('href') ?? ''))) return false;
  const letters = links.reduce((sum, link) => sum + tidy(link.textContent).length, 0);
  return letters >= tidy(element.textContent).length * 0.8;
}

/** A page as Markdown: what stands in its article, and all else as what is left out. */
export function markdownOfPage(body: DomElement, root: DomElement): { markdown: string; leftOut: LeftOut[] } {
  const page = new Page(tidy(root.textContent).length);
  page.around(body, root);
  page.walk(root, '');
  page.end();
  page.endTerm();
  return { markdown: joined(page.blocks), leftOut: page.leftOut };
}

/** A page as it is gone through. */
class Page {
  readonly blocks: string[] = [];
  readonly leftOut: LeftOut[] = [];
  private line = '';
  /** The term of a list of definitions whose definition comes next. */
  private term = '';

  constructor(private readonly letters: number) {}

  /** Ends the line that is open. */
  end(mark = ''): void {
    const words = closedUp(tidy(this.line));
    this.line = '';
    if (words === '') return;
    const term = this.term === '' ? '' : `${this.term}: `;
    this.term = '';
    this.blocks.push(`${mark}${escaped(term + words)}`);
  }

  walk(node: DomElement, mark: string): void {
    let number = 0;
    for (const child of node.childNodes) {
      if (child.nodeType === TEXT) this.line += child.textContent ?? '';
      else if (child.nodeName === 'BR') this.line += ' ';
      else if (child.nodeName === 'IMG') this.leave('picture', child.getAttribute('alt') ?? '');
      else if (child.nodeType === ELEMENT) {
        const reason = reasonFor(child, this.letters);
        if (reason) {
          this.leave(reason, linesOf(child));
          if (reason === 'referenceMark') this.line += GONE;
        } else if (INLINE.has(child.nodeName)) this.walk(child, mark);
        else {
          this.end(mark);
          if (child.nodeName === 'LI') number++;
          this.block(child, node, mark, number);
        }
      }
    }
  }

  /** What stands outside of the article, the outermost elements each as one stretch. */
  around(node: DomElement, root: DomElement): void {
    if (node === root) return;
    const holds = new Set<DomElement>();
    for (let parent: DomElement | null = root; parent; parent = parent.parentElement) holds.add(parent);
    let own = '';
    for (const child of node.childNodes)
      if (holds.has(child)) this.around(child, root);
      else if (child.nodeType === TEXT) own += child.textContent ?? '';
      else if (child.nodeType === ELEMENT) this.leave('navigation', linesOf(child));
    this.leave('navigation', tidy(own));
  }

  private leave(reason: LeftOutReason, text: string): void {
    if (/[\p{L}\p{N}]/u.test(text)) this.leftOut.push({ reason, text });
  }

  private block(element: DomElement, parent: DomElement, mark: string, number: number): void {
    const { nodeName } = element;
    if (nodeName === 'PRE') return this.code(element);
    if (nodeName === 'TABLE' && !isForLayout(element)) return this.table(element);
    if (nodeName === 'DT') return this.defined(element);
    const own = markOf(element, parent, mark, number);
    this.walk(element, own);
    this.end(own);
    if (nodeName === 'DL') this.endTerm();
  }

  /** Keeps a term for the definition behind it; several may share one. */
  private defined(element: DomElement): void {
    this.walk(element, '');
    const own = closedUp(tidy(this.line)).replace(/:$/, '');
    this.line = '';
    this.term = [this.term, own].filter(Boolean).join(', ');
  }

  /** A term that nothing defines is a line of its own. */
  endTerm(): void {
    if (this.term !== '') this.blocks.push(`- ${escaped(this.term)}`);
    this.term = '';
  }

  private code(element: DomElement): void {
    const text = (element.textContent ?? '').replace(/^\n+/, '').trimEnd();
    if (text === '') return;
    const longest = Math.max(2, ...(text.match(/`{3,}/g) ?? []).map(({ length }) => length));
    const fence = '`'.repeat(longest + 1);
    this.blocks.push(`${fence}\n${text}\n${fence}`);
  }

  private table(element: DomElement): void {
    const rows = [...element.querySelectorAll('tr')].map((row) =>
      [...row.childNodes]
        .filter(({ nodeName }) => nodeName === 'TD' || nodeName === 'TH')
        .map((cell) => escaped(tidy(cell.textContent)).replaceAll('|', '\\|')),
    );
    const width = rows.reduce((most, { length }) => Math.max(most, length), 0);
    if (width === 0) return;
    const line = (cells: readonly string[]) =>
      `| ${Array.from({ length: width }, (_, at) => cells[at] ?? '').join(' | ')} |`;
    const [head = [], ...others] = rows;
    this.blocks.push([line(head), `|${' --- |'.repeat(width)}`, ...others.map(line)].join('\n'));
    for (const caption of element.querySelectorAll('caption')) this.leave('caption', tidy(caption.textContent));
  }
}

/** What stands before the words of a block; @param mark of the block it stands in, @param number of an item in its list */
function markOf({ nodeName }: DomElement, parent: DomElement, mark: string, number: number): string {
  const heading = HEADING.exec(nodeName);
  if (heading) return `${'#'.repeat(Number(heading[1]))} `;
  if (nodeName === 'LI') return parent.nodeName === 'OL' ? `${number}. ` : '- ';
  if (nodeName === 'DD') return '- ';
  if (nodeName === 'BLOCKQUOTE') return '> ';
  return nodeName === 'P' || nodeName === 'DIV' ? mark : '';
}

/** A table that sets a page: one column, or paragraphs in its cells. */
const isForLayout = (table: DomElement): boolean =>
  table.getAttribute('role') === 'presentation' ||
  [...table.querySelectorAll('tr')].every(
    (row) => [...row.childNodes].filter(({ nodeName }) => nodeName === 'TD' || nodeName === 'TH').length < 2,
  ) ||
  [...table.querySelectorAll('td')].some((cell) => [...cell.querySelectorAll('p')].length > 2);

/** The words of an element, a line for each of its blocks. */
function linesOf(element: DomElement): string {
  const lines: string[] = [];
  let line = '';
  const end = () => {
    const words = tidy(line);
    line = '';
    if (words !== '') lines.push(words);
  };
  const walk = (node: DomElement) => {
    for (const child of node.childNodes)
      if (child.nodeType === TEXT) line += child.textContent ?? '';
      else if (child.nodeName === 'BR') line += ' ';
      else if (child.nodeType === ELEMENT) {
        const isBlock = !INLINE.has(child.nodeName);
        if (isBlock) end();
        walk(child);
        if (isBlock) end();
      }
  };
  walk(element);
  end();
  return lines.join('\n');
}

/** Items of one list stand on neighbouring lines, so that it is one list. */
const joined = (blocks: readonly string[]): string =>
  blocks.reduce((text, block, index) => {
    const isItem = /^(?:- |\d+\. )/;
    const gap = index === 0 ? '' : isItem.test(block) && isItem.test(blocks[index - 1]!) ? '\n' : '\n\n';
    return `${text}${gap}${block}`;
  }, '');
