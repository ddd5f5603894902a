import { composeField, type Words } from '../captions/compose';
import { countText } from '../captions/count';
import { hashtagKey } from '../captions/hashtags';
import type { ScoredSentence } from '../extracts/analyse';
import { fieldRule, formatRule, type TextFieldRule } from '../rulesheets/types';
import { chanceOf, oneOf } from './chance';
import type { DraftOrder, DraftShelf, DraftSource, Variant } from './draft';
import { keywordsOf } from './keywords';
import { phrasesOf } from './phrases';
import { said, textOf, type Paragraph, type Said } from './saying';

/** A caption with what is composed behind it. */
export interface DraftedCaption {
  paragraphs: readonly Paragraph[];
  hashtags: string;
  link: string;
  /** How it opens. */
  variant: Variant;
}

/** Sentences that follow an extract to carry it on, on a network with little and with much room. */
const CARRIED_ON = { little: 2, much: 5 } as const;
/** Units from which a network has much room. */
const MUCH_ROOM = 1_000;
/** Hashtags picked at most. */
const HASHTAGS = 4;
/** Keywords that hashtags are picked by. */
const KEYWORDS = 40;

const isOf = (variant: Variant, { traits }: ScoredSentence): boolean =>
  variant === 'question'
    ? traits.has('question')
    : variant === 'number'
      ? traits.has('number') && !traits.has('question')
      : !traits.has('question') && !traits.has('number');

/** The way a sentence opens a caption. */
const variantOf = (sentence: ScoredSentence): Variant =>
  isOf('question', sentence) ? 'question' : isOf('number', sentence) ? 'number' : 'claim';

/**
 * A caption: a hook that stands before the cut, the sentences it belongs to, a call to action, hashtags. Always inside the limit:
 * what does not fit is left out from the end.
 *
 * @returns null where the piece has no sentence that opens it as asked
 */
export function draftCaption(source: DraftSource, shelf: DraftShelf, order: DraftOrder): DraftedCaption | null {
  const rule = fieldRule(order.sheet, 'caption');
  if (!rule) return { paragraphs: [], hashtags: '', link: '', variant: 'claim' };
  const behind = {
    hashtags: pickHashtags(source, shelf, order).join(' '),
    link: order.sheet.linksClickable && rule.parts.includes('link') ? source.link : '',
  };
  const room = roomOf(rule, order);
  const fits = (paragraphs: readonly Paragraph[]) => room({ ...behind, caption: textOf(paragraphs) });
  const chosen = hookOf(source, order, rule, (text) => fits([[{ text, origin: 'piece' }]]));
  if (chosen === null) return null;
  const body = bodyOf(source, order, chosen.at, rule.limit >= MUCH_ROOM ? CARRIED_ON.much : CARRIED_ON.little);
  const paragraphs: Said[][] = [[chosen.said]];
  for (const paragraph of body) {
    const added: Said[] = [];
    paragraphs.push(added);
    for (const one of paragraph) {
      added.push(one);
      if (!fits(paragraphs)) {
        added.pop();
        break;
      }
    }
    if (added.length === 0) paragraphs.pop();
    if (added.length < paragraph.length) break;
  }
  const call = callOf(source, shelf, order, behind.link !== '');
  if (call && fits([...paragraphs, [call]])) paragraphs.push([call]);
  return {
    paragraphs,
    ...behind,
    variant: chosen.at === null ? 'claim' : variantOf(source.analysis.sentences[chosen.at]!),
  };
}

/** Whether words fit into the caption of a network, and under the length of one's own. */
const roomOf =
  (rule: TextFieldRule, { sheet, under }: DraftOrder) =>
  (words: Omit<Words, 'headline'>): boolean => {
    const count = countText(composeField({ headline: '', ...words }, rule, sheet.hashtagLimit), rule);
    return count <= rule.limit && (under === null || count <= under);
  };

interface Hook {
  said: Said;
  /** The place of its sentence; null for the title. */
  at: number | null;
}

/** The best own sentence that opens as asked and stands before the cut; else, for a claim, the title. */
function hookOf(
  source: DraftSource,
  order: DraftOrder,
  rule: TextFieldRule,
  fits: (text: string) => boolean,
): Hook | null {
  const { sentences } = source.analysis;
  const inside = placesIn(source, order);
  const around = inside.length === 0 ? [] : placesAround(source, inside);
  const isWhole = inside.length === 0;
  const shows = (text: string) => (rule.fold?.units == null || countText(text, rule) <= rule.fold.units) && fits(text);
  const opens = (at: number) => {
    const sentence = sentences[at]!;
    if (sentence.traits.has('housekeeping') || sentence.traits.has('leaning')) return false;
    if (order.variant !== null && !isOf(order.variant, sentence)) return false;
    if (sentence.score === 0 && !sentence.traits.has('question')) return false;
    return shows(said(source, sentence).text);
  };
  // Nobody knows yet of whom a pronoun speaks.
  const worth = (place: number) => sentences[place]!.score * (sentences[place]!.traits.has('pronoun') ? 0.6 : 1);
  const best = (places: readonly number[]) =>
    places
      .filter(opens)
      .reduce<number | null>((one, other) => (one === null || worth(other) > worth(one) ? other : one), null);
  const at = isWhole ? best(sentences.map((_sentence, place) => place)) : (best(inside) ?? best(around));
  if (at !== null) return { said: said(source, sentences[at]!), at };
  if (order.variant === 'question' || order.variant === 'number') return null;
  return shows(source.title) ? { said: { text: source.title, origin: 'title' }, at: null } : shortTitle(source, shows);
}

/** A title that is too long for the cut stands there by the words that fit. */
function shortTitle(source: DraftSource, shows: (text: string) => boolean): Hook | null {
  const words = source.title.split(/\s+/);
  for (let count = words.length - 1; count > 0; count--) {
    const text = `${words.slice(0, count).join(' ')}…`;
    if (shows(text)) return { said: { text, origin: 'title' }, at: null };
  }
  return null;
}

/** The places of the sentences a draft is made from: those of its clip, or of its first extract. */
function placesIn({ analysis }: DraftSource, { from, clip }: DraftOrder): number[] {
  const stretch = clip ?? from[0];
  if (!stretch) return [];
  return analysis.sentences.flatMap(({ start, end, opensAt = start }, at) =>
    opensAt >= stretch.start && end <= stretch.end ? [at] : [],
  );
}

/** Sentences of the same paragraph so near that they still belong to it. */
const NEAR = 2;

/** The sentences of the same paragraph just before and after. */
function placesAround({ analysis: { sentences } }: DraftSource, inside: readonly number[]): number[] {
  const [first, last] = [inside[0]!, inside.at(-1)!];
  const isNear = (at: number) => at >= first - NEAR && at <= last + NEAR && !inside.includes(at);
  return sentences.flatMap(({ block }, at) => (isNear(at) && block === sentences[first]!.block ? [at] : []));
}

/** What stands below the hook: the rest of its extract from there on, carried on by what follows in the same paragraph. */
function bodyOf(source: DraftSource, order: DraftOrder, hook: number | null, most: number): Said[][] {
  const { sentences } = source.analysis;
  const inside = placesIn(source, order);
  const says = (places: readonly number[]) =>
    places.filter((at) => !sentences[at]!.traits.has('housekeeping')).map((at) => said(source, sentences[at]!));
  const first = hook ?? inside[0] ?? sentences.findIndex(({ score }) => score > 0);
  if (first < 0) return [];
  const after = inside.filter((at) => at > first);
  const before = inside.filter((at) => at < first);
  const last = after.at(-1) ?? first;
  const following: number[] = [];
  for (let at = last + 1; at < sentences.length && following.length < most - after.length; at++) {
    if (sentences[at]!.block !== sentences[last]!.block) break;
    following.push(at);
  }
  if (following.length > 1 && sentences[following.at(-1)!]!.traits.has('question')) following.pop();
  const opening = hook === null && inside.length > 0 ? inside : after;
  const body = [...says(opening), ...(order.clip ? [] : says(following))];
  const paragraphs = body.length > 3 ? [body.slice(0, 3), body.slice(3)] : [body];
  if (body.length > 0) return paragraphs;
  return before.some((at) => sentences[at]!.traits.has('question')) ? [] : [says(before)];
}

function callOf(
  source: DraftSource,
  shelf: DraftShelf,
  { seed, sheet, format, from }: DraftOrder,
  hasLink: boolean,
): Said | null {
  const salt = [sheet.slug, format, from[0]?.start ?? 0];
  const kept = oneOf(shelf.callsToAction, seed, 'call', ...salt);
  if (kept !== undefined) return { text: kept, origin: 'shelf' };
  const phrase = hasLink
    ? oneOf(phrasesOf(source.analysis.language)?.toThePiece ?? [], seed, 'link', ...salt)
    : undefined;
  return phrase === undefined ? null : { text: phrase, origin: 'phrase' };
}

/** Hashtags of the shelf that name what the piece is about, those of its extract first. */
function pickHashtags(source: DraftSource, shelf: DraftShelf, { sheet, format, from, seed }: DraftOrder): string[] {
  const most = Math.min(HASHTAGS, sheet.hashtagLimit ?? HASHTAGS);
  if (most === 0 || shelf.hashtags.length === 0 || !formatRule(sheet, format)) return [];
  const keywords = keywordsOf(source.analysis, KEYWORDS, source.others).map(({ words, weight }) => ({
    key: hashtagKey(words.replace(/\s+/g, '')),
    weight,
  }));
  const extract = hashtagKey((from[0]?.text ?? '').replace(/\s+/g, ''));
  return shelf.hashtags
    .map((tag) => {
      const key = hashtagKey(tag.slice(1));
      const named = keywords.filter(({ key: word }) => key.includes(word) || (word.length > 4 && word.includes(key)));
      const weight = named.reduce((sum, one) => sum + one.weight, 0) + (extract.includes(key) ? 5 : 0);
      return { tag, weight };
    })
    .filter(({ weight }) => weight > 0)
    .sort((one, other) => other.weight - one.weight || chanceOf(seed, one.tag) - chanceOf(seed, other.tag))
    .slice(0, most)
    .map(({ tag }) => tag);
}
