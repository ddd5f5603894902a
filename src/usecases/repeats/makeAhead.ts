import { BLANK_STEP } from '@/core/prep/step';
import { roundTitle } from '@/core/repeats/repeat';
import { nextRounds } from '@/core/repeats/rounds';
import { addDays } from '@/core/time/days';
import { dueInstant, localOf, type LocalDate, type LocalTime } from '@/core/time/plan';
import { oneBrand } from '@/data/brands/brands';
import { maybeChannel } from '@/data/brands/channels';
import { insertPostExtracts, listExtractIdsOf } from '@/data/fanOut/postExtracts';
import { listPictures } from '@/data/media/media';
import { maybePost } from '@/data/posts/posts';
import {
  listKnownDaysOf,
  listRepeatPosts,
  listRunningRepeats,
  maybeRepeatForUpdate,
  saveRepeat,
  type Repeat,
  type RepeatPost,
} from '@/data/repeats/repeats';
import type { Result } from '@/core/refusal';
import { addPosts, NOT_TAKEN_OVER, type NewPost } from '../posts/addPosts';
import { readPrepLines } from '../prep/givePrep';
import { doing, refused, type Acting, type Doing, type Work } from '../useCase';

/** Days ahead in which the days of a date to plan around are looked for. */
const KNOWN_WITHIN_DAYS = 5 * 366;

/** The days of the date to plan around that a repeat's rule names, from a day on; none for any other rule. */
export async function knownDaysOf(
  { tx }: Pick<Acting, 'tx'>,
  { brandId, rule }: Pick<Repeat, 'brandId' | 'rule'>,
  from: LocalDate,
): Promise<ReadonlySet<LocalDate>> {
  if (rule.kind !== 'knownDate') return new Set();
  return new Set(await listKnownDaysOf(tx, brandId, rule.title, from, addDays(from, KNOWN_WITHIN_DAYS)));
}

/** Whether a post of a repeat is still to come, so that it counts among those ahead. */
export const isAhead = (post: Pick<RepeatPost, 'stage' | 'date'>, today: LocalDate): boolean =>
  post.stage !== 'published' && post.stage !== 'setAside' && (post.date === null || post.date >= today);

/**
 * Makes the posts a repeat lacks ahead, on the rounds after the last it made one for; none on an archived channel, none beyond its end.
 *
 * @param skipped what is done where the clocks jump over the repeat's time on a round: whoever sets it is refused; a post
 *   that is made by itself gets its day and no time, so that it leaves at no time nobody chose
 * @returns the ids of the posts that were made
 */
export async function makeAhead(act: Doing, repeat: Repeat, skipped: 'refuse' | 'leaveOpen'): Promise<string[]> {
  if (!(await maybeChannel(act.tx, repeat.channelId))) return [];
  const { zone } = await oneBrand(act.tx, repeat.brandId);
  const today = localOf(act.now, zone).date;
  const posts = await listRepeatPosts(act.tx, repeat.id);
  const left = repeat.times === null ? Infinity : repeat.times - (repeat.nextNumber - repeat.firstNumber);
  const lacking = Math.min(repeat.ahead - posts.filter((post) => isAhead(post, today)).length, left);
  if (lacking <= 0) return [];
  const yesterday = addDays(today, -1);
  const taken = new Set(posts.map(({ date }) => date));
  const rounds = nextRounds(
    repeat,
    { round: repeat.lastRound, day: yesterday },
    lacking + taken.size,
    await knownDaysOf(act, repeat, yesterday),
  )
    .filter(({ day }) => !taken.has(day))
    .slice(0, lacking);
  const timeOn = (date: LocalDate): LocalTime | null => {
    const due = dueInstant(date, repeat.time, zone);
    if (!due.ok && skipped === 'refuse') refused(due.refusal);
    return due.ok ? repeat.time : null;
  };
  const again = await sourceOf(act, repeat, posts);
  const made = rounds.map(({ day }, index): NewPost => {
    const number = repeat.nextNumber + index;
    return {
      ...again.post,
      ...{ id: act.ids(), title: roundTitle(repeat, number), date: day, time: timeOn(day) },
      ...{ repeatId: repeat.id, repeatNumber: number },
    };
  });
  await addPosts(act, made);
  await insertPostExtracts(
    act.tx,
    again.extractIds.flatMap((extractId) => made.map(({ id }) => ({ postId: id, extractId }))),
  );
  await saveRepeat(act.tx, {
    ...repeat,
    nextNumber: repeat.nextNumber + rounds.length,
    lastRound: rounds.at(-1)?.round ?? repeat.lastRound,
  });
  return made.map(({ id }) => id);
}

type Again = Omit<NewPost, 'id' | 'title' | 'date' | 'time'>;

/**
 * What the posts of a repeat are made from: those of a series are empty; any other has the words of the last one that went out and is
 * still there, or of the last that was written. What is seasonal comes without last year's pictures, and its work begins long before.
 */
async function sourceOf(
  act: Doing,
  repeat: Repeat,
  posts: readonly RepeatPost[],
): Promise<{ post: Again; extractIds: readonly string[] }> {
  const { brandId, pieceId, channelId, format, ownerId, workDays, name } = repeat;
  const common = { brandId, pieceId, channelId, format, ownerId, stage: 'drafting' as const, createdAt: act.now };
  const prep =
    workDays === null
      ? {}
      : {
          prep: [
            { ...BLANK_STEP, title: `Begin: ${name}`.slice(0, 120), lead: workDays, leadIn: 'calendar' as const },
            ...(await readPrepLines(act.tx, brandId))(format),
          ],
        };
  const written = posts.filter(({ stage, hasWords, isTakenDown }) => hasWords && stage !== 'setAside' && !isTakenDown);
  const last = written.filter(({ stage }) => stage === 'published').at(-1) ?? written.at(-1);
  const source = repeat.kind === 'series' || !last ? undefined : await maybePost(act.tx, last.id);
  if (!source) {
    const empty = { headline: '', caption: '', hashtags: '', link: '', publishedAt: null, address: '' };
    return { post: { ...common, ...empty, ...prep }, extractIds: [] };
  }
  const isSeasonal = repeat.kind === 'seasonal';
  return {
    post: {
      ...source,
      ...NOT_TAKEN_OVER,
      ...common,
      pictures: isSeasonal ? [] : await listPictures(act.tx, source.id),
      parts: isSeasonal ? source.parts.map((part) => ({ ...part, pictureId: null })) : source.parts,
      campaignId: source.stage === 'published' ? null : source.campaignId,
      encoreOf: source.channelId === channelId ? (source.encoreOf ?? source.id) : null,
      ...prep,
    },
    extractIds: await listExtractIdsOf(act.tx, source.id),
  };
}

/**
 * Makes the posts a repeat lacks ahead. @returns how many were made
 *
 * @internal
 */
export function keepAhead(work: Work, id: string): Promise<Result<number>> {
  return doing(work, async (act) => {
    const repeat = await maybeRepeatForUpdate(act.tx, id);
    return repeat && repeat.endedAt === null ? (await makeAhead(act, repeat, 'leaveOpen')).length : 0;
  });
}

/**
 * Lets every running repeat make the posts it lacks ahead. One that cannot stops no other.
 *
 * @param onBroken told of a repeat that broke, with its id
 * @returns how many posts were made, and how many repeats made none for a reason
 */
export async function keepAllAhead(
  work: Omit<Work, 'actorId'>,
  onBroken: (error: unknown, id: string) => void,
): Promise<{ made: number; failed: number }> {
  let [made, failed] = [0, 0];
  for (const { id, ownerId } of await listRunningRepeats(work.db)) {
    try {
      const kept = await keepAhead({ ...work, actorId: ownerId }, id);
      if (kept.ok) made += kept.value;
      else failed++;
    } catch (error) {
      failed++;
      onBroken(error, id);
    }
  }
  return { made, failed };
}
