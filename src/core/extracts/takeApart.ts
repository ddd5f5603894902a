import { readingOf, type SourceText, type TextToRead } from '../reading/readSource';
import { unknownLanguage } from '../reading/unknownLanguage';
import type { ReadingText } from '../reading/readingText';
import { analyse } from './analyse';
import { findClips, type Clip, type ClipLimits } from '../clips/clips';
import { findExtracts, overlaps, type Extract, type Taken } from './extracts';

/** A piece's text as it is read, its sentences, and what of it is worth a post. */
export interface TakenApart extends ReadingText {
  language: string | null;
  /** The language it is in where Bimlo does not know it, in English. */
  unknownLanguage: string | null;
  /** UTF-16 offsets of each. */
  sentences: { start: number; end: number; inMs?: number; outMs?: number }[];
  /** The best first. */
  extracts: Extract[];
  /** In the order of time. */
  clips: Clip[];
}

/** Extracts that are proposed at once. */
const PROPOSED = 14;

/** What shares of the work are done when a text is read, and when its sentences are ranked; measured on 30,000 words. */
const DONE = { read: 0.15, ranked: 0.45 } as const;

/**
 * Takes a text apart: what is proposed beside what is taken already.
 *
 * @param taken extracts that were accepted or rejected: neither they nor what is much like them is proposed
 * @param takenClips the same of clips
 * @param onShare is told from time to time what share of the work is done, 0 to 1
 */
export function takeApart(
  kept: TextToRead & Pick<SourceText, 'isWordTimed'>,
  taken: readonly Taken[] = [],
  takenClips: readonly Taken[] = [],
  {
    most = PROPOSED,
    clips = {},
    onShare = () => {},
  }: { most?: number; clips?: Partial<ClipLimits>; onShare?: (share: number) => void } = {},
): TakenApart {
  const reading = readingOf(kept);
  onShare(DONE.read);
  const analysis = analyse({ ...reading, cues: kept.cues, isWordTimed: kept.isWordTimed });
  onShare(DONE.ranked);
  const isFree = (one: Taken) => !takenClips.some((clip) => overlaps(clip, one));
  return {
    ...reading,
    language: analysis.language,
    unknownLanguage: unknownLanguage(reading.text),
    sentences: analysis.sentences.map(({ start, end, inMs, outMs }) => ({
      start,
      end,
      ...(inMs !== undefined && outMs !== undefined && { inMs, outMs }),
    })),
    extracts: findExtracts(analysis, most, taken, (share) => onShare(DONE.ranked + share * (1 - DONE.ranked))),
    clips: findClips(analysis, clips, isFree),
  };
}
