import { countPart, partsRule } from '../../posts/parts';
import type { PartsRule } from '../../rulesheets/types';
import type { DraftOrder, DraftSource } from '../draft';
import type { Body } from '../form';
import { onlyCounts } from '../../extracts/extracts';
import { overlapOf } from '../../extracts/rank';
import { placesIn, said, sectionsOf, sentencesIn, standing, textOf, type Said } from '../saying';
import { stretchesOf } from '../stretches';
import { titleOfHeading } from '../titles';
import type { DraftedCaption } from './caption';

/** Slides of a carousel with its title, and points of it. */
const SLIDES = { least: 4, most: 9 } as const;
/** Words of a slide, at least. */
const LEAST_WORDS = 4;
/** How much of its words a slide may share with another. */
const SHARED = 0.5;

/** Share of the sentences of a piece that its title names best. */
const BEGINNING = 0.15;

/** Points for slides that belong together, with what they are of. */
interface Points {
  title: Said | null;
  slides: Said[];
  worth: number;
  /** The sentences that a caption may say of the same, by their places: beside the slides, and of them. */
  near: NonNullable<DraftOrder['near']>;
  /** They are of a part of the piece that its title does not name. */
  isApart?: boolean;
}

/** Slides: a title, then 3 to 8 whole sentences of one list, one section or one argument. */
export function carouselOf(source: DraftSource, order: DraftOrder, caption: DraftedCaption): Body | null {
  const rule = partsRule(order.sheet, order.format);
  if (!rule) return null;
  if (source.pictureLines) return withPictures(source.pictureLines, order, rule, caption);
  const fits = fitsSlide(order, rule);
  const best = bestPoints(source, fits, Math.min(SLIDES.most, rule.most) - 1, textOf(caption.paragraphs));
  if (!best) return null;
  const title = best.title ?? (source.title === '' ? null : { text: source.title, origin: 'title' as const });
  const isNamed = best.isApart !== true || best.slides.length < SLIDES.least;
  const hasTitle = title !== null && isNamed && countPart(title.text, order.sheet) <= rule.limit;
  const slides = hasTitle ? [title, ...best.slides] : best.slides;
  return slides.length < SLIDES.least ? null : inSlides(slides, caption);
}

/** The sentences that say something of what the slides of a carousel are about. */
export function nearSlides(source: DraftSource, order: DraftOrder): DraftOrder['near'] {
  const rule = partsRule(order.sheet, order.format);
  if (!rule || source.pictureLines) return undefined;
  return bestPoints(source, fitsSlide(order, rule), Math.min(SLIDES.most, rule.most) - 1, '')?.near;
}

const fitsSlide =
  ({ sheet }: DraftOrder, rule: PartsRule) =>
  (text: string): boolean =>
    countPart(text, sheet) <= rule.limit && text.split(/\s+/).length >= LEAST_WORDS;

/** The best of what slides may be made of, without what is said beside them. */
function bestPoints(source: DraftSource, fits: (text: string) => boolean, most: number, said: string): Points | null {
  return (
    [...listsOf(source, fits), ...sectionPoints(source, fits), ...argumentOf(source, fits)]
      .map((one) => ({ ...one, slides: one.slides.filter(({ text }) => !said.includes(text)).slice(0, most) }))
      .filter(({ slides }) => slides.length >= SLIDES.least - 1)
      .sort((one, other) => other.worth - one.worth)[0] ?? null
  );
}

/** Frames: the sentences of an extract, one each. */
export function storyOf(source: DraftSource, order: DraftOrder, caption: DraftedCaption): Body | null {
  const rule = partsRule(order.sheet, order.format);
  if (!rule) return null;
  if (source.pictureLines) return withPictures(source.pictureLines, order, rule, caption);
  const [extract] = order.from;
  const own = extract
    ? framesOf(source, extract, order, rule)
    : [standingBest(source, (text) => countPart(text, order.sheet) <= rule.limit)].flatMap((one) => one ?? []);
  return own.length === 0 || own.length > rule.most ? null : inSlides(own, caption);
}

function framesOf(
  source: DraftSource,
  extract: { start: number; end: number },
  { sheet }: DraftOrder,
  rule: PartsRule,
): Said[] {
  const places = placesIn(source.analysis, extract);
  const frames = places.map((at, index) => {
    const { start, opensAt = start, end } = source.analysis.sentences[at]!;
    return said(source, { start: index === 0 ? Math.max(opensAt, extract.start) : opensAt, end });
  });
  return frames.every(({ text }) => countPart(text, sheet) <= rule.limit) ? frames : [];
}

function standingBest(source: DraftSource, fits: (text: string) => boolean): Said | null {
  const { sentences } = source.analysis;
  const places = [...sentences.keys()].sort((one, other) => sentences[other]!.score - sentences[one]!.score);
  for (const at of places) {
    const words = standing(source, at, at + 1);
    if (words && fits(words[0]!.text)) return words[0]!;
  }
  return null;
}

/** A slide for each picture, with its line where that fits. */
const withPictures = (
  lines: readonly string[],
  { sheet }: DraftOrder,
  rule: PartsRule,
  caption: DraftedCaption,
): Body =>
  inSlides(
    lines.map((line) => ({ text: countPart(line, sheet) <= rule.limit ? line : '', origin: 'piece' as const })),
    caption,
  );

const inSlides = (slides: readonly Said[], caption: DraftedCaption): Body => ({
  words: { caption: textOf(caption.paragraphs) },
  parts: slides.map(({ text }) => text),
  sentences: [
    ...sentencesIn('caption', caption.paragraphs),
    ...slides.map((slide, part) => ({ field: 'parts' as const, part, ...slide })),
  ],
});

/** The lists of a piece: each item by its first sentences that fit; one of numbered steps only where every step does. */
function listsOf(source: DraftSource, fits: (text: string) => boolean): Points[] {
  const { blocks, sentences } = source.analysis;
  const lists: number[][] = [];
  blocks.forEach((block, at) => {
    if (block.kind !== 'listItem') return;
    const isSame = at > 0 && blocks[at - 1]!.kind === 'listItem' && block.number !== 1;
    if (isSame && lists.length > 0) lists.at(-1)!.push(at);
    else lists.push([at]);
  });
  return lists.flatMap((list): Points[] => {
    const items = list.map((block) =>
      itemOf(
        source,
        sentences.flatMap((one, at) => (one.block === block ? [at] : [])),
        fits,
      ),
    );
    const slides = items.flatMap((item) => item ?? []);
    const isNumbered = blocks[list[0]!]!.number !== undefined;
    if (slides.length < SLIDES.least - 1 || (isNumbered && slides.length < items.length)) return [];
    // What a section says further off is about something else.
    const [above, below] = [list[0]! - 1, list.at(-1)! + 1];
    const beside = sentences.flatMap(({ block }, at) =>
      (block === above || block === below) && blocks[block]!.kind === 'paragraph' ? [at] : [],
    );
    return [
      {
        title: headingAbove(source, list[0]!),
        slides,
        worth: LIST,
        near: { beside, spared: [] },
      },
    ];
  });
}

/** What a list is worth for slides, before any section. */
const LIST = 1_000;

/** An item by as many of its sentences as fit. */
function itemOf(source: DraftSource, places: readonly number[], fits: (text: string) => boolean): Said | null {
  for (let count = places.length; count > 0; count--) {
    const words = standing(source, places[0]!, places[count - 1]! + 1);
    const text = words && textOf([words]);
    if (text && fits(text) && !onlyCounts(text)) return { text, origin: 'piece' };
  }
  return null;
}

function headingAbove({ analysis: { blocks, text } }: DraftSource, block: number): Said | null {
  const at = blocks.findLastIndex(({ kind, level }, place) => place < block && kind === 'heading' && (level ?? 1) > 1);
  return at < 0 ? null : titleOfHeading(text.slice(blocks[at]!.start, blocks[at]!.end));
}

/** Sentences from the beginning of a section that its slides are drawn from: further on it is about something else than its heading says. */
const DRAWN_FROM = 24;
/** Sentences at the beginning of a section of which one is a slide, so that the others have something to go on from. */
const OPENS_WITHIN = 3;

/** The best sentences from the beginning of each section that stand alone and are unlike each other, in their order. */
function sectionPoints(source: DraftSource, fits: (text: string) => boolean): Points[] {
  const { sentences } = source.analysis;
  return sectionsOf(source.analysis).flatMap(({ heading, places }): Points[] => {
    if (heading === null) return [];
    const byScore = places.slice(0, DRAWN_FROM).sort((one, other) => sentences[other]!.score - sentences[one]!.score);
    const chosen: number[] = [];
    for (const at of byScore) {
      if (chosen.length === SLIDES.most - 1) break;
      const words = standing(source, at, at + 1);
      const isAlike = chosen.some((one) => overlapOf(sentences[one]!.content, sentences[at]!.content) >= SHARED);
      if (words && fits(words[0]!.text) && !isAlike && sentences[at]!.score > 0) chosen.push(at);
    }
    if (chosen.length < SLIDES.least) return [];
    const best = chosen.slice(0, SLIDES.most - 2);
    if (!places.slice(0, OPENS_WITHIN).some((at) => best.includes(at))) return [];
    const worth = best.slice(0, SLIDES.least).reduce((sum, at) => sum + sentences[at]!.score, 0);
    const slides = best.sort((one, other) => one - other).flatMap((at) => standing(source, at, at + 1)!);
    return [{ title: titleOfHeading(heading), slides, worth, near: sayable(places, best, true) }];
  });
}

/** What a caption may say of slides: what stands beside them, else the last of them, on which none leans, where enough are left. */
function sayable(places: readonly number[], slides: readonly number[], hasTitle: boolean): Points['near'] {
  const least = hasTitle ? SLIDES.least - 1 : SLIDES.least;
  return {
    beside: places.filter((at) => !slides.includes(at)),
    spared: slides.length > least ? slides.slice(-1) : [],
  };
}

/** One argument, sentence by sentence: paragraphs to their end, from a first or second sentence that leans on nothing. */
function argumentOf(source: DraftSource, fits: (text: string) => boolean): Points[] {
  const { sentences } = source.analysis;
  const isInside = (at: number) => sentences[at - 1]?.block === sentences[at]?.block;
  const leans = (at: number) => sentences[at]!.traits.has('pronoun') || sentences[at]!.traits.has('leaning');
  for (const { from, to } of stretchesOf(source, null)) {
    if (to - from > SLIDES.most - 1 || (isInside(from) && isInside(from - 1)) || isInside(to) || leans(from)) continue;
    const opening = standing(source, from, from + 1);
    const slides = sentences
      .slice(from + 1, to)
      .map(({ start, opensAt = start, end }) => said(source, { start: opensAt, end }));
    const all = [...(opening ?? []), ...slides];
    if (!opening || !all.every(({ text }) => fits(text))) continue;
    const blocks = new Set(sentences.slice(from, to).map(({ block }) => block));
    const places = sentences.flatMap(({ block }, at) => (blocks.has(block) ? [at] : []));
    const heading = sectionsOf(source.analysis).find((section) => section.places.includes(from))?.heading ?? null;
    const title = heading === null ? null : titleOfHeading(heading);
    const own = places.filter((at) => at >= from && at < to);
    const isApart = title === null && from > sentences.length * BEGINNING;
    return [{ title, slides: all, worth: 0, near: sayable(places, own, title !== null), isApart }];
  }
  return [];
}
