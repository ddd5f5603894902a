import type { ScoredSentence } from '../../extracts/analyse';
import type { Block } from '../../reading/readingText';
import type { DraftOrder, DraftSource } from '../draft';
import { withoutNumber } from '../../text/headings';
import { asMarkdown, type Body } from '../form';
import { fitsRich, richBody } from '../richBody';
import { asWritten, type Paragraph, type Said } from '../saying';
import type { DraftedCaption } from './caption';

/** Words from which a piece is an article. */
const LEAST_WORDS = 120;
/** Letters from which a sentence has no marks that end it. */
const ENDLESS = 600;
/** Share of the letters of a text in paragraphs that end with a mark, and in sentences that end somewhere, from which it is marked. */
const MARKED = { paragraphs: 0.5, sentences: 0.8 } as const;

/** What is no part of an article, though a piece is full of it. */
const NO_PART = ['housekeeping', 'foreign', 'link'] as const;

/** A paragraph of an article as it stands in the piece. */
interface Own {
  block: Block;
  paragraph: Paragraph;
  worth: number;
}

/**
 * An article: the piece's own sections and paragraphs in their order, without what is about the room or in another language; shortened, where it is too long,
 * by leaving out whole paragraphs, those first that say least.
 *
 * @returns null for a piece that is too short, or has no sentences that are marked as such
 */
export function articleOf(source: DraftSource, order: DraftOrder, caption: DraftedCaption): Body | null {
  const own = paragraphsOf(source);
  const text = own.flatMap(({ paragraph }) => paragraph.map((one) => one.text)).join(' ');
  if (text.split(/\s+/).length < LEAST_WORDS || !isMarked(own)) return null;
  let kept = own;
  while (kept.length > 1 && !fitsRich(lined(kept), order, caption.link)) kept = withoutLeast(kept);
  return richBody(lined(kept), order, caption.link);
}

/** Whether most of what is said in paragraphs has the marks of sentences. */
function isMarked(own: readonly Own[]): boolean {
  const said = own.filter(({ block }) => block.kind !== 'heading').map(({ paragraph }) => paragraph);
  const lettersOf = (sentences: Paragraph) => sentences.reduce((sum, { text }) => sum + text.length, 0);
  const all = lettersOf(said.flat());
  const ending = said.filter((sentences) => /[.!?。！？]["”’»)]*$/u.test(sentences.at(-1)!.text));
  const ended = said.flat().filter(({ text }) => text.length <= ENDLESS);
  return lettersOf(ending.flat()) >= all * MARKED.paragraphs && lettersOf(ended) >= all * MARKED.sentences;
}

function paragraphsOf(source: DraftSource): Own[] {
  const { blocks, sentences, text } = source.analysis;
  return blocks.flatMap((block, at): Own[] => {
    if (block.kind === 'heading') {
      const isTitle = (block.level ?? 1) === 1;
      const heading = asMarkdown(withoutNumber(text.slice(block.start, block.end)));
      return isTitle ? [] : [{ block, paragraph: [{ text: `## ${heading}`, origin: 'piece' }], worth: 0 }];
    }
    const isIn = ({ block: place, traits }: ScoredSentence) =>
      place === at && !NO_PART.some((trait) => traits.has(trait));
    const own = sentences.filter(isIn);
    if (own.length === 0 || leadsNowhere(source, at)) return [];
    const worth = own.reduce((sum, { score }) => sum + score, 0) / own.length;
    return [{ block, paragraph: own.map((sentence, place) => marked(source, block, sentence, place)), worth }];
  });
}

/** Whether a paragraph leads to what was no words: a picture, code, a table. */
function leadsNowhere({ analysis: { blocks, text } }: DraftSource, at: number): boolean {
  const { start, end, kind } = blocks[at]!;
  const next = blocks[at + 1]?.kind;
  return kind === 'paragraph' && /:["”’»)]*$/u.test(text.slice(start, end)) && next !== 'listItem' && next !== 'quote';
}

function marked(
  source: DraftSource,
  block: Block,
  { start, end }: { start: number; end: number },
  place: number,
): Said {
  const one = asWritten(source, { start, end });
  const words = place === 0 ? asMarkdown(one.text) : one.text.replace(/([*`])/g, '\\$1');
  const mark =
    place > 0
      ? ''
      : block.kind === 'quote'
        ? '> '
        : block.kind === 'listItem'
          ? block.number === undefined
            ? '- '
            : `${block.number}. `
          : block.speaker === undefined
            ? ''
            : `**${asMarkdown(block.speaker)}:** `;
  return { ...one, text: mark + words };
}

/** Without headings that nothing stands below. */
const lined = (own: readonly Own[]): Paragraph[] =>
  own
    .filter(
      ({ block }, at) =>
        block.kind !== 'heading' || (own[at + 1] !== undefined && own[at + 1]!.block.kind !== 'heading'),
    )
    .map(({ paragraph }) => paragraph);

/** Without the paragraph that says least, the first one aside. */
function withoutLeast(own: readonly Own[]): Own[] {
  const words = own.filter(({ block }) => block.kind !== 'heading').slice(1);
  const [least] = [...words].sort((one, other) => one.worth - other.worth);
  return least ? own.filter((one) => one !== least) : own.slice(0, -1);
}
