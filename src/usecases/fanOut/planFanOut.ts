import { dateFanOut, type FanOutDate, type UndatedPost } from '@/core/fanOut/dates';
import type { DraftedRow, FanOutGround, FanOutPost } from '@/core/fanOut/draftFanOut';
import { prepOfDraft } from '@/core/fanOut/prepOfDraft';
import { SHIPPED_FAN_OUTS } from '@/core/fanOut/shipped';
import { fillOpenings } from '@/core/rhythm/fill';
import { openingsBetween } from '@/core/rhythm/openings';
import type { PrepLine } from '@/core/prep/step';
import { whoDoes } from '@/core/prep/who';
import { addDays } from '@/core/time/days';
import { localOf, readDate, type Instant, type LocalDate } from '@/core/time/plan';
import { accept, refuse, type Result } from '@/core/refusal';
import { oneBrand } from '@/data/brands/brands';
import { listChannels } from '@/data/brands/channels';
import type { Queryable } from '@/data/database/db';
import { listExtracts, maybeSource } from '@/data/extracts/extracts';
import { listUsedStretches } from '@/data/fanOut/postExtracts';
import { listPeopleOfBrand } from '@/data/people/people';
import type { Piece } from '@/data/pieces/pieces';
import { draftInPool } from '@/data/pool/takeApart';
import { listPlannedPosts, listPostsOfPiece } from '@/data/posts/postLines';
import { listRhythms } from '@/data/rhythm/rhythms';
import { listShelf } from '@/data/shelf/shelf';
import { readHashtags } from '@/core/captions/hashtags';
import { moments } from '@/core/extracts/moments';
import { readCounting } from '../prep/countPrep';
import { readPrepLines } from '../prep/givePrep';

/** What is asked of a fan-out. */
export interface FanOutAsk {
  fanOut: string;
  /** The day that offsets count from; null for the later of tomorrow and the piece's earliest post. */
  anchor: LocalDate | null;
  /** Channels for rows whose kind of network the brand has several of, by the row's place. */
  chosen: Record<string, string>;
  /** Places of the rows that are on; null for those whose posts do not exist yet. */
  on: number[] | null;
  /** Units that captions stay under; null for none. */
  under: number | null;
  seed: number;
}

/** A fan-out as it would be made. */
export interface FanOutPlan {
  anchor: LocalDate;
  rows: DraftedRow[];
  posts: (FanOutPost & FanOutDate)[];
}

/** Works out all posts a fan-out would make of a piece now: what each is made from, its drafts, its date. Writes nothing. */
export async function planFanOut(
  db: Queryable,
  piece: Piece,
  ask: FanOutAsk,
  now: Instant,
): Promise<Result<FanOutPlan>> {
  const ground = await groundOf(db, piece, ask);
  if (!ground.ok) return ground;
  if (ask.anchor !== null) {
    const read = readDate(ask.anchor, 'anchor');
    if (!read.ok) return read;
  }
  const drafted = await draftInPool(ground.value);
  if (!drafted.ok) return drafted;
  const { rows, posts } = drafted.value;
  const { anchor, dates } = await datesOf(db, piece, ask, posts, now);
  return accept({ anchor, rows, posts: posts.map((post) => ({ ...post, ...dates.get(post.key)! })) });
}

async function groundOf(db: Queryable, piece: Piece, ask: FanOutAsk): Promise<Result<FanOutGround>> {
  const fanOut = SHIPPED_FAN_OUTS.find(({ slug }) => slug === ask.fanOut);
  if (!fanOut) return refuse('noFanOut', 'There is no such fan-out. Choose one of the list.', 'fanOut');
  const [brand, channels, kept, judged, used, posts, shelf] = await Promise.all([
    oneBrand(db, piece.brandId),
    listChannels(db, piece.brandId),
    maybeSource(db, piece.id),
    listExtracts(db, piece.id),
    listUsedStretches(db, piece.id),
    listPostsOfPiece(db, piece.id),
    listShelf(db, piece.brandId),
  ]);
  const live = posts.filter(({ stage }) => stage !== 'setAside');
  const existing: Record<string, number> = {};
  for (const { channelId, format } of live)
    existing[`${channelId}:${format}`] = (existing[`${channelId}:${format}`] ?? 0) + 1;
  const usedOn: Record<string, { start: number; end: number }[]> = {};
  for (const { channelId, start, end } of used) (usedOn[channelId] ??= []).push({ start, end });
  const ofKind = (kind: string) => shelf.filter((item) => item.kind === kind);
  return accept({
    kept: kept!,
    title: piece.title,
    link: piece.link,
    judged: judged.map(({ kind, state, start, end, reason }) => ({ kind, state, start, end, reason })),
    rows: fanOut.rows,
    channels: channels.filter(({ archived }) => !archived).map(({ id, name, sheet }) => ({ id, name, sheet })),
    chosen: ask.chosen,
    on: ask.on,
    used: usedOn,
    existing,
    shelf: {
      hashtags: [...new Set(ofKind('hashtags').flatMap(({ text }) => readHashtags(text)))],
      callsToAction: ofKind('callToAction').map(({ text }) => text),
    },
    under: ask.under,
    wordsPerMinute: brand.wordsPerMinute,
    seed: ask.seed,
  });
}

/** Days beyond the anchor and the longest offset in which openings are looked for. */
const AHEAD_DAYS = 366;

/** The dates of the posts of a fan-out as openings, days taken, and prep stand now. */
export async function datesOf(
  db: Queryable,
  piece: Piece,
  ask: Pick<FanOutAsk, 'anchor'>,
  posts: readonly (Omit<UndatedPost, 'pillarId'> & Pick<FanOutPost, 'from'>)[],
  now: Instant,
): Promise<{
  anchor: LocalDate;
  dates: Map<string, FanOutDate>;
  prepOf: (post: Pick<FanOutPost, 'format' | 'from'>) => PrepLine[];
}> {
  const brand = await oneBrand(db, piece.brandId);
  const today = localOf(now, brand.zone).date;
  const [own, rhythms, people, lines] = await Promise.all([
    listPostsOfPiece(db, piece.id),
    listRhythms(db, [piece.brandId]),
    listPeopleOfBrand(db, piece.brandId),
    readPrepLines(db, piece.brandId),
  ]);
  const dated = own.flatMap(({ stage, date, channelId }) =>
    stage !== 'setAside' && date !== null ? [{ date, channelId }] : [],
  );
  const earliest = dated.map(({ date }) => date).sort()[0];
  const tomorrow = addDays(today, 1);
  const anchor = ask.anchor ?? (earliest !== undefined && earliest > tomorrow ? earliest : tomorrow);
  const last = addDays(anchor, Math.max(0, ...posts.map(({ offset }) => offset)) + AHEAD_DAYS);
  const channelIds = new Set(posts.map(({ channelId }) => channelId));
  const asked = rhythms.filter(({ channelId }) => channelIds.has(channelId));
  const openings = asked.flatMap((rhythm) => openingsBetween(rhythm, tomorrow, last, brand.zone));
  const { filledBy } = fillOpenings(openings, await listPlannedPosts(db, [piece.brandId], tomorrow, last));
  const takenDays = new Map<string, Set<LocalDate>>();
  for (const { date, channelId } of dated) takenDays.set(channelId, (takenDays.get(channelId) ?? new Set()).add(date));
  const count = await readCounting(
    db,
    piece.brandId,
    people.map(({ id }) => id),
  );
  const prepOf = ({ format, from: [first] }: Pick<FanOutPost, 'format' | 'from'>): PrepLine[] =>
    prepOfDraft(
      lines(format),
      first?.kind === 'clip' && first.inMs !== undefined && first.outMs !== undefined
        ? `Clip from ${moments(first.inMs, first.outMs)}`
        : null,
    );
  const preps = new Map(
    posts.map((post) => [post.key, prepOf(post).filter(({ needed, lead }) => needed && lead >= 0)]),
  );
  const dates = dateFanOut(
    posts.map((post) => ({ ...post, pillarId: null })),
    {
      anchor,
      today,
      openings: openings.filter(({ key }) => !filledBy.has(key)),
      rhythmic: new Set(asked.filter(({ entries }) => entries.length > 0).map(({ channelId }) => channelId)),
      takenDays,
      isSqueezed: ({ key }, date) => {
        const steps = preps
          .get(key)!
          .map((line) => ({ ...line, ownerId: whoDoes(line, people, piece.ownerId), pinned: null, doneOn: null }));
        return count(date, steps).some((day) => day !== null && day < today);
      },
    },
  );
  return { anchor, dates, prepOf };
}
