import { composeField } from '../../captions/compose';
import { countText } from '../../captions/count';
import { partNumber } from '../../captions/partNumber';
import type { ScoredSentence } from '../../extracts/analyse';
import { partsRule } from '../../posts/parts';
import { fieldRule } from '../../rulesheets/types';
import type { DraftOrder, DraftSource } from '../draft';
import type { Body } from '../form';
import { said, standing, textOf, type Said } from '../saying';
import { stretchesOf, type Stretch } from '../stretches';
import type { DraftedCaption } from './caption';

/** Parts of a thread: fewer are a post, more are not read to their end. */
const PARTS = { least: 3, most: 8 } as const;
/** Sentences that stand in a part, at most. */
const SENTENCES = 3;
/** Letters of a part that says too little to stand by itself. */
const SLIGHT = 25;

/**
 * A thread: one stretch of the piece in its order, that makes one point in 3 to 8 parts, cut between its sentences and where it can
 * between its paragraphs; the first part is understood alone.
 */
export function threadOf(source: DraftSource, order: DraftOrder, caption: DraftedCaption): Body | null {
  const parts = partsRule(order.sheet, order.format);
  const rule = fieldRule(order.sheet, 'caption');
  if (!parts || !rule) return null;
  const words = { headline: '', caption: 'x', hashtags: caption.hashtags, link: caption.link };
  const behind = countText(composeField(words, rule, order.sheet.hashtagLimit), rule) - 1;
  const most = Math.min(PARTS.most, parts.most);
  const number = countText(partNumber(most - 1, most), rule);
  const room = (at: number) => (at === 0 ? Math.min(parts.limit, rule.limit - behind) : parts.limit) - number;
  for (const stretch of stretchesOf(source, order.from[0] ?? null)) {
    const cut = cutInParts(source, stretch, (text, at) => countText(text, rule) <= room(at), most);
    if (!cut) continue;
    const numbered = cut.map((own, at) => textOf([own]) + partNumber(at, cut.length));
    return {
      words: { caption: numbered[0]! },
      parts: numbered.slice(1),
      sentences: cut.flatMap((own, at) =>
        own.map((one) =>
          at === 0 ? { field: 'caption' as const, ...one } : { field: 'parts' as const, part: at - 1, ...one },
        ),
      ),
    };
  }
  return null;
}

/**
 * A stretch cut into parts: with a new one for each paragraph, else as they fit; so that none says too little, if that can be. Null
 * where nothing gives 3 to 8, or the first is not understood.
 */
function cutInParts(
  source: DraftSource,
  { from, to }: Stretch,
  fits: (text: string, part: number) => boolean,
  most: number,
): Said[][] | null {
  const sentences = source.analysis.sentences.slice(from, to);
  const ways = [
    [true, SENTENCES],
    [true, 2],
    [false, SENTENCES],
    [false, 2],
    [false, 1],
  ] as const;
  const cuts = ways.flatMap(([byParagraph, size]): Said[][][] => {
    const cut = packed(source, sentences, fits, byParagraph, size);
    if (!cut || cut.length < PARTS.least || cut.length > most) return [];
    const opening = standing(source, from, from + cut[0]!.length);
    return opening ? [[opening, ...cut.slice(1)]] : [];
  });
  return cuts.find((cut) => cut.every((part) => textOf([part]).length >= SLIGHT)) ?? cuts[0] ?? null;
}

function packed(
  source: DraftSource,
  sentences: readonly ScoredSentence[],
  fits: (text: string, part: number) => boolean,
  byParagraph: boolean,
  size: number,
): Said[][] | null {
  const parts: Said[][] = [];
  let block = -1;
  for (const sentence of sentences) {
    const one = said(source, { start: sentence.opensAt ?? sentence.start, end: sentence.end });
    const open = parts.at(-1);
    const goesOn = open !== undefined && open.length < size && (!byParagraph || sentence.block === block);
    if (goesOn && fits(textOf([[...open, one]]), parts.length - 1)) open.push(one);
    else if (fits(one.text, parts.length)) parts.push([one]);
    else return null;
    block = sentence.block;
  }
  return parts;
}
