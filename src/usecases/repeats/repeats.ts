import { quoted } from '@/core/calendar/change';
import { readTitle } from '@/core/pieces/piece';
import type { Result } from '@/core/refusal';
import { followRule, roundsFromNear } from '@/core/repeats/follow';
import { readRepeat, roundTitle, type RepeatSaid } from '@/core/repeats/repeat';
import { nextRounds } from '@/core/repeats/rounds';
import { FORMAT_LABELS, formatRule } from '@/core/rulesheets/types';
import { addDays, daysBetween } from '@/core/time/days';
import { dueInstant, localOf, type LocalDate } from '@/core/time/plan';
import { oneBrand } from '@/data/brands/brands';
import { insertPieces, maybePiece } from '@/data/pieces/pieces';
import type { Post } from '@/data/posts/posts';
import { joinRepeat, listRepeatPosts, maybeRepeatForUpdate, saveRepeat, type Repeat } from '@/data/repeats/repeats';
import { takeSetting } from '../brands/takeSetting';
import { channelsOfBrand } from '../pieces/pieces';
import type { PostWrite } from '../posts/checkWrites';
import { moving } from '../posts/planPosts';
import { takePost, takePosts } from '../posts/takePosts';
import { writeWhatMayBe } from '../posts/writePosts';
import { mustMay } from '../rights/mustMay';
import { changedPost, madePosts } from '../undo/noteChange';
import { undoably } from '../undo/undoably';
import { attempt, doing, must, notFound, refused, type Doing, type Work } from '../useCase';
import { isAhead, knownDaysOf, makeAhead } from './makeAhead';

/** What a repeat begins with: a post that is its first, a piece its posts are made from, or nothing, and then it has a piece of its own. */
export interface RepeatStart extends RepeatSaid {
  channelId: string;
  postId: string | null;
  pieceId: string | null;
  firstNumber: number;
}

/** Starts a repeat on a channel, with its first posts ahead. */
export function startRepeat(
  work: Work,
  brandId: string,
  start: RepeatStart,
): Promise<Result<{ id: string; made: number }>> {
  return doing(work, async (act) => {
    await mustMay(act, 'runRepeats', brandId);
    const { postId, pieceId: givenPiece, firstNumber, ...said } = start;
    if (!Number.isInteger(firstNumber) || firstNumber < 1 || firstNumber > 100_000)
      refused({ code: 'badNumber', field: 'firstNumber', message: 'The first number is a whole one from 1.' });
    const first = postId === null ? null : (await takePost(act, postId, 'runRepeats')).post;
    if (first && first.brandId !== brandId) refused(notFound('post'));
    const { channelId, ...fields } = await checkSaid(act, brandId, {
      ...said,
      ...(first && { channelId: first.channelId, format: first.format }),
    });
    const pieceId = first?.pieceId ?? (givenPiece === null ? act.ids() : await pieceOfBrand(act, brandId, givenPiece));
    const id = act.ids();
    const repeat: Repeat = {
      ...fields,
      ...{ id, brandId, pieceId, channelId, firstNumber, nextNumber: firstNumber + (first ? 1 : 0) },
      ...{
        lastRound:
          first &&
          roundOf(first, fields, await knownDaysOf(act, { brandId, rule: fields.rule }, first.date ?? fields.from)),
      },
      ...{ ownerId: act.actorId, endedAt: null },
    };
    const isOwnPiece = !first && givenPiece === null;
    const made = await undoably(
      act,
      {
        ...{ brandId, label: `Started the repeat ${quoted(repeat.name)}` },
        things: [...(isOwnPiece ? [{ name: 'piece' as const, id: pieceId }] : []), { name: 'repeat' as const, id }],
      },
      async () => {
        if (isOwnPiece)
          await insertPieces(act.tx, [
            {
              ...{ id: pieceId, brandId, title: fields.name, note: '', link: '', sourceText: '' },
              ...{ ownerId: act.actorId, createdAt: act.now },
            },
          ]);
        await saveRepeat(act.tx, repeat);
        if (first && !(await joinRepeat(act.tx, first.id, id, firstNumber)))
          refused({ code: 'repeats', message: `${quoted(first.title)} repeats already.` });
        return makeAhead(act, repeat, 'refuse');
      },
      madePosts,
    );
    await act.note({ brandId, subject: 'repeat', subjectId: id, deed: 'started' });
    return { id, made: made.length };
  });
}

/** The round that a post stands for: its own day, or the season's day that it comes before. */
function roundOf(
  { date }: Pick<Post, 'date'>,
  fields: Pick<RepeatSaid, 'rule' | 'kind' | 'daysBefore'>,
  known: ReadonlySet<LocalDate>,
): LocalDate | null {
  if (date === null || fields.kind !== 'seasonal') return date;
  const { rule, daysBefore } = fields;
  const [next] = nextRounds(
    { rule, daysBefore: 0, from: date, to: null },
    { round: null, day: addDays(date, -1) },
    1,
    known,
  );
  // A post of a season lies before its day, by as much as is said or a little more; one that lies after it is last season's.
  return next && daysBetween(date, next.round) <= Math.max(2 * daysBefore, 60) ? next.round : date;
}

async function pieceOfBrand(act: Doing, brandId: string, pieceId: string): Promise<string> {
  const piece = await maybePiece(act.tx, pieceId);
  if (!piece || piece.deletedAt !== null || piece.brandId !== brandId) refused(notFound('piece'));
  return piece.id;
}

/** Rounds that may lie between the last post that stays and the first that follows a change. */
const ROUNDS_PASSED = 60;

/** How a change of a repeat is carried on to its posts. */
interface FromHereOn {
  /** The number of the first post that follows; null for all that are still to come. */
  fromNumber: number | null;
  /** Whether posts that somebody wrote follow as well; else they keep their day. */
  writtenToo: boolean;
}

/**
 * Changes a repeat from here on: posts to come that nobody wrote get the new name, day and time, on the next rounds without a hole; posts
 * with words keep theirs, unless told otherwise. Numbers rise with the days.
 */
export function changeRepeat(
  work: Work,
  id: string,
  said: RepeatSaid,
  { fromNumber, writtenToo }: FromHereOn,
): Promise<Result<{ moved: number; kept: number }>> {
  return doing(work, async (act) => {
    const before = await takeRepeat(act, id);
    await takeSetting(act, 'repeat', id);
    const fields = await checkSaid(act, before.brandId, { ...said, kind: before.kind, channelId: before.channelId });
    const repeat: Repeat = { ...before, ...fields };
    const { brandId } = repeat;
    const { zone } = await oneBrand(act.tx, brandId);
    const today = localOf(act.now, zone).date;
    const yesterday = addDays(today, -1);
    const posts = await listRepeatPosts(act.tx, id);
    const isHere = ({ number }: { number: number }) => fromNumber === null || number >= fromNumber;
    const open = posts.filter((post) => isAhead(post, today) && isHere(post));
    const following = open.filter(({ isWritten }) => writtenToo || !isWritten);
    const others = posts.filter((post) => !following.includes(post));
    const taken = new Set(others.flatMap(({ date }) => date ?? []));
    const after = [yesterday, ...others.flatMap((post) => (isHere(post) ? [] : (post.date ?? [])))].sort().at(-1)!;
    const rounds = nextRounds(
      repeat,
      { round: null, day: after },
      ROUNDS_PASSED + following.length + taken.size,
      await knownDaysOf(act, repeat, yesterday),
    );
    // From one post on, it goes on near where that one stood; else as soon as may be.
    const place = fromNumber === null ? null : (following[0]?.date ?? null);
    const { days, lastRound } = followRule(following, place === null ? rounds : roundsFromNear(rounds, place), taken);
    for (const date of days.values()) if (date !== null) must(dueInstant(date, repeat.time, zone));
    const locked = await takePosts(act, [...days.keys()], 'runRepeats');
    const writes: PostWrite[] = [];
    for (const { id: postId, number, title } of following) {
      const date = days.get(postId)!;
      const write = await attempt(async () =>
        moving(act, must(locked.get(postId)!), { date, time: date === null ? null : repeat.time }),
      );
      if (!write.ok) continue;
      const isOwnTitle = title !== roundTitle(before, number);
      const change = {
        ...write.value.change,
        ...(isOwnTitle ? {} : { title: roundTitle(repeat, number) }),
        format: repeat.format,
      };
      writes.push({ ...write.value, change, deed: 'repeat changed' });
    }
    const { moved } = await undoably(
      act,
      { brandId, label: `Changed the repeat ${quoted(repeat.name)}`, things: [{ name: 'repeat', id }] },
      async () => {
        await saveRepeat(act.tx, { ...repeat, lastRound: lastRound ?? repeat.lastRound });
        const written = await writeWhatMayBe(act, writes);
        const made = await makeAhead(act, (await maybeRepeatForUpdate(act.tx, id))!, 'refuse');
        const changed = written.flatMap((one) =>
          one.ok ? [changedPost(one.value.write.open.post, one.value.after)] : [],
        );
        return { moved: changed.length, items: [...changed, ...madePosts(made)] };
      },
      ({ items }) => items,
    );
    await act.note({ brandId, subject: 'repeat', subjectId: id, deed: 'changed' });
    return { moved, kept: posts.filter((post) => isAhead(post, today)).length - moved };
  });
}

/** Ends a repeat: it makes no more posts. Those that are there stay. */
export function endRepeat(work: Work, id: string): Promise<Result<true>> {
  return doing(work, async (act) => {
    const repeat = await takeRepeat(act, id);
    const label = `Ended the repeat ${quoted(repeat.name)}`;
    await undoably(act, { brandId: repeat.brandId, label, things: [{ name: 'repeat', id }] }, () =>
      saveRepeat(act.tx, { ...repeat, endedAt: act.now }),
    );
    await act.note({ brandId: repeat.brandId, subject: 'repeat', subjectId: id, deed: 'ended' });
    return true as const;
  });
}

async function takeRepeat(act: Doing, id: string): Promise<Repeat> {
  const repeat = await maybeRepeatForUpdate(act.tx, id);
  if (!repeat || repeat.endedAt !== null) refused(notFound('repeat'));
  await mustMay(act, 'runRepeats', repeat.brandId);
  return repeat;
}

async function checkSaid<S extends RepeatSaid & { channelId: string }>(
  act: Doing,
  brandId: string,
  said: S,
): Promise<S> {
  const [channel] = await channelsOfBrand(act, brandId, [said.channelId]);
  if (!channel) refused({ code: 'noChannel', field: 'channelId', message: 'Choose the channel it runs on.' });
  if (!formatRule(channel.sheet, said.format))
    refused({ code: 'format', field: 'format', message: `${channel.name} takes no ${FORMAT_LABELS[said.format]}.` });
  return { ...must(readRepeat(said)), name: must(readTitle(said.name, 'name')) };
}
