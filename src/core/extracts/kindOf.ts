import { OF_CLOCKS, type Analysis, type ScoredSentence } from './analyse';
import type { ExtractKind } from './extracts';
import { wordsOfLanguage, type LanguageWords } from './languages';
import { wordsIn } from './sentences';
import { withoutEnds } from '../text/ends';
import { figureIn } from '../text/figures';

/** What a stretch of sentences is, and why it was chosen, which is worked out for those that are. */
export function kindOf(
  analysis: Analysis,
  sentences: readonly ScoredSentence[],
  text: string,
): { kind: ExtractKind; reasonOf: () => string } {
  const { blocks, spread, language } = analysis;
  const block = blocks[sentences[0]!.block]!;
  const known = wordsOfLanguage(language);
  const has = (trait: 'quote' | 'contrast' | 'address') => sentences.some(({ traits }) => traits.has(trait));
  const is = (kind: ExtractKind, reason: string) => ({ kind, reasonOf: () => reason });
  if (block.kind === 'listItem')
    return is('listStep', block.number === undefined ? 'an item of a list' : `step ${block.number} of a list`);
  const asks = sentences[0]!.traits.has('question');
  if (asks && canBeAnswered(analysis, sentences[0]!))
    return is('question', sentences.length > 1 ? 'a question and what follows' : 'a question');
  const who = block.speaker ?? (has('quote') ? saidBy(text) : null);
  if (who !== null && !asks) return is('quote', `said by ${who}`);
  const figure = figureIn(text);
  if (figure?.counts != null || (figure && /\P{N}$/u.test(figure.text)))
    return is('number', `a number: ${[figure.text, figure.counts ?? ''].join(' ').trim()}`);
  const said = countedIn(text, known);
  if (said !== null) return is('number', `a number: ${said}`);
  const before = has('contrast') ? 'a turn, ' : has('address') ? 'speaks to the reader, ' : '';
  return { kind: 'point', reasonOf: () => before + heartOf(sentences, spread) };
}

function heartOf(sentences: readonly ScoredSentence[], spread: ReadonlyMap<string, number>): string {
  const about = topWords(sentences, spread);
  return about.length > 0 ? `about ${about.join(', ')}` : 'at the heart of the text';
}

/** Whether somebody who reads a question could answer it: it speaks to them, or of what holds for all, and not of those who ask. */
export function canBeAnswered({ text, language }: Analysis, { start, end, traits }: ScoredSentence): boolean {
  const { reader } = wordsOfLanguage(language);
  if (wordsIn(text.slice(start, end)).some((word) => reader.has(word))) return true;
  return !traits.has('first') && !traits.has('telling') && (traits.has('general') || !traits.has('pronoun'));
}

/** Verbs of saying, in the languages that Bimlo knows. */
const SAYS =
  'said|says|wrote|writes|asked|asks|told|noted|notes|argued|argues|called|calls|explained|explains|replied|remarked|warned|insisted|concluded|sagte|sagt|schrieb|schreibt|meinte|fragte|erklärte|nannte|nennt|betonte|dit|disait|écrit|écrivait|écrivit|demanda|répondit|expliqua|explique|appelait|appelle|dijo|dice|decía|escribió|escribe|preguntó|explicó|llamó|llama|disse|diz|dizia|escreveu|escreve|perguntou|explicou|chamou|chama';
const NAME = String.raw`(\p{Lu}[\p{L}.'’-]+(?: (?:de|da|do|du|del|la|van|von|der|den))*(?: \p{Lu}[\p{L}.'’-]+)*)`;
const ARTICLE = String.raw`(?<!(?:^|[\s(])(?:the|an?|der|die|das|ein|eine|le|la|les|un|une|el|los|las|una|o|os|as|um|uma)\s)`;
/** Somebody named who says, writes or asks, or according to whom. */
const NAMED = [
  `${ARTICLE}(?<![\\p{L}\\p{N}])${NAME}(?:,[^,.;:]{1,60},)? (?:once |has |hat |a |ha |had |avait |había )?(?:${SAYS})(?!\\p{L})`,
  `(?<!\\p{L})(?:${SAYS}) ${NAME}`,
  `(?<!\\p{L})(?:according to|[Aa]s|[Ll]aut|[Nn]ach|[Ss]elon|[Ss]egún|[Ss]egundo|[Dd]'après|[Aa]ccording to) ${NAME}`,
].map((pattern) => new RegExp(pattern, 'u'));

/** Who is named as saying words in quotation marks; null for nobody. */
function saidBy(text: string): string | null {
  const outside = text.replace(/[“„«「『"][^“”„«»「」『』"]*[”“»」』"]/gu, ' … ');
  for (const pattern of NAMED) {
    const name = pattern.exec(outside)?.[1];
    if (name !== undefined && !NO_NAMES.has(name.toLowerCase())) return name;
  }
  return null;
}

/** Words with a large letter before a verb of saying that name nobody. */
const NO_NAMES = new Set(
  'he she it they we you i one who er sie es wir ihr man wer il elle on nous vous ils elles qui él ella ellos ellas yo quien ele ela eles elas eu quem everybody nobody somebody everyone someone anyone people'.split(
    ' ',
  ),
);

/** The first large number, or share, that is said in words, with what it counts; null where there is none: a small one is no news. */
function countedIn(text: string, known: LanguageWords): string | null {
  const words = text.split(/\s+/);
  const bare = (word: string) => withoutEnds(word, /[^\p{L}\p{M}\p{Cs}]/u);
  const at = words.findIndex(
    (word, place) =>
      known.striking.has(bare(word).toLowerCase()) && !OF_CLOCKS.has(bare(words[place + 1] ?? '').toLowerCase()),
  );
  if (at < 0) return null;
  const from = known.numbers.has(bare(words[at - 1] ?? '').toLowerCase()) ? at - 1 : at;
  const next = bare(words[at + 1] ?? '');
  // A number is news only with what it counts.
  const isOf = OF.has(next.toLowerCase());
  if (next === '' || /\P{L}$/u.test(words[at]!) || (known.stop.has(next.toLowerCase()) && !isOf)) return null;
  if (!isOf && FRACTIONS.has(bare(words[at]!).toLowerCase())) return null;
  const what = bare(words[at + 2] ?? '').toLowerCase();
  if (isOf && NOBODY.has(what)) return null;
  return words
    .slice(from, isOf ? at + (known.stop.has(what) ? 4 : 3) : at + 2)
    .map(bare)
    .join(' ');
}

/** Words behind a share that do not say what it is of. */
const NOBODY = new Set([
  '',
  'them',
  'it',
  'us',
  'you',
  'those',
  'these',
  'ihnen',
  'denen',
  'uns',
  'eux',
  'elles',
  'ellos',
]);

/** Shares, which are of something: “half cloud” counts nothing. */
const FRACTIONS = new Set(
  'half third quarter hälfte drittel viertel moitié tiers quart mitad tercio cuarto metade terço quarto'.split(' '),
);

/** Words between a share and what it is of. */
const OF = new Set(['of', 'der', 'des', 'von', 'de', 'du', 'del', 'do', 'da']);

/** The words of a stretch that the rest of the text comes back to. */
function topWords(sentences: readonly ScoredSentence[], spread: ReadonlyMap<string, number>): string[] {
  return [...new Set(sentences.flatMap(({ content }) => [...content]))]
    .map((word) => ({ word, times: spread.get(word) ?? 0 }))
    .filter(({ times }) => times > 2)
    .sort((one, other) => other.times - one.times || one.word.localeCompare(other.word, 'en'))
    .slice(0, 2)
    .map(({ word }) => word);
}
