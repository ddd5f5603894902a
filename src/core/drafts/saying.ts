import { mayBeSaid, type Analysis } from '../extracts/analyse';
import { isOnlyAnswer } from '../extracts/answers';
import { leadOf, pointsOutside } from '../extracts/standsAlone';
import type { DraftedSentence, DraftSource, Origin } from './draft';

/** A sentence to be put into a draft, with where it comes from. */
export interface Said {
  text: string;
  origin: Origin;
  /** Words in front of it were left off. */
  isShortened?: true;
}

/** A stretch of a piece on one line, as it is written. */
export const asWritten = ({ analysis }: DraftSource, { start, end }: { start: number; end: number }): Said => ({
  text: analysis.text.slice(start, end).replace(/\s+/g, ' ').trim(),
  origin: 'piece',
});

/** A stretch of a piece on one line, beginning large. */
export function said(source: DraftSource, stretch: { start: number; end: number }, isShortened = false): Said {
  const own = asWritten(source, stretch);
  return { ...own, text: beginLarge(own.text), ...(isShortened && { isShortened: true }) };
}

/** An address, or a name that is written with a large letter inside: both stay to the letter. */
const AS_WRITTEN = /^\P{L}*(?:\p{L}+:\/\/|www\.|\p{Ll}+\p{Lu})/u;

const beginLarge = (text: string): string =>
  AS_WRITTEN.test(text)
    ? text
    : text.replace(/^(["“„«»'‘¿¡(]*)(\p{Ll})/u, (_all, marks: string, letter: string) => marks + letter.toUpperCase());

/** The sentences of one paragraph. */
export type Paragraph = readonly Said[];

/** Paragraphs as a text: sentences apart by a space, paragraphs by a blank line. */
export const textOf = (paragraphs: readonly Paragraph[]): string =>
  paragraphs
    .filter((paragraph) => paragraph.length > 0)
    .map((paragraph) => paragraph.map(({ text }) => text).join(' '))
    .join('\n\n');

/** The sentences of paragraphs, with the field they stand in. */
export const sentencesIn = (
  field: DraftedSentence['field'],
  paragraphs: readonly Paragraph[],
  part?: number,
): DraftedSentence[] => paragraphs.flat().map((one) => ({ field, ...(part !== undefined && { part }), ...one }));

/** Words that end a stretch which leads to what follows, or that ask and are answered behind it. */
const LEADS_ON = /[:,;–—]["”’»)]*$/u;

/**
 * The sentences of a piece from one up to, not including, another as what stands alone; null where they do not. The words in front
 * that only tie them to what was said before are left off.
 */
export function standing(source: DraftSource, from: number, to: number): Said[] | null {
  const { analysis } = source;
  const own = analysis.sentences.slice(from, to);
  const [first, last] = [own[0], own.at(-1)];
  if (!first || !last || !own.every(mayBeSaid)) return null;
  const opensAt = first.opensAt ?? first.start;
  const lead = leadOf(analysis.text.slice(opensAt, first.end), analysis.language);
  const paragraph = own.map((sentence, at) =>
    at === 0
      ? said(source, { start: opensAt + lead, end: sentence.end }, lead > 0)
      : said(source, { start: sentence.opensAt ?? sentence.start, end: sentence.end }),
  );
  const text = textOf([paragraph]);
  if (LEADS_ON.test(text) || pointsOutside(text, analysis.language)) return null;
  return isOnlyAnswer(analysis.sentences[from - 1], first) ? null : paragraph;
}

/** The places of the sentences that a stretch holds whole. */
export const placesIn = ({ sentences }: Analysis, stretch: { start: number; end: number }): number[] =>
  sentences.flatMap((sentence, at) =>
    (sentence.opensAt ?? sentence.start) < stretch.end && sentence.end <= stretch.end && sentence.end > stretch.start
      ? [at]
      : [],
  );

/** The sections of a piece: the places of their sentences, with their headings; one without for a piece that has none. */
export function sectionsOf({ blocks, sentences, text }: Analysis): { heading: string | null; places: number[] }[] {
  const sections: { heading: string | null; places: number[] }[] = [{ heading: null, places: [] }];
  let block = -1;
  sentences.forEach((sentence, at) => {
    for (let next = block + 1; next <= sentence.block; next++)
      if (blocks[next]!.kind === 'heading' && (blocks[next]!.level ?? 1) > 1)
        sections.push({ heading: text.slice(blocks[next]!.start, blocks[next]!.end), places: [] });
    block = Math.max(block, sentence.block);
    sections.at(-1)!.places.push(at);
  });
  return sections.filter(({ places }) => places.length > 0);
}
