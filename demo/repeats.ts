import { randomUUID } from 'node:crypto';
import type { RepeatSaid } from '@/core/repeats/repeat';
import type { Queryable } from '@/data/database/db';
import { joinRepeat, saveRepeat } from '@/data/repeats/repeats';
import type { LocalDate } from '@/core/time/plan';
import { weekdayOf } from '@/core/time/days';

/** A post of the demo as far as a repeat looks at it. */
interface DemoPost {
  id: string;
  title: string;
  channelId: string;
  pieceId: string;
  ownerId: string;
  stage: string;
  date: LocalDate | null;
  format: RepeatSaid['format'];
}

const COMMON = { from: '', to: null, times: null, daysBefore: 0, workDays: null } as const;

/**
 * Lets three things of the demo come again: a question every Friday, a picture of the sky that never grows old, and the shower of
 * mid-December. None of them makes posts in the next weeks, which are planned already.
 *
 * @param channelOf the id of a channel by its call sign
 */
export async function seedRepeats(
  tx: Queryable,
  brandId: string,
  posts: readonly DemoPost[],
  channelOf: (callSign: string) => string | undefined,
): Promise<void> {
  const dated = posts.filter((post): post is DemoPost & { date: LocalDate } => post.date !== null);
  const on = (callSign: string, begins: RegExp) =>
    dated
      .filter(({ title, channelId }) => channelId === channelOf(callSign) && begins.test(title))
      .sort((one, other) => (one.date < other.date ? -1 : 1));
  const numberIn = ({ title }: DemoPost) => Number(title.slice(title.lastIndexOf(' ') + 1));

  const questions = on('PL', /^Friday question \d+$/);
  const [andromeda] = on('GR', /^Andromeda$/)
    .filter(({ stage }) => stage === 'published')
    .slice(-1);
  const [geminids] = on('PL', /^Geminids/).slice(-1);
  if (questions.length > 0)
    await seedOne(tx, brandId, questions, numberIn, {
      ...{ ...COMMON, kind: 'series', name: 'Friday question', format: 'text', time: '10:05', ahead: 2 },
      rule: { kind: 'weekly', weekday: 5, every: 1 },
    });
  if (andromeda)
    await seedOne(tx, brandId, [andromeda], () => 1, {
      ...{ ...COMMON, kind: 'evergreen', name: 'Andromeda', format: 'photo', time: '09:30', ahead: 1 },
      rule: { kind: 'weekly', weekday: weekdayOf(andromeda.date), every: 26 },
    });
  if (geminids)
    await seedOne(tx, brandId, [geminids], () => 1, {
      ...{ ...COMMON, kind: 'seasonal', name: 'Geminids: a plan', format: 'text', time: '18:00', ahead: 1 },
      ...{ rule: { kind: 'yearlyDate', month: 12, day: 13 }, daysBefore: 11, workDays: 45 },
    });
}

async function seedOne(
  tx: Queryable,
  brandId: string,
  posts: readonly (DemoPost & { date: LocalDate })[],
  numberOf: (post: DemoPost) => number,
  said: RepeatSaid,
): Promise<void> {
  const [first, last] = [posts[0]!, posts.at(-1)!];
  const numbers = posts.map(numberOf);
  const id = randomUUID();
  const { channelId, pieceId, ownerId } = last;
  await saveRepeat(tx, {
    ...{ ...said, id, brandId, channelId, pieceId, ownerId, from: first.date, endedAt: null },
    ...{ firstNumber: Math.min(...numbers), nextNumber: Math.max(...numbers) + 1 },
    lastRound: said.kind === 'seasonal' ? `${last.date.slice(0, 4)}-12-13` : last.date,
  });
  for (const [at, post] of posts.entries()) await joinRepeat(tx, post.id, id, numbers[at]!);
}
