import type { ReadingText } from '../reading/readingText';
import type { Cue } from '../reading/subtitles';
import { guessLanguage, wordsOfLanguage, type LanguageWords } from './languages';
import { isForTheRoom } from './standsAlone';
import { textRank } from './rank';
import { contentWords, sentencesOf, wordsIn, type Sentence } from './sentences';

/** A sentence with what decides whether it is worth a post. */
export interface ScoredSentence extends Sentence {
  /** What it is about. */
  content: ReadonlySet<string>;
  /** 0 for one that says too little to be ranked. */
  score: number;
  traits: ReadonlySet<Trait>;
}

/** What speaks for a sentence, or against it. */
export type Trait =
  | 'number'
  | 'striking'
  | 'question'
  | 'contrast'
  | 'address'
  | 'general'
  | 'comparison'
  | 'quote'
  | 'listed'
  | 'begun'
  | 'link'
  | 'unended'
  | 'closing'
  | 'telling'
  | 'pronoun'
  | 'leaning'
  | 'first'
  | 'past'
  | 'echo'
  | 'given'
  | 'filler'
  | 'housekeeping'
  | 'asking'
  | 'foreign';

const UNSAID: readonly Trait[] = ['housekeeping', 'foreign', 'begun', 'link', 'unended'];

/** Whether a sentence may be put into a post at all: a whole one, in the text's language, not about the room. */
export const mayBeSaid = ({ traits, isCut }: ScoredSentence): boolean =>
  !isCut && !UNSAID.some((trait) => traits.has(trait));

/** A text cut into ranked sentences. */
export interface Analysis {
  text: string;
  blocks: ReadingText['blocks'];
  sentences: readonly ScoredSentence[];
  language: string | null;
  /** In how many sentences a word stands. */
  spread: ReadonlyMap<string, number>;
  isWordTimed: boolean;
}

/** What a trait does to the centrality of a sentence. */
const WEIGHTS: Record<Trait, number> = {
  number: 1.35,
  striking: 1.45,
  question: 1.6,
  contrast: 1.4,
  address: 1.2,
  general: 1.3,
  comparison: 1,
  quote: 0.6,
  listed: 0.7,
  begun: 0.3,
  link: 0,
  unended: 0.3,
  closing: 0.95,
  telling: 0.78,
  pronoun: 0.84,
  leaning: 0.6,
  first: 0.8,
  past: 0.55,
  echo: 1.4,
  // Within what goes on, nothing: only what begins with it leans (`opensWith`).
  given: 1,
  filler: 0.5,
  housekeeping: 0.1,
  asking: 0.6,
  foreign: 0,
};

/** How much centrality decides beside what speaks for a sentence: its weight as an exponent. */
const CENTRALITY = 0.47;

/** Content words from which a sentence is ranked. */
const LEAST_CONTENT = 4;

/**
 * Ranks the sentences of a text: by how central they are (`textRank`), weighted by what speaks for them: that they hold for all,
 * hold one thing against another, turn against what was said, speak to the reader, tell a large number, or close a paragraph; less
 * where they tell what somebody did, lean on the sentence before or are about the room. The weights were found on texts in which
 * the sentences worth a post were marked by hand (`bench/repurpose.ts`).
 *
 * @param language absent to be guessed
 */
export function analyse(
  reading: Pick<ReadingText, 'text' | 'blocks'> & { cues?: readonly Cue[]; isWordTimed?: boolean },
  language?: string | null,
): Analysis {
  const { text, blocks, cues = [], isWordTimed = false } = reading;
  const spoken = language ?? guessLanguage(text);
  const known = wordsOfLanguage(spoken);
  const sentences = sentencesOf(reading, spoken, cues);
  const words = sentences.map(({ start, end, opensAt = start }) => wordsIn(text.slice(opensAt, end)));
  const content = words.map((own) => contentWords(own, known));
  const said = sentences.map(({ start, end }) => text.slice(start, end));
  const isMarked = said.filter((one) => HAS_MARK.test(one)).length >= said.length * MARKED;
  const isAsker = askersIn(text, sentences, blocks);
  const central = textRank(content.map((own) => (own.length < LEAST_CONTENT ? [] : own)));
  const spread = new Map<string, number>();
  for (const own of content) for (const word of new Set(own)) spread.set(word, (spread.get(word) ?? 0) + 1);
  const scored = sentences.map((sentence, at) => {
    const own = new Set(content[at]);
    const traits = traitsOf(said[at]!, words[at]!, known, spoken);
    if (blocks[sentence.block]?.language !== undefined) traits.add('foreign');
    if (BEGINS_SMALL.test(said[at]!) && (isMarked || HAS_MARK.test(said[at]!))) traits.add('begun');
    if (isMarked && blocks[sentence.block]?.kind === 'paragraph' && !ENDS_ANYHOW.test(said[at]!)) traits.add('unended');
    if (isGiven(words[at]!, content, at, spread, spoken)) traits.add('given');
    if (isAsker(blocks[sentence.block]?.speaker)) traits.add('asking');
    const [before, after] = [sentences[at - 2], sentences[at + 1]];
    if (before?.block === sentence.block && after?.block !== sentence.block) traits.add('closing');
    if (blocks[sentence.block]?.kind === 'listItem') traits.add('listed');
    return {
      ...sentence,
      content: own,
      traits,
      score: [...traits].reduce((score, trait) => score * WEIGHTS[trait], central[at]! ** CENTRALITY),
    };
  });
  return { text, blocks, sentences: scored, language: spoken, spread, isWordTimed };
}

/** What a stretch is worth that begins with a sentence, by how it begins. */
export const opensWith = ({ traits }: ScoredSentence): number => (traits.has('given') ? OPENS_GIVEN : 1);

const OPENS_GIVEN = 0.6;
/** Sentences before in which something was named that “the …” means, and sentences of the text in which it stands at most: what stands in more is what the text is about. */
const GIVEN = { before: 3, in: 4, share: 0.03 } as const;
/** Words of a sentence in which the noun of its first article stands. */
const NEAR_ARTICLE = 3;

const DEFINITE: Record<string, RegExp> = {
  en: /^the$/,
  de: /^(?:der|die|das)$/,
  fr: /^(?:le|la|les)$/,
  es: /^(?:el|la|los|las)$/,
  pt: /^[oa]s?$/,
};

/** Whether a sentence begins with “the …” of something that was named just before it, and is not what the whole text is about. */
function isGiven(
  words: readonly string[],
  content: readonly (readonly string[])[],
  at: number,
  spread: ReadonlyMap<string, number>,
  language: string | null,
): boolean {
  if (!DEFINITE[language ?? '']?.test(words[0] ?? '')) return false;
  const noun = words.slice(1, 1 + NEAR_ARTICLE).find((word) => content[at]!.includes(word));
  return (
    noun !== undefined &&
    spread.get(noun)! <= Math.max(GIVEN.in, content.length * GIVEN.share) &&
    content.slice(Math.max(0, at - GIVEN.before), at).some((before) => before.includes(noun))
  );
}

/** Words behind a share that make it a time: “half past seven”. */
export const OF_CLOCKS = new Set(['past', 'to', 'nach', 'vor', 'passé']);

const QUESTION = /[?？؟]["”’»)\]]*$/u;
/** Share of somebody's turns that end with a question from which they are the one who asks. */
const ASKS = 0.5;

/** Who of the speakers of a text asks the others. */
function askersIn(
  text: string,
  sentences: readonly Sentence[],
  blocks: ReadingText['blocks'],
): (speaker: string | undefined) => boolean {
  const turns = new Map<string, { all: number; asked: number }>();
  sentences.forEach((sentence, at) => {
    const speaker = blocks[sentence.block]?.speaker;
    if (speaker === undefined || sentences[at + 1]?.block === sentence.block) return;
    const own = turns.get(speaker) ?? { all: 0, asked: 0 };
    turns.set(speaker, {
      all: own.all + 1,
      asked: own.asked + (QUESTION.test(text.slice(sentence.start, sentence.end)) ? 1 : 0),
    });
  });
  const isOne = (own: { all: number; asked: number } | undefined) => own !== undefined && own.asked > own.all * ASKS;
  const some = [...turns.values()].some((own) => !isOne(own));
  return (speaker) => speaker !== undefined && some && isOne(turns.get(speaker));
}

/** Begins small or with a mark, as what goes on from what stands before does, where sentences have their marks. */
const BEGINS_SMALL = /^(?:[,;:.)\]]|\p{Ll}(?!\p{L}*\p{Lu}))/u;
const HAS_MARK = /[.!?…。！？]["”’»)]*$/u;
/** Any mark at the end: a line without one is a name or a heading, where sentences have theirs. */
const ENDS_ANYHOW = /[^\p{L}\p{N}\s]$/u;
/** Share of the sentences of a text that end with a mark, from which it is written with them. */
const MARKED = 0.6;

/** Whether nothing is said beside a link. */
const isOnlyLink = (text: string): boolean =>
  text.includes('://') &&
  text.split(/\s+/).filter((word) => /\p{L}{2}/u.test(word) && !word.includes('://')).length < 2;

const SPEECH = /[“„«「『"][^“”„«»「」『』"]{12,}[”“»」』"]/u;

/** Words that lean on what was said, unless they begin a question. */
const ASKING = new Set(['which', 'who', 'whose', 'where', 'qui', 'que', 'quien', 'cual', 'quem', 'qual']);

function traitsOf(
  sentence: string,
  words: readonly string[],
  known: LanguageWords,
  language: string | null,
): Set<Trait> {
  const traits = new Set<Trait>();
  if (/(?<![\p{L}\p{N}/\\.=_-])\p{N}/u.test(sentence) || words.some((word) => known.numbers.has(word)))
    traits.add('number');
  if (
    /\p{N}{3,}|\p{N}\s?[%‰]/u.test(sentence) ||
    words.some((word, at) => known.striking.has(word) && !OF_CLOCKS.has(words[at + 1] ?? ''))
  )
    traits.add('striking');
  if (QUESTION.test(sentence)) traits.add('question');
  if (words.filter((word) => known.general.has(word)).length > 0) traits.add('general');
  if (words.some((word) => known.comparing.has(word)) || /[;:]\s/u.test(sentence)) traits.add('comparison');
  if (words.some((word) => known.contrast.has(word))) traits.add('contrast');
  if (words.some((word) => known.address.has(word))) traits.add('address');
  if (SPEECH.test(sentence)) traits.add('quote');
  if (isOnlyLink(sentence)) traits.add('link');
  if (words.some((word) => known.pronouns.has(word))) traits.add('pronoun');
  const [first] = words;
  if (first !== undefined && known.telling.has(first)) traits.add('telling');
  const asks = traits.has('question') && first !== undefined && ASKING.has(first);
  if (first !== undefined && known.leaning.has(first) && !asks) traits.add('leaning');
  if (words.some((word) => known.first.has(word))) traits.add('first');
  if (words.some((word) => known.past.has(word) || known.pastEnds?.test(word))) traits.add('past');
  const own = words.filter((word) => word.length > 3 && !known.stop.has(word));
  if (new Set(own).size < own.length) traits.add('echo');
  if (known.filler.test(sentence)) traits.add('filler');
  if (known.housekeeping.test(sentence) || isForTheRoom(sentence, language)) traits.add('housekeeping');
  return traits;
}
