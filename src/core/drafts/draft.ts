import type { Analysis } from '../extracts/analyse';
import type { Clip } from '../clips/clips';
import type { Extract } from '../extracts/extracts';
import type { WrittenField } from '../posts/written';
import type { OtherTexts } from './keywords';
import type { Format, RuleSheet } from '../rulesheets/types';

/** Where a drafted sentence comes from: the piece itself, its title, the brand's shelf, Bimlo's few phrases, or the team's writing service. */
export type Origin = 'piece' | 'title' | 'shelf' | 'phrase' | 'service';

/** A sentence of a draft. */
export interface DraftedSentence {
  /** The text it stands in; `parts` for that of a slide, frame or part of a thread. */
  field: WrittenField | 'parts';
  /** Which part, counted from 0. */
  part?: number;
  text: string;
  origin: Origin;
  /** Words in front of it that only tie it to what was said before were left off. */
  isShortened?: true;
}

/** How a caption opens. */
export const VARIANTS = ['question', 'claim', 'number'] as const;
export type Variant = (typeof VARIANTS)[number];

/** What people read for each. */
export const VARIANT_LABELS: Record<Variant, string> = {
  question: 'a question first',
  claim: 'a claim first',
  number: 'a number first',
};

/** The piece that drafts are made from. */
export interface DraftSource {
  title: string;
  /** Where the piece stands; empty for nowhere. */
  link: string;
  analysis: Analysis;
  /** All its extracts, the best first. */
  extracts: readonly Extract[];
  /** What is said of each picture of a photo set that a draft is made for, in their order; absent for anything else. */
  pictureLines?: readonly string[];
  /** The brand's other texts, to know what is particular to this one; absent where there are none. */
  others?: OtherTexts;
}

/** What a brand keeps for its texts. */
export interface DraftShelf {
  /** Single hashtags, with their signs. */
  hashtags: readonly string[];
}

/** What one draft is to be. */
export interface DraftOrder {
  sheet: RuleSheet;
  format: Format;
  /** How its caption opens; null for whichever is best. */
  variant: Variant | null;
  /** What it is made from, the best first; empty for the whole piece. */
  from: readonly Extract[];
  clip: Clip | null;
  /** Titles that other drafts have already. */
  titlesTaken: readonly string[];
  /** Sentences that other drafts open with, or say of the whole piece: others are taken where there are some. */
  openingsTaken: readonly string[];
  /** Sentences, by their places, among which the caption of a post of the whole piece is looked for first; those spared stand alone in it. */
  near?: { beside: readonly number[]; spared: readonly number[] };
  /** Units that the caption stays under, beside its own limit; null for none. */
  under: number | null;
  wordsPerMinute: number;
  seed: number;
}

/** The first words of a post, to be gone over by a person. */
export interface Draft {
  variant: Variant | null;
  words: Partial<Record<WrittenField, string>>;
  /** Texts of slides, frames, or the parts of a thread after its first. */
  parts: readonly string[];
  sentences: readonly DraftedSentence[];
}

/** What somebody made of a draft before its post was made: a text absent is that of the draft. */
export interface OwnTexts {
  words?: Partial<Record<WrittenField, string>> | undefined;
  /** Of every part, where one was changed. */
  parts?: readonly string[] | undefined;
}

/** All that a draft says, as one text: two drafts that say the same are the same. */
export const saidBy = (draft: Pick<Draft, 'words' | 'parts'> | undefined): string =>
  draft === undefined
    ? ''
    : [...Object.entries(draft.words).map(([field, words]) => `${field}: ${words}`), ...draft.parts].join('\n');

/**
 * Writes first drafts. Another helper can be put in the place of the rule-based one: it has to give the same for the same seed,
 * keep to the rule sheet, and say where each sentence comes from.
 *
 * @returns null where the piece gives nothing for what is asked
 */
export type DraftHelper = (source: DraftSource, shelf: DraftShelf, order: DraftOrder) => Draft | null;
