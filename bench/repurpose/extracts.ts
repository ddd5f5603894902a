import { analyse, type Analysis } from '@/core/extracts/analyse';
import { EXTRACT_LENGTH, findExtracts, overlaps, type Extract, type Taken } from '@/core/extracts/extracts';
import { overlapOf } from '@/core/extracts/rank';
import { readingOf } from '@/core/reading/readSource';
import type { Marked } from './texts';

/** Extracts that are looked at. */
export const BEST = 10;
/** Of the best ten, those that are in the marks at least. */
export const WANTED = 6;
/** Picks at random that they are held against. */
const RANDOM = 100;

/** What is measured of the extracts of a text. */
export interface ExtractFigures {
  name: string;
  sentences: number;
  usable: number;
  /** Of the extracts, those that lie in what is usable, and in the best of it. */
  hits: number;
  best: number;
  /** Hits of as many first sentences of paragraphs, and of as many sentences picked at random, in the mean. */
  first: number;
  random: number;
  alike: number;
  extracts: Extract[];
}

const isIn = (key: readonly Taken[], sentence: Taken) => key.some((one) => overlaps(one, sentence));

/** Whether most sentences of a stretch lie in the marks. */
function isHit({ sentences }: Analysis, key: readonly Taken[], stretch: Taken): boolean {
  const own = sentences.filter(({ start, end }) => end > stretch.start && start < stretch.end);
  return own.length > 0 && own.filter((sentence) => isIn(key, sentence)).length * 2 > own.length;
}

/** Measures the extracts of a text against what we marked in it. */
export function measureExtracts({ name, kept, key, usable }: Marked): ExtractFigures {
  const reading = readingOf(kept);
  const analysis = analyse({ ...reading, ...kept });
  const extracts = findExtracts(analysis, BEST);
  const hitsOf = (list: readonly Taken[], marks = usable) => list.filter((one) => isHit(analysis, marks, one)).length;
  const able = analysis.sentences.filter(
    ({ start, end }) => end - start >= EXTRACT_LENGTH.least && end - start <= EXTRACT_LENGTH.most,
  );
  const openers = able.filter(({ block }, at) => able[at - 1]?.block !== block);
  const contents = extracts.map(
    ({ start, end }) =>
      new Set(analysis.sentences.filter((one) => overlaps(one, { start, end })).flatMap(({ content }) => [...content])),
  );
  const pairs = contents.flatMap((one, at) => contents.slice(at + 1).filter((other) => overlapOf(one, other) >= 0.4));
  let state = 7;
  const chance = () => (state = (state * 16_807) % 2_147_483_647) / 2_147_483_647;
  const picks = Array.from({ length: RANDOM }, () =>
    hitsOf(
      [...able]
        .map((one) => ({ one, by: chance() }))
        .sort((one, other) => one.by - other.by)
        .slice(0, BEST)
        .map(({ one }) => one),
    ),
  );
  return {
    ...{ name, sentences: analysis.sentences.length, extracts, alike: pairs.length },
    usable: analysis.sentences.filter((sentence) => isIn(usable, sentence)).length,
    hits: hitsOf(extracts),
    best: hitsOf(extracts, key),
    first: hitsOf(openers.slice(0, BEST)),
    random: picks.reduce((sum, hits) => sum + hits, 0) / RANDOM,
  };
}
