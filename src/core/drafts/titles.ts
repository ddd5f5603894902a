import { countText } from '../captions/count';
import type { TextFieldRule } from '../rulesheets/types';
import type { DraftOrder, DraftSource } from './draft';
import { withoutNumber } from '../text/headings';
import { placesIn, sectionsOf, standing, type Said } from './saying';

/** Letters of a heading that says something, at least. */
const LEAST_LETTERS = 4;
/** Words of a title, at least, that is not the piece's own. */
const LEAST_WORDS = 2;

/** A sentence as a title: without the full stop at its end, which titles have none of. */
const asTitle = (sentence: string): string => sentence.replace(/(?<![.…])\.$/u, '').trim();

/** What sections of any text are called, and what says nothing of this one. */
const OF_ANY_TEXT =
  /^(?:what this \p{L}+ is about|about this \p{L}+|executive summary|introduction|intro|description|overview|summary|abstract|background|context|conclusions?|discussion|results|methods?|authors?|about(?: the authors?)?|acknowledge?ments?|appendix|preface|foreword|prologue|epilogue|faq|general|miscellaneous|einleitung|einführung|beschreibung|überblick|übersicht|zusammenfassung|hintergrund|fazit|schluss|ergebnis(?:se)?|autor(?:en|in)?|danksagung|anhang|vorwort|allgemeines|présentation|résumé|aperçu|contexte|auteurs?|remerciements|annexe|préface|avant-propos|généralités|introducción|descripción|resumen|contexto|conclusi(?:ón|ones)|autor(?:es|a)?|agradecimientos|apéndice|prólogo|prefacio|generalidades|introdução|descrição|resumo|visão geral|conclus(?:ão|ões)|agradecimentos|apêndice|prefácio)[.:]?$/iu;

/** A heading as a title; null for one that any text may have, or that only abbreviates something. */
export function titleOfHeading(heading: string): Said | null {
  const text = asTitle(withoutNumber(heading));
  return text.length < LEAST_LETTERS || OF_ANY_TEXT.test(text) ? null : { text, origin: 'piece' };
}

/**
 * A title nobody has yet, always a whole one: of an extract one of its sentences, else the heading it stands below, of a single
 * sentence the heading first, and where neither does the piece's title; of the whole piece its own title, else its best sentence
 * that stands alone and fits. Null where there is none.
 *
 * @param beside what stands right below it, which it does not say
 */
export function titleOf(source: DraftSource, order: DraftOrder, rule: TextFieldRule, beside = ''): Said | null {
  const taken = new Set(order.titlesTaken.map((one) => one.toLowerCase()));
  const isFree = ({ text, origin }: Said) =>
    (origin === 'title' ? text !== '' : text.split(/\s+/).length >= LEAST_WORDS) &&
    countText(text, rule) <= rule.limit &&
    !taken.has(text.toLowerCase()) &&
    text !== asTitle(beside);
  for (const one of candidatesOf(source, order)) if (isFree(one)) return one;
  return null;
}

/** What may be a title, the best first. */
function* candidatesOf(source: DraftSource, { from, clip }: DraftOrder): Generator<Said> {
  const { analysis, title } = source;
  const stretch = clip ?? from[0];
  const byScore = (places: readonly number[]) =>
    [...places].sort((one, other) => analysis.sentences[other]!.score - analysis.sentences[one]!.score);
  const sentences = function* (places: readonly number[]): Generator<Said> {
    for (const at of byScore(places)) {
      const words = standing(source, at, at + 1);
      if (words) yield { ...words[0]!, text: asTitle(words[0]!.text) };
    }
  };
  if (stretch) {
    const inside = placesIn(analysis, stretch);
    // Of one sentence alone the post would say the same twice.
    if (inside.length > 1) yield* sentences(inside);
    const section = sectionsOf(analysis).find(({ places }) => inside.some((at) => places.includes(at)));
    const heading = section?.heading ? titleOfHeading(section.heading) : null;
    if (heading) yield heading;
    if (clip) yield { text: title, origin: 'title' };
    if (inside.length === 1) yield* sentences(inside);
    if (!clip) yield { text: title, origin: 'title' };
    return;
  }
  yield { text: title, origin: 'title' };
  yield* sentences([...analysis.sentences.keys()]);
}
