import { composeField } from '../captions/compose';
import { countText } from '../captions/count';
import { saidBy, type Draft, type DraftedSentence, type DraftHelper, type DraftOrder } from '../drafts/draft';
import { overIn, roomOf } from '../fanOut/ownTexts';
import { partsRule } from '../posts/parts';
import { foreignLanguage } from '../reading/foreign';
import { accept, refuse, type Result } from '../refusal';
import { pointsOutside } from '../extracts/standsAlone';
import { LANGUAGES, type Language } from '../extracts/languages';
import { fieldsOf, FORMAT_LABELS, type TextFieldName } from '../rulesheets/types';
import { cleanText } from '../text/clean';
import { withArticle } from '../words';
import type { WantedText, WritingRequest } from './form';

/** Texts that a service writes; the others are none of sentences. */
const WRITES: readonly TextFieldName[] = ['headline', 'preheader', 'caption'];

/** A text of a draft that a service writes: a field by its name, or a part by its place. */
type Place = TextFieldName | number;

/** The network and format that a draft is for. */
type For = Pick<DraftOrder, 'sheet' | 'format'>;

/** What a draft is known by: for whom it is, and what it says. */
export const writtenKey = (draft: Draft, { sheet, format }: For): string => `${sheet.slug} ${format}\n${saidBy(draft)}`;

function placesOf(draft: Draft, { sheet, format }: For): Place[] {
  const fields = fieldsOf(sheet, format)
    .map(({ name }) => name)
    .filter((name) => WRITES.includes(name) && (draft.words[name] ?? '').trim() !== '');
  return [...fields, ...draft.parts.map((_part, at) => at)];
}

const textAt = ({ words, parts }: Draft, place: Place): string =>
  typeof place === 'number' ? parts[place]! : (words[place] ?? '');

/** What a service is asked for a draft. @param source the part of the piece that the draft is made from */
export function requestFor(draft: Draft, to: For, source: string, language: string | null): WritingRequest {
  const { sheet, format } = to;
  return {
    language,
    task: `Write the texts of ${withArticle(FORMAT_LABELS[format])}. Its network: ${sheet.about || sheet.name}. Say only what the source says.`,
    rules: [
      'Write whole sentences in the language of the source.',
      'Add no fact, name, number or date that the source does not hold.',
      'Use no more characters than each text may have.',
      'Give as many texts as are wanted, in their order.',
    ],
    source,
    wanted: placesOf(draft, to).map((place) => wantedAt(draft, to, place)),
  };
}

function wantedAt(draft: Draft, { sheet, format }: For, place: Place): WantedText {
  const start = textAt(draft, place);
  if (typeof place === 'number')
    return { text: `Part ${place + 1}`, most: partsRule(sheet, format)?.limit ?? start.length, start };
  const rule = fieldsOf(sheet, format).find(({ name }) => name === place)!;
  const words = { headline: '', caption: '', hashtags: '', link: '', ...draft.words };
  const around = countText(composeField(words, rule, sheet.hashtagLimit), rule) - countText(start, rule);
  return { text: rule.label, most: rule.limit - around, start };
}

/** How a text ends that is whole: with a mark, perhaps in quotation marks or brackets, or a picture sign. */
const WHOLE = /[.!?…:。！？][\p{Pf}\p{Pe}"'’”]{0,3}$|\p{Extended_Pictographic}\uFE0F?$/u;

/**
 * A draft with the texts that a service gave for it, each of its paragraphs to be read by a person. They are held to what Bimlo's own
 * are held to: that they are there, whole, understood where they stand, in the language of the piece, said once, and fit.
 */
export function writtenDraft(draft: Draft, to: For, given: readonly string[], language: string | null): Result<Draft> {
  const own = LANGUAGES.find((known): known is Language => known === language) ?? null;
  const places = placesOf(draft, to);
  if (given.length !== places.length)
    return refuse('badAnswer', `it gave ${given.length} texts instead of ${places.length}`);
  const texts = given.map((text) => cleanText(text).trim());
  const words = { ...draft.words };
  const parts = [...draft.parts];
  const sentences: DraftedSentence[] = draft.sentences.filter(
    ({ field, part }) => !places.includes(field === 'parts' ? (part ?? 0) : (field as TextFieldName)),
  );
  const said = new Set<string>();
  for (const [at, place] of places.entries()) {
    const text = texts[at]!;
    if (text === '') return refuse('empty', 'it gave an empty text');
    if (place !== 'headline' && place !== 'preheader' && !WHOLE.test(text))
      return refuse('broken', 'one of its texts breaks off in a sentence');
    const [opening = ''] = text.split(/\n+/);
    if (place === 'caption' && pointsOutside(opening, language) !== null)
      return refuse('leans', 'one of its texts leans on something that is not said in it');
    if (foreignLanguage(text, own) !== null) return refuse('foreign', 'one of its texts is in another language');
    for (const paragraph of text.split(/\n+/).filter((one) => one.trim() !== '')) {
      if (said.has(paragraph) && place !== 'headline') return refuse('repeats', 'it says the same twice');
      said.add(paragraph);
      const field = typeof place === 'number' ? ('parts' as const) : place;
      sentences.push({ field, ...(typeof place === 'number' && { part: place }), text: paragraph, origin: 'service' });
    }
    if (typeof place === 'number') parts[place] = text;
    else words[place] = text;
  }
  const made: Draft = { ...draft, words, parts, sentences };
  const [over] = overIn(roomOf(made, {}, to.sheet, to.format));
  return over ? refuse('tooLong', `one of its texts does not fit (${over})`) : accept(made);
}

/** A helper whose drafts have the texts that a service wrote for them, where it did and they hold. */
export const serviceBacked =
  (helper: DraftHelper, written: Readonly<Record<string, readonly string[]>>): DraftHelper =>
  (source, shelf, order) => {
    const draft = helper(source, shelf, order);
    const texts = draft && written[writtenKey(draft, order)];
    if (!draft || !texts) return draft;
    const made = writtenDraft(draft, order, texts, source.analysis.language);
    return made.ok ? made.value : draft;
  };
