import type { TextFieldName } from '../posts/texts';
/** What a character is counted as: a grapheme cluster (Unicode UAX #29), a code point, or a UTF-16 unit. */
export type CountUnit = 'grapheme' | 'codePoint' | 'utf16';

export { TEXT_FIELDS, type TextFieldName } from '../posts/texts';

/** The ways a post can be published. */
export const FORMATS = [
  'photo',
  'carousel',
  'shortVideo',
  'longVideo',
  'text',
  'thread',
  'story',
  'boardPicture',
  'article',
  'newsletter',
  'live',
] as const;
export type Format = (typeof FORMATS)[number];

/** What people read for each format. */
export const FORMAT_LABELS: Record<Format, string> = {
  photo: 'photo',
  carousel: 'carousel',
  shortVideo: 'short video',
  longVideo: 'long video',
  text: 'text',
  thread: 'thread',
  story: 'story',
  boardPicture: 'board picture',
  article: 'article',
  newsletter: 'newsletter',
  live: 'live',
};

/** The part of a text that shows before a reader asks for more. Whichever comes first counts. */
export interface Fold {
  /** In the field's own counting units; null for no such fold. */
  units: number | null;
  /** In line breaks written by the author; null for no such fold. */
  lines: number | null;
}

/** How one kind of text is counted. */
export interface CountRule {
  unit: CountUnit;
  /** What a wide character (East Asian wide and fullwidth, emoji) weighs. */
  wideWeight: 1 | 2;
  /** What any link weighs; null: as long as it is. */
  linkLength: number | null;
}

/** A text field of a rule sheet. */
export interface TextFieldRule extends CountRule {
  name: TextFieldName;
  /** What this network calls it: “Caption”, “Subject”. */
  label: string;
  /** At least 1, in counting units, for the composed text. */
  limit: number;
  required: boolean;
  fold: Fold | null;
  /** What is composed into the sent text, in this order, a blank line between. Only `caption` takes more than itself. */
  parts: readonly ('text' | 'link' | 'hashtags')[];
  /** The formats that have this text; absent for all of them. */
  formats?: readonly Format[];
  /** Written with headings, lists and emphasis, and sent as Markdown. */
  rich?: boolean;
}

/** What the ordered parts of a format are: slides of a carousel, the parts of a thread after its first, frames of a story. */
export interface PartsRule {
  /** What one is called. */
  label: 'slide' | 'part' | 'frame';
  /** How many it may have. The first part of a thread is its caption and counts. */
  most: number;
  /** Units a part's own text may have, counted as the caption is. */
  limit: number;
  /** Whether a part without its own picture, or without its own text, is refused. */
  needs: 'picture' | 'text';
}

/** Widths to heights, the bounds included. */
export interface ShapeRange {
  narrowest: number;
  widest: number;
}

/** What the video of a format must be. */
export interface VideoRule {
  secondsMin: number;
  secondsMax: number;
  maxBytes: number;
  /** Absent for any shape. */
  shapes?: ShapeRange | null;
}

/** A format a network takes, with what it must and may hold. */
export interface FormatRule {
  format: Format;
  picturesMin: number;
  picturesMax: number;
  /** Shapes of pictures it takes; absent for any. */
  shapes?: ShapeRange | null;
  /** Pixels a picture is wide at least; absent for any. */
  minWidth?: number | null;
  /** What its ordered parts may hold; absent for a format without parts. */
  parts?: PartsRule | null;
  /** The video it needs; absent for a format without one. Its pictures are covers then. */
  video?: VideoRule | null;
}

/** The kinds of network there are, so that other things can speak of “every microblog”; `own` is none of them. */
export const NETWORK_KINDS = [
  'photoFeed',
  'shortVideo',
  'professionalFeed',
  'microblog',
  'pictureBoard',
  'longVideo',
  'newsletter',
  'blog',
  'personalProfile',
  'own',
] as const;
export type NetworkKind = (typeof NETWORK_KINDS)[number];

/** What people read. */
export const NETWORK_KIND_LABELS: Record<NetworkKind, string> = {
  photoFeed: 'photo feed',
  shortVideo: 'short video',
  professionalFeed: 'professional feed',
  microblog: 'microblog',
  pictureBoard: 'picture board',
  longVideo: 'long video',
  newsletter: 'newsletter',
  blog: 'blog',
  personalProfile: 'personal profile',
  own: 'another kind',
};

/** What a kind of network allows. */
export interface RuleSheet {
  /** Lower-case letters and hyphens; names the network in addresses. */
  slug: string;
  /** What people read. */
  name: string;
  /** What kind of network it is of; a copy keeps it. */
  kind: NetworkKind;
  /** Whether it takes posts from a program; if not, delivery is by hand. */
  automatic: boolean;
  /** What the account's page is, in a few words. */
  about: string;
  fields: readonly TextFieldRule[];
  /** Null for no limit; 0 for a network without hashtags. */
  hashtagLimit: number | null;
  linksClickable: boolean;
  formats: readonly FormatRule[];
  /** Media types of pictures it takes. */
  pictureTypes: readonly string[];
  /** Bytes of one picture. */
  pictureMaxBytes: number;
}

/** The texts a post of that format has on such a network, in the order they are written. */
export const fieldsOf = (sheet: RuleSheet, format: Format): TextFieldRule[] =>
  sheet.fields.filter(({ formats }) => !formats || formats.includes(format));

/** The rule of a field, or undefined where the sheet has none of that name. */
export const fieldRule = (sheet: RuleSheet, name: TextFieldName): TextFieldRule | undefined =>
  sheet.fields.find((field) => field.name === name);

/** The rule of a format, or undefined where the network does not take it. */
export const formatRule = (sheet: RuleSheet, format: Format): FormatRule | undefined =>
  sheet.formats.find((rule) => rule.format === format);
