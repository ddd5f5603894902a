import { formatOn } from '@/core/calendar/drop';
import { carryText } from '@/core/captions/carry';
import { reopen, type LineOrigin } from '@/core/encores/firstLines';
import type { FanOutDate } from '@/core/fanOut/dates';
import { blocksOf } from '@/core/posts/readiness';
import { accept, refuse, type Result } from '@/core/refusal';
import { fieldRule, type Format } from '@/core/rulesheets/types';
import { addDays, daysBetween } from '@/core/time/days';
import { localOf, readDate, type Instant, type LocalDate, type LocalTime } from '@/core/time/plan';
import { oneBrand } from '@/data/brands/brands';
import { listChannelsById, type Channel } from '@/data/brands/channels';
import type { Queryable } from '@/data/database/db';
import { listSameCaptions } from '@/data/encores/encores';
import { maybeSource } from '@/data/extracts/extracts';
import { listPictures } from '@/data/media/media';
import type { Piece } from '@/data/pieces/pieces';
import { takeApartInPool } from '@/data/pool/takeApart';
import { readingOfPiece } from '../extracts/keptReading';
import type { Db } from '../useCase';
import type { Post } from '@/data/posts/posts';
import { listNames } from '@/data/shelf/shelf';
import { datesOf } from '../fanOut/datesOf';

/** How a post is to be used again. */
export interface AgainAsk {
  channelIds: string[];
  /** Posts on each channel. */
  times: number;
  /** Days from one to the next, at least. */
  everyDays: number;
  /** The day from which on; null for the earliest there is. */
  from: LocalDate | null;
  /** Whether they go into openings; otherwise they have no date. */
  isDated: boolean;
  /** Whether each begins with another line than it did. */
  isReopened: boolean;
  /** Whether a text that runs over is cut; otherwise it stays and is marked. */
  isFitted: boolean;
}

/** Most posts on a channel at once, and most days between them. */
const AGAIN_LIMITS = { times: 5, everyDays: 180 } as const;

/** A post that would be made. */
export interface AgainPost {
  key: string;
  channelId: string;
  format: Format;
  caption: string;
  hashtags: string;
  origin: LineOrigin;
  date: LocalDate | null;
  time: LocalTime | null;
  pillarId: string | null;
  isSqueezed: boolean;
  /** What its network would not take, and what was done to its text. */
  notes: string[];
  /** A day within 30 days of its own on which its channel has the same text; null for none. */
  sameOn: LocalDate | null;
}

/** Days within which a channel given the same text is told. */
const SAME_TEXT_DAYS = 30;
/** Sentences of the piece that are tried as first lines. */
const LINES = 10;

/** Works out the posts that using a post again would make. Writes nothing. */
export async function planAgain(
  db: Db,
  post: Post,
  piece: Piece,
  ask: AgainAsk,
  now: Instant,
): Promise<Result<AgainPost[]>> {
  const channels = await channelsOf(db, post, ask);
  if (!channels.ok) return channels;
  const checked = checkAsk(ask);
  if (!checked.ok) return checked;
  const [pictures, names, lines] = await Promise.all([
    listPictures(db, post.id),
    listNames(db, post.brandId),
    ask.isReopened ? linesOf(db, piece) : accept<string[]>([]),
  ]);
  if (!lines.ok) return lines;
  const from = (await listChannelsById(db, [post.channelId]))[0]!;
  const drafted = channels.value.flatMap((channel, row) =>
    draftsFor(post, piece, from, channel, ask, names, lines.value).map((draft, number) => ({
      ...draft,
      ...{ key: `${number}-${channel.id}`, row, number, channelId: channel.id },
      format: formatOn(channel.sheet, post.format),
    })),
  );
  const dates = await datesAgain(db, post, piece, ask, drafted, now);
  const posts = drafted.map(({ row: _row, number: _number, note, ...draft }): AgainPost => {
    const { sheet } = channels.value.find(({ id }) => id === draft.channelId)!;
    const content = { ...post, caption: draft.caption, hashtags: draft.hashtags, format: draft.format, pictures };
    const blocks = blocksOf(content, sheet).map(({ message }) => message);
    return { ...draft, ...dates.get(draft.key)!, notes: [...(note ? [note] : []), ...blocks], sameOn: null };
  });
  return accept(
    await withSameTexts(db, posts, channels.value, localOf(now, (await oneBrand(db, post.brandId)).zone).date),
  );
}

function checkAsk(ask: AgainAsk): Result<true> {
  const isIn = (value: number, most: number) => Number.isInteger(value) && value >= 1 && value <= most;
  if (!isIn(ask.times, AGAIN_LIMITS.times))
    return refuse('badTimes', `A post is made again 1 to ${AGAIN_LIMITS.times} times at once.`, 'times');
  if (!isIn(ask.everyDays, AGAIN_LIMITS.everyDays))
    return refuse('badDays', `The days between are 1 to ${AGAIN_LIMITS.everyDays}.`, 'everyDays');
  const read = ask.from === null ? null : readDate(ask.from, 'from');
  return read && !read.ok ? read : accept(true);
}

async function channelsOf(db: Queryable, post: Post, ask: AgainAsk): Promise<Result<Channel[]>> {
  const ids = [...new Set(ask.channelIds)];
  if (ids.length === 0) return refuse('noChannel', 'Choose at least one channel.', 'channelIds');
  const found = new Map((await listChannelsById(db, ids)).map((channel) => [channel.id, channel]));
  const channels = ids.map((id) => found.get(id));
  if (!channels.every((channel) => channel && channel.brandId === post.brandId && !channel.archived))
    return refuse(
      'foreignChannel',
      'That channel belongs to another brand, or is archived. Choose among the channels of this brand.',
      'channelIds',
    );
  return accept(channels as Channel[]);
}

/** Sentences of the piece that could open a post: what was accepted first, then what is proposed. */
async function linesOf(db: Db, piece: Piece): Promise<Result<string[]>> {
  const source = piece.sourceText.trim() === '' ? undefined : await maybeSource(db, piece.id);
  if (!source) return accept([]);
  const reading = await readingOfPiece(db, piece.id, source);
  const apart = await takeApartInPool({ kept: { ...source, reading }, taken: [], takenClips: [] });
  if (!apart.ok) return apart;
  const { extracts, sentences } = apart.value;
  // One sentence opens a post; an extract may be three.
  return accept(
    extracts.slice(0, LINES).flatMap((extract) => {
      const first = sentences.find(({ start, end }) => start <= extract.start && extract.start < end);
      return first ? [apart.value.text.slice(extract.start, first.end).replace(/\s+/g, ' ')] : [];
    }),
  );
}

type Drafted = Pick<AgainPost, 'caption' | 'hashtags' | 'origin'> & { note: string };

function draftsFor(
  post: Post,
  piece: Piece,
  from: Channel,
  channel: Channel,
  ask: AgainAsk,
  names: Parameters<typeof carryText>[3],
  lines: readonly string[],
): Drafted[] {
  const carried = carryText(
    { ...post, network: from.sheet.slug },
    post,
    channel.sheet,
    names,
    ask.isFitted ? 'fitted' : 'asItIs',
  );
  const base = { caption: carried.caption, hashtags: carried.hashtags };
  const others = ask.isReopened
    ? reopen({ ...base, link: post.link }, { title: piece.title, extracts: lines }, channel.sheet)
    : [];
  const cut = carried.shortened ? `Cut to the ${fieldRule(channel.sheet, 'caption')?.limit ?? ''} that fit.` : '';
  return Array.from({ length: ask.times }, (_one, number): Drafted => {
    const other = others[number];
    if (other) return { ...base, ...other, note: cut };
    const note = ask.isReopened ? 'No other first line was found.' : '';
    return { ...base, origin: 'asItWas', note: [cut, note].filter(Boolean).join(' ') };
  });
}

type Undated = Pick<AgainPost, 'key' | 'channelId' | 'format'> & { row: number; number: number };

/** Where the posts go now: into openings from the day asked for, none nearer to another than asked. */
export async function datesAgain(
  db: Queryable,
  post: Post,
  piece: Piece,
  ask: AgainAsk,
  posts: readonly Undated[],
  now: Instant,
): Promise<Map<string, FanOutDate>> {
  if (!ask.isDated) {
    const none = { date: null, time: null, pillarId: post.pillarId, isSqueezed: false };
    return new Map(posts.map(({ key }) => [key, none]));
  }
  const today = localOf(now, (await oneBrand(db, post.brandId)).zone).date;
  const tomorrow = addDays(today, 1);
  // It goes out itself first.
  const after = post.date === null || post.date <= today ? tomorrow : addDays(post.date, ask.everyDays);
  const { dates } = await datesOf(
    db,
    piece,
    { anchor: ask.from ?? after },
    posts.map((one) => ({
      ...one,
      ...{ offset: one.number * ask.everyDays, gap: ask.everyDays, from: [], pillarId: post.pillarId },
    })),
    now,
  );
  return dates;
}

/** Tells of each post where its channel is given the same text within 30 days. */
async function withSameTexts(
  db: Queryable,
  posts: AgainPost[],
  channels: readonly Channel[],
  today: LocalDate,
): Promise<AgainPost[]> {
  const days = posts.map(({ date }) => date ?? today).sort();
  const known = await listSameCaptions(
    db,
    channels.map(({ id }) => id),
    [...new Set(posts.map(({ caption }) => caption))].filter((caption) => caption.trim() !== ''),
    addDays(days[0]!, -SAME_TEXT_DAYS),
    addDays(days.at(-1)!, SAME_TEXT_DAYS),
  );
  return posts.map((post) => {
    const on = post.date ?? today;
    const isSame = (other: { channelId: string; caption: string; date: LocalDate | null }) =>
      other.channelId === post.channelId &&
      other.caption === post.caption &&
      Math.abs(daysBetween(other.date ?? today, on)) <= SAME_TEXT_DAYS;
    const same = [...known, ...posts.filter((other) => other !== post && other.date !== null)].find(isSame);
    return same ? { ...post, sameOn: same.date } : post;
  });
}
