import type { Draft, DraftShelf } from '../drafts/draft';
import type { ExtractKind, Taken } from '../extracts/extracts';
import type { SourceText, TextToRead } from '../reading/readSource';
import type { Format, RuleSheet } from '../rulesheets/types';
import type { Fits } from '../shelf/fits';
import type { FanOutRow } from './fanOut';

/** A channel that posts can be made for. */
export interface FanOutChannel {
  id: string;
  name: string;
  sheet: RuleSheet;
}

/** An extract or clip that somebody accepted or rejected. */
export interface JudgedExtract extends Taken {
  kind: ExtractKind | 'clip';
  state: 'accepted' | 'rejected';
  reason: string;
}

/** All that drafts of a fan-out depend on. Plain values: it is worked out on a thread of its own. */
export interface FanOutGround {
  kept: TextToRead & Pick<SourceText, 'isWordTimed'>;
  /** The pictures of a photo set, in their order; absent or empty for any other piece. */
  pictures?: readonly { id: string; alt: string }[];
  /** Whether that is the note of a piece without a text: then nothing is an extract of it. */
  isNote?: boolean;
  title: string;
  link: string;
  /** Beginnings of the brand's other texts; absent or empty for none. */
  otherTexts?: readonly string[];
  judged: readonly JudgedExtract[];
  rows: readonly FanOutRow[];
  channels: readonly FanOutChannel[];
  /** The channel that a row takes where its kind of network has several, by the row's place; the first unless told. */
  chosen: Readonly<Record<number, string>>;
  /** Places of the rows that are on; null for those whose posts do not exist yet. */
  on: readonly number[] | null;
  /** Stretches of the text that a channel had already. */
  used: Readonly<Record<string, readonly Taken[]>>;
  /** Live posts of the piece, by `channel id:format`. */
  existing: Readonly<Record<string, number>>;
  shelf: DraftShelf;
  /** What the team's writing service wrote, by the draft it is for (`writtenKey`); absent where it is not to write. */
  written?: Readonly<Record<string, readonly string[]>>;
  under: number | null;
  wordsPerMinute: number;
  seed: number;
}

/** A row with what became of it. */
export interface DraftedRow extends FanOutRow {
  isOn: boolean;
  /** The channels it could take. */
  channelIds: string[];
  channelId: string | null;
  /** Posts it makes, or would make. */
  makes: number;
  /** Why it makes none, or fewer; empty where there is nothing to say. */
  note: string;
}

/** A post that a fan-out proposes. */
export interface FanOutPost {
  key: string;
  row: number;
  number: number;
  channelId: string;
  format: Format;
  offset: number;
  gap: number;
  /** What it is made from; empty for the whole piece. */
  from: {
    kind: ExtractKind | 'clip';
    start: number;
    end: number;
    text: string;
    reason: string;
    inMs?: number;
    outMs?: number;
  }[];
  drafts: readonly Draft[];
  /** What of the shelf its drafts end with, and for what that holds. */
  call?: { text: string; fits: Fits };
  /** Of a photo set: the pictures of the piece that it shows, in order. */
  pictures?: readonly string[];
}
