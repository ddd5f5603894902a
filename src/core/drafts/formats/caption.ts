import { composeField, type Words } from '../../captions/compose';
import { countText } from '../../captions/count';
import { mayBeSaid, type ScoredSentence } from '../../extracts/analyse';
import { overlapOf } from '../../extracts/rank';
import { pointsOutside } from '../../extracts/standsAlone';
import { fieldRule, type Format, type TextFieldRule } from '../../rulesheets/types';
import type { DraftOrder, DraftShelf, DraftSource, Variant } from '../draft';
import { hashtagsOf } from '../hashtags';
import { placesIn, said, sentencesIn, standing, textOf, type Paragraph, type Said } from '../saying';
import type { Body } from '../form';
import { stretchesOf } from '../stretches';

/** A caption with what is composed behind it. */
export interface DraftedCaption {
  paragraphs: readonly Paragraph[];
  hashtags: string;
  link: string;
  /** How it opens. */
  variant: Variant;
}

/** Sentences that follow an extract to carry it on, on a network with little and with much room. */
const CARRIED_ON = { little: 1, much: 4 } as const;
/** Units from which a network has much room. */
const MUCH_ROOM = 1_000;
/** Sentences up to which a piece is a message: it is said whole, and the same everywhere. */
export const MESSAGE = 8;
/** Share of its words that a sentence has in common with those before it to be of the same matter, where it does not lean on them. */
const OF_IT = 0.2;
/** Sentences before an extract among which another opening is looked for. */
const NEAR = 2;

/** The way a sentence opens a caption. */
const variantOf = ({ traits }: ScoredSentence): Variant =>
  traits.has('question') ? 'question' : traits.has('number') ? 'number' : 'claim';

/**
 * A caption: an extract, whole, perhaps with a better opening before it, carried on by what follows it as long as all fits and stands
 * alone together. Of a piece that is no longer than a message, the message.
 *
 * @returns null where the piece gives nothing that opens it as asked, or its extract does not fit
 */
export function draftCaption(source: DraftSource, shelf: DraftShelf, order: DraftOrder): DraftedCaption | null {
  const rule = fieldRule(order.sheet, 'caption');
  if (!rule) return { paragraphs: [], hashtags: '', link: '', variant: 'claim' };
  const link = order.sheet.linksClickable && rule.parts.includes('link') ? source.link : '';
  const behind = (paragraphs: readonly Paragraph[]) => ({
    ...{ link, hashtags: hashtagsOf(textOf(paragraphs), source, shelf, order).join(' ') },
  });
  const fits = (paragraphs: readonly Paragraph[]) =>
    hasRoom(rule, order, { ...behind(paragraphs), caption: textOf(paragraphs) });
  const found = captionOf(source, order, rule, fits);
  return found && { ...found, ...behind(found.paragraphs) };
}

/** The caption of a format that has nothing else. */
export const captionOnly = ({ paragraphs }: DraftedCaption): Body => ({
  words: { caption: textOf(paragraphs) },
  parts: [],
  sentences: sentencesIn('caption', paragraphs),
});

/** Whether words fit into the caption of a network, and under the length of one's own. */
function hasRoom(rule: TextFieldRule, { sheet, under }: DraftOrder, words: Omit<Words, 'headline'>): boolean {
  const count = countText(composeField({ headline: '', ...words }, rule, sheet.hashtagLimit), rule);
  return count <= rule.limit && (under === null || count <= under);
}

type Found = Pick<DraftedCaption, 'paragraphs' | 'variant'>;
type Fits = (paragraphs: readonly Paragraph[]) => boolean;

function captionOf(source: DraftSource, order: DraftOrder, rule: TextFieldRule, fits: Fits): Found | null {
  const { sentences } = source.analysis;
  const most = rule.limit >= MUCH_ROOM ? CARRIED_ON.much : CARRIED_ON.little;
  const [extract] = order.from;
  if (extract) return aboutExtract(source, order, extract, most, fits);
  if (order.clip) return asAsked(bestIn(source, placesIn(source.analysis, order.clip), 0, fits), order);
  if (sentences.length === 0) return asAsked(titleAlone(source, fits), order);
  if (sentences.length <= MESSAGE) return asAsked(messageOf(source, fits), order);
  const lead = LED.includes(order.format) ? leadOf(source, order, fits) : null;
  if (lead) return lead;
  const isFree = (at: number) => !isTaken(order, said(source, sentences[at]!).text);
  const places = [...sentences.keys()];
  const { beside = [], spared = [] } = order.near ?? {};
  const best =
    bestIn(source, beside.filter(isFree), most, fits) ??
    bestIn(source, spared.filter(isFree), 0, fits) ??
    // The piece's title names what slides are of; what is said elsewhere in it is about something else.
    (order.near && (bestIn(source, [...beside, ...spared], 0, fits) ?? titleAlone(source, fits))) ??
    bestIn(source, places.filter(isFree), most, fits) ??
    bestIn(source, places, most, fits);
  return asAsked(best ?? titleAlone(source, fits), order);
}

/** Formats that begin with how the piece goes. */
const LED: readonly Format[] = ['newsletter', 'longVideo', 'live'];
/** Sentences of such a beginning. */
const LEAD = { least: 3, most: 6 } as const;
/** Stretches that are passed over because another draft says them: what is left then says too little. */
const PASSED_AT_MOST = 4;

const isTaken = ({ openingsTaken }: DraftOrder, opening: string): boolean => openingsTaken.includes(opening);

/** The stretch of the piece that says best what it is about, in a few sentences: one of which no other draft says anything where there is one, else one that none opens with. */
function leadOf(source: DraftSource, order: DraftOrder, fits: Fits): Found | null {
  const { sentences } = source.analysis;
  let openedTwice: Found | null = null;
  let saidTwice: Found | null = null;
  let passed = 0;
  for (const { from, to } of stretchesOf(source, null, LEAD, true)) {
    const opening = standing(source, from, from + 1);
    if (!opening) continue;
    const words = [
      ...opening,
      ...sentences.slice(from + 1, to).map(({ start, opensAt = start, end }) => said(source, { start: opensAt, end })),
    ];
    if (!fits([words])) continue;
    const found = { paragraphs: [words], variant: variantOf(sentences[from]!) };
    if (!words.some(({ text }) => isTaken(order, text))) return found;
    if (isTaken(order, opening[0]!.text)) openedTwice ??= found;
    else saidTwice ??= found;
    if (++passed === PASSED_AT_MOST) break;
  }
  return saidTwice ?? openedTwice;
}

/** What was found, where it opens as asked. */
const asAsked = (found: Found | null, { variant }: DraftOrder): Found | null =>
  found && (variant === null || variant === found.variant) ? found : null;

function titleAlone({ title }: DraftSource, fits: Fits): Found | null {
  const paragraphs: Paragraph[] = [[{ text: title, origin: 'title' }]];
  return title !== '' && fits(paragraphs) ? { paragraphs, variant: 'claim' } : null;
}

/** All sentences of a short piece that fit, in their order. */
function messageOf(source: DraftSource, fits: Fits): Found | null {
  const { sentences } = source.analysis;
  const paragraphs: Said[][] = [];
  let block = -1;
  for (const sentence of sentences) {
    const one = said(source, { start: sentence.opensAt ?? sentence.start, end: sentence.end });
    const grown =
      sentence.block === block ? [...paragraphs.slice(0, -1), [...paragraphs.at(-1)!, one]] : [...paragraphs, [one]];
    if (!fits(grown)) break;
    paragraphs.splice(0, paragraphs.length, ...grown);
    block = sentence.block;
  }
  return paragraphs.length > 0 ? { paragraphs, variant: variantOf(sentences[0]!) } : null;
}

/** The extract, whole, opened as asked, and carried on where it stands in a paragraph. */
function aboutExtract(
  source: DraftSource,
  order: DraftOrder,
  extract: { start: number; end: number; text: string },
  most: number,
  fits: Fits,
): Found | null {
  const { sentences } = source.analysis;
  const inside = placesIn(source.analysis, extract);
  const own = ownWords(source, extract, inside);
  if (!fits([own])) return null;
  const first = sentences[inside[0] ?? -1];
  const opens = first ? variantOf(first) : 'claim';
  if (order.variant !== null && order.variant !== opens) {
    const opening = openingFor(source, order.variant, inside, (words) => fits([words, own]));
    return opening && { paragraphs: [opening, own], variant: order.variant };
  }
  return { paragraphs: carriedOn(source, own, inside.at(-1), most, fits), variant: opens };
}

/** An extract as its sentences where it holds whole ones, else as it was chosen. */
function ownWords(source: DraftSource, extract: { start: number; end: number }, inside: readonly number[]): Said[] {
  const { sentences } = source.analysis;
  const [first, last] = [sentences[inside[0] ?? -1], sentences[inside.at(-1) ?? -1]];
  if (!first || last!.end !== extract.end) return [said(source, extract)];
  const opensAt = first.opensAt ?? first.start;
  return inside.map((place, at) => {
    const { opensAt: opening, start, end } = sentences[place]!;
    return at === 0
      ? said(source, { start: extract.start, end }, extract.start > opensAt)
      : said(source, { start: opening ?? start, end });
  });
}

/** The words of an extract with what follows in its paragraph, while all of it fits and is understood together; never up to a question that is left open. */
function carriedOn(
  source: DraftSource,
  own: readonly Said[],
  last: number | undefined,
  most: number,
  fits: Fits,
): Paragraph[] {
  const { sentences } = source.analysis;
  if (last === undefined) return [own];
  const following: Said[] = [];
  const content = new Set(sentences[last]!.content);
  for (let at = last + 1; at < sentences.length && following.length < most; at++) {
    const sentence = sentences[at]!;
    if (sentence.block !== sentences[last]!.block || !mayBeSaid(sentence)) break;
    const next = said(source, { start: sentence.opensAt ?? sentence.start, end: sentence.end });
    const isOfIt =
      pointsOutside(next.text, source.analysis.language) !== null || overlapOf(content, sentence.content) >= OF_IT;
    const before = textOf([[...own, ...following]]);
    if (!isOfIt || isOfNobodyNamed(next.text, before) || !fits([[...own, ...following, next]])) break;
    following.push(next);
    for (const word of sentence.content) content.add(word);
  }
  const isOpen = () =>
    /[?:,;–—]["”’»)]*$/u.test(following.at(-1)!.text) ||
    pointsOutside(textOf([[...own, ...following]]), source.analysis.language) !== null;
  while (following.length > 0 && isOpen()) following.pop();
  return [[...own, ...following]];
}

/** Whether a sentence goes on about a person of whom no name stands before it: “He is a pleasant man.” */
const isOfNobodyNamed = (text: string, before: string): boolean =>
  /^(?:he|she|his|her)\b/i.test(text) && !/[^.!?…:"”’»)] ["“'(]?\p{Lu}\p{L}/u.test(before);

/** A sentence near an extract that opens it as asked and is understood without it. */
function openingFor(
  source: DraftSource,
  variant: Variant,
  inside: readonly number[],
  fits: (words: Paragraph) => boolean,
): Paragraph | null {
  const { sentences } = source.analysis;
  const [first] = inside;
  if (first === undefined) return null;
  for (let at = first - 1; at >= Math.max(0, first - NEAR); at--) {
    const sentence = sentences[at]!;
    if (sentence.block !== sentences[first]!.block) break;
    if (variantOf(sentence) !== variant) continue;
    const words = standing(source, at, at + 1);
    if (words && fits(words)) return words;
  }
  return null;
}

/** The best sentence of some that stands alone, carried on. */
function bestIn(source: DraftSource, places: readonly number[], most: number, fits: Fits): Found | null {
  const { sentences } = source.analysis;
  const able = places
    .filter((at) => sentences[at]!.score > 0)
    .sort((one, other) => sentences[other]!.score - sentences[one]!.score);
  for (const at of able) {
    const words = standing(source, at, at + 1);
    if (words && fits([words]))
      return { paragraphs: carriedOn(source, words, at, most, fits), variant: variantOf(sentences[at]!) };
  }
  return null;
}
