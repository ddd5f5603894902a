import type { DraftedSentence, DraftSource, Origin } from './draft';

/** A sentence to be put into a draft, with where it comes from. */
export interface Said {
  text: string;
  origin: Origin;
}

/** A sentence of the piece, on one line. */
export const said = (
  { analysis }: DraftSource,
  { start, end, opensAt = start }: { start: number; end: number; opensAt?: number },
): Said => ({
  text: analysis.text.slice(opensAt, end).replace(/\s+/g, ' '),
  origin: 'piece',
});

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
): DraftedSentence[] => paragraphs.flat().map((said) => ({ field, ...(part !== undefined && { part }), ...said }));
