import { countOthers } from '../drafts/keywords';
import { ruleBasedHelper } from '../drafts/ruleBased';
import type { Draft, DraftShelf } from '../drafts/draft';
import { analyse } from '../extracts/analyse';
import { findClips, type Clip } from '../extracts/clips';
import { findExtracts, overlaps, type Extract, type ExtractKind, type Taken } from '../extracts/extracts';
import { timesOf } from '../pieces/subtitles';
import { readingOf, type SourceText, type TextToRead } from '../pieces/readSource';
import type { Format, RuleSheet } from '../rulesheets/types';
import { draftPosts } from './draftPosts';
import { askedOf } from './askedRow';
import { draftPhotoSet } from './draftPhotoSet';
import { dealRow, type FanOutRow } from './fanOut';

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
  /** Of a photo set: the pictures of the piece that it shows, in order. */
  pictures?: readonly string[];
}

/** Extracts looked for beside those that were accepted. */
const LOOKED_FOR = 24;

/** Drafts all posts of a fan-out: the accepted extracts are dealt first, then what Bimlo proposes. */
export function draftFanOut(ground: FanOutGround): { rows: DraftedRow[]; posts: FanOutPost[] } {
  if (ground.pictures?.length) return draftPhotoSet(ground, ground.pictures);
  const { kept, judged, channels, used, shelf, under, wordsPerMinute, seed } = ground;
  const reading = readingOf(kept);
  const analysis = analyse({ ...reading, cues: kept.cues, isWordTimed: kept.isWordTimed });
  const textOf = ({ start, end }: Taken) => reading.text.slice(start, end);
  const accepted = judged.filter(({ state }) => state === 'accepted');
  const isClip = ({ kind }: JudgedExtract) => kind === 'clip';
  const own = accepted.flatMap((one): Extract[] =>
    one.kind === 'clip'
      ? []
      : [{ ...one, kind: one.kind, text: textOf(one), ...timesOf(kept.cues, one.start, one.end) }],
  );
  const extracts = [
    ...own,
    ...findExtracts(
      analysis,
      LOOKED_FOR,
      judged.filter((one) => !isClip(one)),
    ),
  ];
  const ownClips = accepted.filter(isClip).flatMap((one): Clip[] => {
    const times = timesOf(kept.cues, one.start, one.end);
    return times ? [{ start: one.start, end: one.end, ...times, text: textOf(one) }] : [];
  });
  const takenClips = judged.filter(isClip);
  const clips = [...ownClips, ...findClips(analysis, {}, (one) => !takenClips.some((clip) => overlaps(clip, one)))];
  const others = countOthers(ground.otherTexts ?? []);
  const source = { title: ground.title, link: ground.link, analysis, extracts, others };
  const taken = new Map(
    channels.map(({ id }) => [id, [...(used[id] ?? [])].map(({ start, end }) => ({ start, end }))]),
  );
  const titles = new Map(channels.map(({ id }) => [id, [] as string[]]));
  const spread = new Map<number, number>();
  const rows: DraftedRow[] = [];
  const posts: FanOutPost[] = [];
  ground.rows.forEach((row, at) => {
    const asked = askedOf(row, at, ground);
    if (!('channel' in asked)) return void rows.push(asked.row);
    const { channel, base, already } = asked;
    const dealt = dealRow(row, at, extracts, clips, taken.get(channel.id)!, spread);
    const drafted = draftPosts(
      ruleBasedHelper,
      source,
      dealt,
      { sheet: channel.sheet, format: row.format },
      { shelf, under, wordsPerMinute, seed },
      titles.get(channel.id)!,
    );
    const few =
      dealt.length < row.count
        ? `${dealt.length === 0 ? 'nothing' : `only ${dealt.length}`} left in the piece for ${row.count}`
        : '';
    rows.push({ ...base, isOn: true, makes: dealt.length, note: [already, few].filter(Boolean).join('; ') });
    for (const { number, from, clip, drafts } of drafted)
      posts.push({
        key: `${at}-${number}-${channel.id}`,
        row: at,
        number,
        channelId: channel.id,
        format: row.format,
        offset: row.offset,
        gap: row.gap,
        from: ground.isNote ? [] : clip ? [{ ...clip, kind: 'clip', reason: '' }] : [...from],
        drafts,
      });
  });
  return { rows, posts };
}
