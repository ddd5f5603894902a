import { mayBeSaid, opensWith, type ScoredSentence } from '../extracts/analyse';
import type { Taken } from '../extracts/extracts';
import { overlapOf } from '../extracts/rank';
import { countsOnlyOne, isHalf, isNextOf, pointsToPage } from '../extracts/standsAlone';
import type { DraftSource } from './draft';
import { standing } from './saying';

/** The sentences of a piece from one up to, not including, another. */
export interface Stretch {
  from: number;
  to: number;
}

/** Sentences of a stretch: fewer make no point, more make several. */
const SENTENCES = { least: 4, most: 16 } as const;
/** What a stretch is worth that ends within a paragraph, against one that ends with it. */
const ENDS_WITHIN = 0.7;
/** What a stretch is worth that begins within a paragraph, against one that begins with it. */
const BEGINS_WITHIN = { usual: 0.7, leads: 0.4 } as const;
/** What a stretch is worth that begins with the piece itself, where it is to say how the piece goes; within so much of its sentences. */
const EARLY = { worth: 1.6, share: 0.1 } as const;
/** What a stretch is worth that begins with one of the piece's extracts, which were chosen for standing alone. */
const BEGINS_CHOSEN = 1.6;
/** Stretches that are looked at, the best first. */
const LOOKED_AT = 40;

/**
 * The stretches of a piece that make one point, the best first: neighbouring sentences of one section, of which the first is
 * understood alone, none is about the room, and the last leaves nothing open. Each is worth what its sentences are in the mean,
 * times how much neighbours in it are about the same.
 *
 * @param about a stretch it has to hold; null for any
 * @param leads it says how the whole piece goes, as the beginning of one mostly does
 */
export function stretchesOf(
  source: DraftSource,
  about: Taken | null,
  size: { least: number; most: number } = SENTENCES,
  leads = false,
): Stretch[] {
  const { sentences, blocks } = source.analysis;
  const isChosen = ({ start, end }: ScoredSentence) =>
    source.extracts.some((extract) => extract.start >= start && extract.start < end);
  const isHeading = (block: number) => blocks[block]?.kind === 'heading';
  const parted = (at: number) => {
    const [before, own] = [sentences[at - 1]!.block, sentences[at]!.block];
    for (let block = before + 1; block < own; block++) if (isHeading(block)) return true;
    return blocks[own]?.kind === 'listItem' || blocks[own]?.speaker !== blocks[before]?.speaker;
  };
  const found: (Stretch & { worth: number })[] = [];
  const pointsAway: boolean[] = [];
  for (let from = 0; from < sentences.length; from++) {
    if (blocks[sentences[from]!.block]?.kind === 'listItem' || sentences[from]!.score === 0) continue;
    if (!standing(source, from, from + 1) && !standing(source, from, from + 2)) continue;
    let [sum, alike] = [0, 0];
    for (let to = from + 1; to <= Math.min(sentences.length, from + size.most); to++) {
      const own = sentences[to - 1]!;
      if (!mayBeSaid(own) || own.traits.has('asking') || (to - 1 > from && parted(to - 1))) break;
      if (to - 1 > from && (pointsAway[to - 1] ??= pointsToPage(textOf(source, own), source.analysis.language))) break;
      if (announces(own, source) && sentences[to]?.block !== own.block) break;
      sum += own.score;
      if (to - 1 > from) alike += likeness(sentences, to - 1, from);
      const length = to - from;
      if (
        length < size.least ||
        leavesOpen(own, sentences[to], source) ||
        (about && !holds(sentences, from, to, about))
      )
        continue;
      const ends = sentences[to]?.block === own.block ? ENDS_WITHIN : 1;
      const begins =
        sentences[from - 1]?.block === sentences[from]!.block ? BEGINS_WITHIN[leads ? 'leads' : 'usual'] : 1;
      const early =
        leads && from <= sentences.length * EARLY.share && !isOfSomebody(sentences[from]!) ? EARLY.worth : 1;
      const chosen = isChosen(sentences[from]!) ? BEGINS_CHOSEN : 1;
      found.push({
        from,
        to,
        worth:
          chosen *
          (sum / length) *
          (0.3 + alike / (length - 1)) *
          ends *
          begins *
          early *
          opensWith(sentences[from]!) *
          endingOf(own, sum / length),
      });
    }
  }
  const isWhole = ({ from, to }: Stretch) => {
    const { text, language } = source.analysis;
    const own = text.slice(sentences[from]!.start, sentences[to - 1]!.end);
    return !isHalf(own) && !countsOnlyOne(own, language);
  };
  const best: Stretch[] = [];
  for (const one of found.sort((first, second) => second.worth - first.worth)) {
    if (best.length === LOOKED_AT) break;
    if (isWhole(one)) best.push(one);
  }
  return best;
}

/** Whether a sentence tells of somebody, or of those who speak, rather than of the matter. */
const isOfSomebody = ({ traits }: ScoredSentence): boolean =>
  traits.has('first') || traits.has('telling') || traits.has('past');

/** What a stretch is worth by its last sentence: one that says little closes nothing. */
const endingOf = ({ score, traits }: ScoredSentence, mean: number): number =>
  Math.min(1.2, Math.max(0.5, score / mean) ** 0.4) * (traits.has('first') ? 0.85 : 1);

/** Whether a sentence leads to something that was shown behind it. */
const announces = (sentence: ScoredSentence, source: DraftSource): boolean =>
  /:["”’»)]*$/u.test(textOf(source, sentence));

/** How much a sentence is about what the two before it are about. */
function likeness(sentences: readonly ScoredSentence[], at: number, from: number): number {
  const before = [at - 1, at - 2].filter((place) => place >= from).map((place) => sentences[place]!.content);
  return Math.max(...before.map((content) => overlapOf(content, sentences[at]!.content)));
}

const leavesOpen = (last: ScoredSentence, next: ScoredSentence | undefined, source: DraftSource): boolean =>
  last.traits.has('question') ||
  /[:,;–—]["”’»)]*$/u.test(textOf(source, last)) ||
  (next !== undefined && isNextOf(textOf(source, next), source.analysis.language));

const textOf = ({ analysis }: DraftSource, { start, end }: ScoredSentence): string => analysis.text.slice(start, end);

const holds = (sentences: readonly ScoredSentence[], from: number, to: number, about: Taken): boolean =>
  sentences[from]!.start <= about.start && sentences[to - 1]!.end >= about.end;
