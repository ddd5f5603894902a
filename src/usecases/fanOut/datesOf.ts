import { dateFanOut, type FanOutDate, type UndatedPost } from '@/core/fanOut/dates';
import type { FanOutPost } from '@/core/fanOut/ground';
import { prepOfDraft } from '@/core/fanOut/prepOfDraft';
import { moments } from '@/core/extracts/moments';
import { fillOpenings } from '@/core/rhythm/fill';
import { openingsBetween } from '@/core/rhythm/openings';
import type { PrepLine } from '@/core/prep/step';
import { whoDoes } from '@/core/prep/who';
import { addDays } from '@/core/time/days';
import { localOf, type Instant, type LocalDate } from '@/core/time/plan';
import { oneBrand } from '@/data/brands/brands';
import type { Queryable } from '@/data/database/db';
import { listPeopleOfBrand } from '@/data/people/people';
import type { Piece } from '@/data/pieces/pieces';
import { listPlannedPosts, listPostsOfPiece } from '@/data/posts/postLines';
import { listRhythms } from '@/data/rhythm/rhythms';
import { readCounting } from '../prep/countPrep';
import { readPrepLines } from '../prep/givePrep';

/** Days beyond the anchor and the longest offset in which openings are looked for. */
const AHEAD_DAYS = 366;

/** The dates of posts to be made of a piece as openings, days taken, and prep stand now, and the prep they come with. */
export async function datesOf(
  db: Queryable,
  piece: Piece,
  ask: { anchor: LocalDate | null; rowDays?: ReadonlyMap<number, readonly LocalDate[]> },
  posts: readonly (Omit<UndatedPost, 'pillarId'> & Pick<FanOutPost, 'from'> & { pillarId?: string | null })[],
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
    posts.map((post) => ({ pillarId: null, ...post })),
    {
      anchor,
      today,
      openings: openings.filter(({ key }) => !filledBy.has(key)),
      rhythmic: new Set(asked.filter(({ entries }) => entries.length > 0).map(({ channelId }) => channelId)),
      takenDays,
      ...(ask.rowDays && { rowDays: ask.rowDays }),
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
