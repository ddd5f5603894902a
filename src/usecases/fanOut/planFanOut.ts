import { callsOn, withCalls, type CallGround } from '@/core/fanOut/calls';
import type { FanOutDate } from '@/core/fanOut/dates';
import { singleRow, type FanOut } from '@/core/fanOut/fanOut';
import type { DraftedRow, FanOutGround, FanOutPost } from '@/core/fanOut/ground';
import { plainlyKept } from '@/core/reading/readSource';
import { isSound, isVideo } from '@/core/media/video';
import { readDate, type Instant, type LocalDate } from '@/core/time/plan';
import type { ShelfItem } from '@/core/shelf/shelf';
import { accept, refuse, type Result } from '@/core/refusal';
import { oneBrand } from '@/data/brands/brands';
import type { Format } from '@/core/rulesheets/types';
import { listChannels, type Channel } from '@/data/brands/channels';
import { listExtracts, listOtherTexts, maybeSource } from '@/data/extracts/extracts';
import { listPieceMedia } from '@/data/media/pieceMedia';
import { listUsedStretches } from '@/data/fanOut/postExtracts';
import type { Piece } from '@/data/pieces/pieces';
import { draftInPool } from '@/data/pool/takeApart';
import { readingOfPiece } from '../extracts/keptReading';
import type { Db } from '../useCase';
import { listPostsOfPiece } from '@/data/posts/postLines';
import { listShelf } from '@/data/shelf/shelf';
import { writtenFor } from '../writing/written';
import { datesOf } from './datesOf';
import { listFanOuts } from './fanOuts';
import { readHashtags } from '@/core/captions/hashtags';

/** What is asked of a fan-out. */
export interface FanOutAsk {
  fanOut: string;
  /** One post alone instead, on a channel in a format; null for all rows of the fan-out. */
  only: { channelId: string; format: Format } | null;
  /** The day that offsets count from; null for the later of tomorrow and the piece's earliest post. */
  anchor: LocalDate | null;
  /** Channels for rows whose kind of network the brand has several of, by the row's place. */
  chosen: Record<string, string>;
  /** Places of the rows that are on; null for those whose posts do not exist yet. */
  on: number[] | null;
  /** Units that captions stay under; null for none. */
  under: number | null;
  seed: number;
  /** Whether its posts have the texts that the team's writing service wrote for them. */
  isWritten?: boolean | undefined;
}

/** A fan-out as it would be made. */
export interface FanOutPlan {
  anchor: LocalDate;
  rows: DraftedRow[];
  posts: (FanOutPost & FanOutDate)[];
}

/** Other texts that tell what is particular to a piece, and how much of each is read. */
const OTHERS = { most: 30, letters: 8_000 };

/** Works out all posts a fan-out would make of a piece now: what each is made from, its drafts, its date. Writes nothing. */
export async function planFanOut(db: Db, piece: Piece, ask: FanOutAsk, now: Instant): Promise<Result<FanOutPlan>> {
  const shelf = await listShelf(db, piece.brandId);
  const ground = await groundOf(db, piece, ask, shelf);
  if (!ground.ok) return ground;
  if (ask.anchor !== null) {
    const read = readDate(ask.anchor, 'anchor');
    if (!read.ok) return read;
  }
  const own = await draftInPool(ground.value);
  if (!own.ok) return own;
  const written = ask.isWritten ? await writtenFor(db, piece, own.value.posts) : {};
  const drafted = Object.keys(written).length > 0 ? await draftInPool({ ...ground.value, written }) : own;
  if (!drafted.ok) return drafted;
  const { rows, posts } = drafted.value;
  const { anchor, dates } = await datesOf(db, piece, ask, posts, now);
  const dated = posts.map((post) => ({ ...post, ...dates.get(post.key)! }));
  return accept({ anchor, rows, posts: withCalls(dated, callsOf(piece, ask, shelf, ground.value)) });
}

/** The calls to action of the shelf, with what they are put into drafts by. */
function callsOf(piece: Piece, ask: FanOutAsk, shelf: readonly ShelfItem[], { channels }: FanOutGround): CallGround {
  return {
    ...{ kind: piece.kind, title: piece.title, under: ask.under, seed: ask.seed },
    calls: callsOn(shelf),
    sheets: new Map(channels.map(({ id, sheet }) => [id, sheet])),
  };
}

async function groundOf(
  db: Db,
  piece: Piece,
  ask: FanOutAsk,
  shelf: readonly ShelfItem[],
): Promise<Result<FanOutGround>> {
  const [brand, channels, kept, otherTexts, judged, used, posts, media] = await Promise.all([
    oneBrand(db, piece.brandId),
    listChannels(db, piece.brandId),
    maybeSource(db, piece.id),
    listOtherTexts(db, piece, OTHERS),
    listExtracts(db, piece.id),
    listUsedStretches(db, piece.id),
    listPostsOfPiece(db, piece.id),
    piece.kind === 'photoSet' ? listPieceMedia(db, piece.id) : [],
  ]);
  const asked = rowsOf(ask, channels, await listFanOuts(db, piece.brandId));
  if (!asked.ok) return asked;
  // A piece without a text is drafted from its note: nothing of that is a part of the piece.
  const isNote = kept!.source.trim() === '';
  const own = isNote ? plainlyKept(piece.note) : kept!;
  const live = posts.filter(({ stage }) => stage !== 'setAside');
  const existing: Record<string, number> = {};
  for (const { channelId, format } of live)
    existing[`${channelId}:${format}`] = (existing[`${channelId}:${format}`] ?? 0) + 1;
  const usedOn: Record<string, { start: number; end: number }[]> = {};
  for (const { channelId, start, end } of used) (usedOn[channelId] ??= []).push({ start, end });
  return accept({
    kept: { ...own, reading: await readingOfPiece(db, piece.id, own) },
    isNote,
    pictures: media.filter((one) => !isVideo(one) && !isSound(one)).map(({ id, alt }) => ({ id, alt })),
    title: piece.title,
    link: piece.link,
    otherTexts,
    judged: judged.map(({ kind, state, start, end, reason }) => ({ kind, state, start, end, reason })),
    ...asked.value,
    channels: channels.filter(({ archived }) => !archived).map(({ id, name, sheet }) => ({ id, name, sheet })),
    used: usedOn,
    existing,
    shelf: {
      hashtags: [...new Set(shelf.flatMap(({ kind, text }) => (kind === 'hashtags' ? readHashtags(text) : [])))],
    },
    under: ask.under,
    wordsPerMinute: brand.wordsPerMinute,
    seed: ask.seed,
  });
}

/** The rows that are asked for, and which of them are on. */
function rowsOf(
  { fanOut: slug, only, chosen, on }: FanOutAsk,
  channels: readonly Channel[],
  fanOuts: readonly FanOut[],
): Result<Pick<FanOutGround, 'rows' | 'chosen' | 'on'>> {
  if (only === null) {
    const fanOut = fanOuts.find((one) => one.slug === slug);
    if (!fanOut) return refuse('noFanOut', 'There is no such fan-out. Choose one of the list.', 'fanOut');
    return accept({ rows: fanOut.rows, chosen, on });
  }
  const channel = channels.find(({ id, archived }) => id === (chosen[0] ?? only.channelId) && !archived);
  if (!channel) return refuse('noChannel', 'That channel is archived, or of another brand. Choose another.', 'only');
  return accept({ rows: [singleRow(channel.sheet.kind, only.format)], chosen: { 0: channel.id }, on: [0] });
}
