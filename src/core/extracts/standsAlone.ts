import type { Language } from './languages';
import { POINTERS, type Pointers } from './pointers';

/** What keeps a stretch from standing alone. */
type Outside =
  | 'thing'
  | 'person'
  | 'demonstrative'
  | 'place'
  | 'pair'
  | 'answer'
  | 'saying'
  | 'room'
  | 'ahead'
  | 'joins'
  | 'page'
  | 'half';

/** A word of a stretch as it is looked at. */
export interface Word {
  /** In small letters, with straight apostrophes. */
  word: string;
  isCapital: boolean;
  /** It begins a sentence. */
  isFirst: boolean;
}

/** Words before a noun that may lie between it and its determiner. */
const BETWEEN = 3;

/**
 * What of a stretch of text points to something that is not in it: a pronoun before anything it could stand for (whom or what a
 * pronoun means is taken to be named before it: J. Hobbs, “Resolving Pronoun References”, 1978, without his syntax), a
 * demonstrative whose noun was not there, one of a pair, the beginning of an answer, somebody unnamed who says something, words to
 * the people in the room, what only announces the next sentence, words that join it to the one before, or another place of the page.
 * So does half of what stands in quotation marks or brackets, in any language.
 *
 * @param text one or several whole sentences
 * @param words all of its words (`wordsToLookAt`), where they are at hand
 * @returns null where nothing is found; for a language that Bimlo does not know only halves are
 */
export function pointsOutside(text: string, language: string | null, words?: readonly Word[]): Outside | null {
  if (isHalf(text)) return 'half';
  const known = knownOf(language);
  if (!known) return null;
  const plain = plainOf(text);
  const small = inSmall(plain);
  if (known.room.test(small)) return 'room';
  if (known.pairs.test(small) || firstAlone(small, known)) return 'pair';
  if (known.joins.test(small)) return 'joins';
  if (known.page.test(small)) return 'page';
  if (known.answers.test(small) || ENDS_ANSWERING.test(small)) return 'answer';
  if (ASIDE.test(text)) return 'joins';
  if (ENDS_POINTING.test(small)) return 'demonstrative';
  if (known.ahead.test(small) || ANNOUNCING.test(small)) return 'ahead';
  if (known.unnamedSaying.test(small) && !/^\p{Lu}\p{L}+ \p{Lu}/u.test(plain)) return 'saying';
  return pointerIn(words ?? wordsToLookAt(text, language, true), known, language === 'en', /\?["”»]?$/u.test(plain));
}

/**
 * The words of a sentence as they are looked at: what points to nothing is blanked.
 *
 * @param opens it is the first of its stretch, in which “It is hard to …” stands for nothing
 */
export function wordsToLookAt(sentence: string, language: string | null, opens: boolean): Word[] {
  const known = knownOf(language);
  if (!known) return [];
  const plain = plainOf(sentence);
  const small = inSmall(plain);
  const left = (opens ? small.replace(known.expletive, blank) : small).replace(known.selfContained, blank);
  return wordsOf(plain, left);
}

const knownOf = (language: string | null): Pointers | undefined => POINTERS[language as Language];

const plainOf = (text: string): string => text.replaceAll('’', "'").replace(/^["“„«»'‘¿¡(\s]+/u, '');

const ENDS_ANSWERING = /, (?:yes|no|ja|nein|oui|non|sí|sim|não)[.!]$/;
/** Ends that lead to what comes behind: a colon, the number of the first of several, an “and” behind a mark. */
const ANNOUNCING = /(?::(?: ?\(?\d{1,2}[.)])?|[;,:] (?:and|or|und|oder|et|ou|y|e|o))["”»]?$/u;
/** A sentence that is only an aside. */
const ASIDE = /^\([^()]*(?:\([^()]*\)[^()]*)*\)[.!?]?$/;

/** Whether a sentence is said to the people in the room. */
export const isForTheRoom = (text: string, language: string | null): boolean =>
  knownOf(language)?.room.test(inSmall(text)) ?? false;

/** Whether a sentence points to what stands elsewhere on its page. */
export const pointsToPage = (text: string, language: string | null): boolean =>
  knownOf(language)?.page.test(inSmall(text)) ?? false;

/** Whether a sentence is the second, or a later one, of several that are counted: “The fourth is …”. */
export const isNextOf = (text: string, language: string | null): boolean =>
  knownOf(language)?.next.test(inSmall(text)) ?? false;

/** Whether the first of several is counted off and none behind it: “There are two ways. First, …”. */
export function countsOnlyOne(text: string, language: string | null): boolean {
  const known = knownOf(language);
  return known !== undefined && firstAlone(inSmall(text), known);
}

function firstAlone(small: string, { first }: Pointers): boolean {
  if (!MAY_COUNT.test(small)) return false;
  const begins = first.exec(small);
  return begins !== null && !COUNTS_ON.test(small.slice(begins.index + begins[0].length));
}

/** Found sooner than where it stands: most texts have none of it. */
const MAY_COUNT = /first|erste|premi|abord|lieu|primer/;

const COUNTS_ON =
  /\b(?:second(?:ly)?|third(?:ly)?|next|then|finally|last(?:ly)?|zweitens|zweite[nrs]?|dann|danach|schließlich|deuxième(?:ment)?|seconde?|secundo|ensuite|puis|enfin|segund[oa]|tercer[oa]?|luego|después|finalmente|depois|terceir[oa]|por fim)(?![\p{L}])/u;

/** Whether something is opened in a text and not closed, or closed and not opened, or words were left out or trail off. */
export function isHalf(text: string): boolean {
  const count = (mark: RegExp) => text.match(mark)?.length ?? 0;
  // German opens with “„” and closes with what opens elsewhere.
  const [low, opened, closed] = [count(/„/g), count(/“/g), count(/”/g)];
  const isSpeechWhole = low > 0 ? low === opened + closed : opened === closed;
  return (
    !isSpeechWhole ||
    count(/"/g) % 2 === 1 ||
    count(/«/g) !== count(/»/g) ||
    count(/\[/g) !== count(/\]/g) ||
    count(/\(/g) !== count(/(?<!^[\p{L}\p{N}]{1,2}|[:;]-?)\)/gu) ||
    /(?:…|\.\s?\.\s?\.)["”»)]*$|\. \. \./u.test(text)
  );
}

/** A sentence that ends with what it points to, and has nothing before it that this could be. */
const ENDS_POINTING = /^[^.;:!?,]*\b(?:this|these|those)[.?!]/;

/** How many letters in front may be left off, so that what is left stands alone; 0 where nothing may. */
export function leadOf(text: string, language: string | null): number {
  const known = knownOf(language);
  return known?.lead.exec(inSmall(text))?.[0].length ?? 0;
}

const blank = (stretch: string): string => stretch.replace(/\p{L}/gu, '_');

/** A text in small letters with straight apostrophes, as long as it is. */
function inSmall(text: string): string {
  const small = text.toLowerCase();
  return (small.length === text.length ? small : text).replaceAll('’', "'");
}

/** @param small the same in small letters, with blanks for what points to nothing */
function wordsOf(text: string, small: string): Word[] {
  let isFirst = true;
  return [...small.matchAll(/[\p{L}_][\p{L}\p{M}'_-]*|\p{N}[\p{N}.,]*|[.!?…:]+/gu)].flatMap(({ 0: word, index }) => {
    if (/^[.!?…:]/.test(word)) {
      isFirst = true;
      return [];
    }
    const own = { word: word.toLowerCase(), isCapital: word[0] !== '_' && /\p{Lu}/u.test(text[index]!), isFirst };
    isFirst = false;
    return [own];
  });
}

/**
 * @param hasThings its words for persons stand for persons alone
 * @param asks it is a question, in which “su” and “seu” may be the reader's
 */
function pointerIn(words: readonly Word[], known: Pointers, hasThings: boolean, asks: boolean): Outside | null {
  const { things, people, demonstratives, places } = known;
  const isPointer = ({ word }: Word) => [things, people, demonstratives, places].some((set) => set.has(word));
  let [hasThing, hasPerson, hasSeveral, hasMasculine] = [false, false, false, false];
  for (const [at, own] of words.entries()) {
    const { word } = own;
    // “Sie” and “Ihnen” in the middle of a German sentence speak to the reader.
    const speaksToReader = own.isCapital && !own.isFirst && /^(?:sie|ihnen|ihr|ihre[nmrs]?)$/.test(word);
    if (word === 'en' && !BEFORE_EN.has(words[at - 1]?.word ?? '')) continue;
    if (asks && /^(?:sus?|seus?|suas?)$/.test(word)) continue;
    if (speaksToReader) continue;
    if (isPointer(own)) {
      if (demonstratives.has(word)) {
        if (pointsToNoun(words, at, known) && !hasSameNoun(words, at)) return 'demonstrative';
        if (word !== 'that' && !hasThing && !hasPerson) return 'demonstrative';
      } else if (people.has(word) && !hasPerson && (hasThings || !hasThing)) return 'person';
      else if (SEVERAL.has(word) && !hasSeveral) return 'person';
      else if (word === 'er' && known === POINTERS.de && !hasMasculine) return 'person';
      else if (things.has(word) && !hasThing && !hasPerson) return 'thing';
      else if (places.has(word) && !hasThing) return 'place';
      continue;
    }
    if (known.persons.test(word) || (own.isCapital && !own.isFirst && isName(words, at))) hasPerson = true;
    if (ANYBODY.has(word)) hasMasculine = true;
    if (AND.has(word) && (hasThing || hasPerson)) hasSeveral = true;
    if (!isNoun(words, at, known, isPointer)) continue;
    hasThing = true;
    hasSeveral ||= /[sx]$/.test(word) && !ONE_WITH_S.has(word);
    hasMasculine ||= canBeMasculine(words, at);
  }
  return null;
}

/** Pronouns for several, in languages in which most words for several end in an “s”. */
const SEVERAL = new Set('ils elles ellos ellas eles elas'.split(' '));
/** Words that end as those for several do, and are for one or none. */
const ONE_WITH_S = new Set(
  'simples plus temps corps pays pas jamais toujours sous puis alors ailleurs dehors menos apenas através además país interés entonces'.split(
    ' ',
  ),
);
const AND = new Set('et ou ni y e o u com con avec'.split(' '));

/** Stand for anybody, of whom German says “er”. */
const ANYBODY = new Set('jemand niemand jeder wer man'.split(' '));

/** Whether a German noun may be what “er” stands for: nothing before it says that it is feminine or neuter, or several. */
function canBeMasculine(words: readonly Word[], at: number): boolean {
  const near = words.slice(Math.max(0, at - BETWEEN), at);
  const article = near.findLastIndex(({ word }) => word === 'der' || NOT_MASCULINE.has(word));
  if (article < 0) return true;
  if (near[article]!.word !== 'der') return false;
  const before = words[at - near.length + article - 1];
  // “mit der Idee”, “die Namen der Stadt”, “und der Gelegenheit”
  return before === undefined || !(OBLIQUE.has(before.word) || (before.isCapital && !before.isFirst));
}

const NOT_MASCULINE = new Set(
  'die das eine einer keine keiner jede jedes diese dieses jene jenes meine seine ihre unsere zur'.split(' '),
);
const OBLIQUE = new Set(
  'mit von zu bei nach aus in an auf unter über vor hinter neben zwischen seit gegenüber während wegen trotz und oder sowie außer'.split(
    ' ',
  ),
);

/** Words behind which a French “en” stands for something; elsewhere it is a preposition, as in Spanish. */
const BEFORE_EN = new Set('je tu il elle on nous vous ils elles qui ne y'.split(' '));

/** A word with a large letter inside a sentence, and no “I”. */
const isName = (words: readonly Word[], at: number): boolean =>
  words[at]!.word.length > 1 && !/^i['’]/.test(words[at]!.word);

/** Whether a word may be what a pronoun behind it stands for: it begins a sentence, has a large letter, is a plural, or a determiner stands before it. */
function isNoun(words: readonly Word[], at: number, known: Pointers, isPointer: (word: Word) => boolean): boolean {
  const own = words[at]!;
  if (
    own.word.length < 3 ||
    known.determiners.has(own.word) ||
    own.word.includes('_') ||
    SMALL.has(own.word) ||
    TIMES.test(own.word)
  )
    return false;
  if (own.isCapital && !own.isFirst) return true;
  if (own.isFirst) return !VERBLIKE.test(own.word) && !isAdverb(own.word) && !isFollowedByObject(words[at + 1], known);
  if (/[^s]s$/.test(own.word)) return true;
  return words
    .slice(Math.max(0, at - BETWEEN), at)
    .some((before) => (known.determiners.has(before.word) || /^\p{N}/u.test(before.word)) && !isPointer(before));
}

/** Whether a word is what stands behind a verb and behind no noun: “Put the rope”, “Legen Sie”. */
const isFollowedByObject = (next: Word | undefined, { determiners }: Pointers): boolean =>
  next !== undefined &&
  (determiners.has(next.word) ||
    /^(?:up|off|out|down|away)$/.test(next.word) ||
    (next.word === 'sie' && next.isCapital));

/** Words for times, which no pronoun stands for. */
const TIMES =
  /^(?:times?|days?|weeks?|months?|years?|hours?|minutes?|moments?|mornings?|evenings?|nights?|once|mal|tage?|wochen?|monate?|jahre?n?|stunden?|minuten?|abend|morgen|nacht|fois|jours?|semaines?|mois|ans?|années?|heures?|veces|vez|días?|semanas?|mes(?:es)?|años?|horas?|vezes|dias?|mês|anos?)$/u;

/** Words that begin sentences and name nothing. */
const SMALL = new Set(
  "last next recent present when where while because since what who why how after before until although though unless whether once whenever wherever whoever whatever there here then now never always only even perhaps maybe with without and but for nor yet you your our not one nobody wenn weil als dass falls sofern sobald solange soweit obwohl während bevor nachdem was wer wie warum wo quand parce comme lorsque puisque pourquoi quoi cuando porque como donde mientras quando enquanto sometimes often soon today tomorrow yesterday nowadays usually already later heute jetzt gestern manchmal oft früher seitdem bald inzwischen maintenant aujourd'hui autrefois désormais demain hier souvent parfois depuis encore bientôt déjà from under over during between among beyond behind beside despite through throughout toward towards against along around about across near upon within like unlike should could would can may might must will shall have has had does did are was were both each every any some all most many much more less few several such very still just rather quite almost nearly für mit von bei aus nach vor über unter zwischen gegen durch ohne seit trotz wegen hinter neben sollte könnte würde kann muss darf ist sind war hat haben wird werden sehr viel viele mehr manche einige alle jede jeder jedes nur noch schon gerade fast bien pour dans sur sous avec sans par chez vers entre contre pendant avant après malgré selon même tout toute tous toutes chaque plusieurs certains certaines plus moins très trop est sont était para por con sin desde dentro fuera debido entre sobre bajo contra hacia hasta según durante tras ante aunque muy más menos tan todo todos todas cada algunos algunas com sem sob após mesmo embora muito mais tão ahora hoy ayer antes siempre todavía agora hoje ontem amanhã sempre ainda".split(
    ' ',
  ),
);
/** Beginnings of commands, whose object comes behind. */
const VERBLIKE =
  /^(?:let|do|don't|take|make|give|put|look|listen|wait|keep|try|ask|tell|think|imagine|remember|stop|start|begin|go|come|get|be|use|write|read|throw|learn|leave)$/;

/** Whether a word that begins a sentence says how, and names nothing: “Surely”, “Claramente”. */
const isAdverb = (word: string): boolean => /(?:ly|mente)$/.test(word) && !NO_ADVERB.has(word);

const NO_ADVERB = new Set(
  'family july italy sicily supply reply assembly monopoly anomaly butterfly fly ally bully jelly belly lily emily molly sally polly holly kelly billy'.split(
    ' ',
  ),
);

/** Whether the word behind a demonstrative is a noun it points to: “with that list”, “these pans”. */
function pointsToNoun(words: readonly Word[], at: number, { determiners }: Pointers): boolean {
  const [before, own, next] = [words[at - 1], words[at]!, words[at + 1]];
  if (!next || next.word.includes('_')) return false;
  // “these two knots”
  if (own.word !== 'that') return !determiners.has(next.word) || isNounBehind(words, at + 1, determiners);
  // “that” is mostly no demonstrative: it is one behind a preposition, or at the beginning.
  return before === undefined || own.isFirst || PREPOSITIONS.has(before.word);
}

const isNounBehind = (words: readonly Word[], at: number, determiners: ReadonlySet<string>): boolean => {
  const next = words[at + 1];
  return isBetween(words[at]) && next !== undefined && !determiners.has(next.word) && !next.word.includes('_');
};

/** Small numbers, and other words that stand between a demonstrative and its noun. */
const isBetween = (word: Word | undefined): boolean => word !== undefined && BETWEEN_THEM.has(word.word);

const BETWEEN_THEM = new Set(
  'new old many few two three four five six seven zwei drei vier fünf sechs sieben deux trois quatre cinq six sept dos tres cuatro cinco seis siete dois duas três quatro seis sete'.split(
    ' ',
  ),
);

const PREPOSITIONS = new Set(
  'with of in at on against among around despite toward towards within without upon near beside from by about for after before since until during to into under over behind through like once if when because while unless whether than'.split(
    ' ',
  ),
);

/** Whether the noun a demonstrative points to was there before it. */
function hasSameNoun(words: readonly Word[], at: number): boolean {
  const stem = (word: string) => word.replace(/(?:es|s|n|en)$/, '');
  const noun = isBetween(words[at + 1]) ? words[at + 2] : words[at + 1];
  const next = stem(noun?.word ?? '');
  return words.slice(0, at).some(({ word }) => word.length > 2 && stem(word) === next);
}
