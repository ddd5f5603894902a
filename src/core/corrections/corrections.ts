import { diffArrays } from 'diff';
import { guessLanguage } from '../extracts/languages';
import { sentencesOf } from '../extracts/sentences';
import { readingOf, type TextToRead } from '../reading/readSource';
import { changesOf, tokensOf, type WordChange } from './wordChanges';

/** What a piece says that its posts are made from. */
interface Saying {
  title: string;
  /** Where it stands; empty for nowhere. */
  link: string;
  /** Its sentences and headings, in their order. */
  sentences: readonly string[];
}

/** Something that a piece says otherwise by now. */
export interface Correction {
  of: 'title' | 'link' | 'sentence';
  before: string;
  /** Null where it says nothing in its place. */
  after: string | null;
  /** Which of its words are others. */
  changes: readonly WordChange[];
}

/** A text of a piece as it was at some time. */
export interface TextOfPiece extends TextToRead {
  title: string;
  link: string;
}

/** What a piece says by a text of it. */
export function sayingOf({ title, link, ...kept }: TextOfPiece): Saying {
  const reading = readingOf(kept);
  const headings = reading.blocks.filter(({ kind }) => kind === 'heading');
  const sentences = [...headings, ...sentencesOf(reading, guessLanguage(reading.text), kept.cues)];
  return {
    title: title.trim(),
    link: link.trim(),
    sentences: sentences
      .sort((one, other) => one.start - other.start)
      .map(({ start, end }) => onOneLine(reading.text.slice(start, end))),
  };
}

const onOneLine = (text: string): string => text.replace(/\s+/g, ' ').trim();

/** Sentences that differ beyond which two texts count as two, of which nothing is told. */
const MOST_EDITS = 2_000;
/** The share of words in common from which a sentence is another corrected: among several at a place, and where there is only one. */
const ALIKE = { among: 0.5, alone: 0.3 } as const;

/** What a piece says otherwise than it did. What only moved to another place is no correction. */
export function correctionsOf(before: Saying, now: Saying): Correction[] {
  const found: Correction[] = [];
  if (before.title !== now.title && before.title !== '') found.push(correction('title', before.title, now.title));
  if (before.link !== now.link && before.link !== '')
    found.push({ of: 'link', before: before.link, after: now.link || null, changes: [] });
  return [...found, ...correctedSentences(before.sentences, now.sentences)];
}

const correction = (of: Correction['of'], before: string, after: string | null): Correction => ({
  ...{ of, before, after },
  changes: after === null ? [] : changesOf(before, after),
});

function correctedSentences(before: readonly string[], now: readonly string[]): Correction[] {
  const changes = diffArrays([...before], [...now], { maxEditLength: MOST_EDITS });
  if (!changes) return [];
  const standing = now.join(' ');
  const found: Correction[] = [];
  let removed: string[] = [];
  let added: string[] = [];
  const settle = () => {
    const gone = removed.filter((sentence) => !standing.includes(sentence));
    const free = new Set(added);
    for (const sentence of gone) {
      const after = closestTo(sentence, free, gone.length === 1 && added.length === 1 ? ALIKE.alone : ALIKE.among);
      if (after !== null) free.delete(after);
      found.push(correction('sentence', sentence, after));
    }
    [removed, added] = [[], []];
  };
  for (const change of changes) {
    if (change.removed) removed.push(...change.value);
    else if (change.added) added.push(...change.value);
    else settle();
  }
  settle();
  return found;
}

/** The one that shares most words with a sentence; null where none shares enough. */
function closestTo(sentence: string, others: ReadonlySet<string>, least: number): string | null {
  const own = wordsOf(sentence);
  let best: { sentence: string; share: number } | null = null;
  for (const other of others) {
    const share = inCommon(own, wordsOf(other));
    if (share >= least && share > (best?.share ?? 0)) best = { sentence: other, share };
  }
  return best?.sentence ?? null;
}

const wordsOf = (sentence: string): string[] =>
  tokensOf(sentence).flatMap((token) => (/[\p{L}\p{N}]/u.test(token) ? [token.toLowerCase()] : []));

/** The share of words that are in both (Dice’s coefficient of two bags). */
function inCommon(one: readonly string[], other: readonly string[]): number {
  const left = new Map<string, number>();
  for (const word of other) left.set(word, (left.get(word) ?? 0) + 1);
  let both = 0;
  for (const word of one) {
    const count = left.get(word) ?? 0;
    if (count === 0) continue;
    both++;
    left.set(word, count - 1);
  }
  return (2 * both) / Math.max(1, one.length + other.length);
}
