import { Readability } from '@mozilla/readability';
import { parseHTML } from 'linkedom';
import { accept, refuse, type Result } from '../refusal';
import { EDIT_MARK } from './apartWords';
import { INLINE, markdownOfPage, reasonFor, type DomElement } from './htmlMarkdown';
import type { LeftOut } from './leftOut';

/** What a page says, as Markdown. */
interface Article {
  title: string;
  markdown: string;
  /** What stands on the page and is no part of its article. */
  leftOut: readonly LeftOut[];
}

/** Elements of a page whose words nobody sees. */
const UNSEEN = 'script,style,noscript,template,iframe,svg,link,meta';
/** Elements that hold the article of a page, where its maker says so. */
const MARKED = 'article,main,[role=main],[itemprop=articleBody]';
/** Share of the words that a reader finds from which what is marked is the article. */
const ENOUGH = 0.7;

/**
 * Takes the article out of an HTML page: its title, its text as Markdown, and everything else on the page as what was left out.
 * Nothing of the page runs. The article is what the page marks as such, else what the reader of browsers (`Readability`) finds, with all that stands between.
 *
 * @returns refused where the page holds no text, or is nested too deeply
 */
export function readArticle(html: string): Result<Article> {
  const isPage = /<html[\s>]/i.test(html);
  const { document } = parseHTML(isPage ? html : `<!doctype html><html><head></head><body>${html}</body></html>`);
  const body = document.body as unknown as DomElement | null;
  if (body && isDeep(body))
    return refuse(
      'tooDeep',
      `The elements of this page stand in one another more than ${DEEPEST} deep, which Bimlo does not read. Save its text as plain text.`,
      'file',
    );
  const named = titlesOf(document as unknown as DomDocument);
  for (const element of document.querySelectorAll(UNSEEN)) element.remove();
  if (!body) return refuse('noText', NO_TEXT, 'file');
  const found = foundIn(body);
  const { markdown, leftOut } = markdownOfPage(body, rootOf(document as unknown as DomDocument, body, found));
  const whole = markdown === '' ? markdownOfPage(body, body) : { markdown, leftOut };
  if (whole.markdown === '') return refuse('noText', NO_TEXT, 'file');
  return accept({ ...whole, title: named ?? found.title });
}

const NO_TEXT = 'There is no text on that page, so nothing was taken from it.';

/** How deep the elements of a page may stand in one another to be read; browsers end at 512. */
const DEEPEST = 400;

/** Whether a page is nested too deeply, found without going into it by recursion. */
function isDeep(root: DomElement): boolean {
  let level = [root];
  for (let depth = 0; level.length > 0; depth++) {
    if (depth > DEEPEST) return true;
    level = level.flatMap((node) => [...node.childNodes]);
  }
  return false;
}

/** What is used of a document. */
interface DomDocument {
  querySelector: (selector: string) => DomElement | null;
  querySelectorAll: (selector: string) => Iterable<DomElement>;
}

const tidy = (text: string | null | undefined): string => (text ?? '').replace(/\s+/g, ' ').trim();

/** The title of a page: its first heading where the title in its head holds it, so that the name of its site is left off. */
function titlesOf(document: DomDocument): string | null {
  const own = tidy(document.querySelector('title')?.textContent);
  const [heading = ''] = [...document.querySelectorAll('h1')]
    .map((one) => tidy(one.textContent).replace(EDIT_MARK, ''))
    .filter(Boolean);
  if (heading !== '' && (own === '' || own.toLowerCase().includes(heading.toLowerCase()))) return heading;
  const shared = tidy(document.querySelector('meta[property="og:title"]')?.getAttribute('content'));
  return shared === '' ? null : shared;
}

const NUMBER = 'data-place';

/** What a reader finds in a page: its title, and which of its elements hold the article. */
interface Found {
  title: string;
  elements: DomElement[];
  words: number;
}

const wordsIn = (text: string | null | undefined): number => (text ?? '').split(/\s+/).filter(Boolean).length;

/** Numbers the elements of a page, lets the reader find its article in a copy, and gives those that came through. */
function foundIn(body: DomElement): Found {
  const elements = [...body.querySelectorAll('*')];
  elements.forEach((element, at) => element.setAttribute(NUMBER, String(at)));
  // The reader changes the document it is given.
  const copy = parseHTML(`<!doctype html>${body.ownerDocument.documentElement.outerHTML}`).document;
  const article = new Readability(copy as never, { keepClasses: false }).parse();
  const kept = article?.content ? parseHTML(`<html><body>${article.content}</body></html>`).document : null;
  const places = [...(kept?.querySelectorAll(`[${NUMBER}]`) ?? [])].map((one) => Number(one.getAttribute(NUMBER)));
  return {
    title: tidy(article?.title),
    elements: places.flatMap((place) => elements[place] ?? []),
    words: wordsIn(article?.textContent),
  };
}

/** The element that holds the article. */
function rootOf(document: DomDocument, body: DomElement, found: Found): DomElement {
  const marked = [...document.querySelectorAll(MARKED)].map((element) => ({
    element,
    words: wordsIn(element.textContent),
  }));
  const able = marked.filter(({ words }) => words > 0 && words >= found.words * ENOUGH);
  const [best] = able.sort((one, other) => one.words - other.words);
  if (best) return best.element;
  const blocks = found.elements.filter(({ nodeName }) => /^(?:P|LI|H[1-6]|BLOCKQUOTE|PRE)$/.test(nodeName));
  return wholeOf(commonOf(blocks) ?? body);
}

/** Words of prose beside a part of a page from which the page goes on there. */
const GOES_ON = 25;

/**
 * The outermost element beside whose part that was found the page goes on: in paragraphs, or in other parts of the same make. A reader
 * that looks for the one best element takes the longest section of a page for all of it.
 */
function wholeOf(found: DomElement): DomElement {
  let [whole, inner] = [found, found];
  for (const parent of ancestorsOf(found)) {
    if (proseBeside(inner, parent) >= GOES_ON) whole = parent;
    if (parent.nodeName === 'BODY') break;
    inner = parent;
  }
  return whole;
}

/** Words of prose in what stands beside an element and is a paragraph, or made as it is. */
function proseBeside(element: DomElement, parent: DomElement): number {
  const make = makeOf(element);
  return [...parent.childNodes]
    .filter((other) => other !== element && other.nodeType === 1 && reasonFor(other, Infinity) === null)
    .reduce((sum, other) => sum + (makeOf(other) === make ? proseIn(other) : wordsOfParagraph(other)), 0);
}

const makeOf = (element: DomElement): string => `${element.nodeName} ${tidy(element.getAttribute('class'))}`;

const proseIn = (element: DomElement): number =>
  [element, ...element.querySelectorAll('p,div,li')].reduce((sum, one) => sum + wordsOfParagraph(one), 0);

/** Words from which what stands in an element itself is a paragraph, whatever its maker calls it. */
const PARAGRAPH = 8;

/** Words that stand in an element itself and in no link; 0 where they are no paragraph. */
function wordsOfParagraph(element: DomElement): number {
  const own = [...element.childNodes].filter(({ nodeName }) => INLINE.has(nodeName) && nodeName !== 'A');
  const words = own.reduce((sum, { textContent }) => sum + wordsIn(textContent), 0);
  return words < PARAGRAPH ? 0 : words;
}

/** The innermost element that holds all of some; null for none. */
function commonOf(elements: readonly DomElement[]): DomElement | null {
  const [first, ...others] = elements.map(ancestorsOf);
  if (!first) return null;
  const sets = others.map((own) => new Set(own));
  return first.find((element) => sets.every((own) => own.has(element))) ?? null;
}

/** The elements that an element stands in, from within. */
function ancestorsOf(element: DomElement): DomElement[] {
  const all: DomElement[] = [];
  for (let parent = element.parentElement; parent; parent = parent.parentElement) all.push(parent);
  return all;
}
