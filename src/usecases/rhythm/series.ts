import { quoted } from '@/core/calendar/change';
import { readTitle } from '@/core/pieces/piece';
import { readRhythm, type Recurrence } from '@/core/rhythm/entry';
import { nextRounds, roundTitle } from '@/core/rhythm/series';
import { FORMAT_LABELS, formatRule, type Format } from '@/core/rulesheets/types';
import type { Result } from '@/core/refusal';
import { addDays } from '@/core/time/days';
import { dueInstant, localOf, readDate, type LocalDate, type LocalTime } from '@/core/time/plan';
import { oneBrand } from '@/data/brands/brands';
import { maybeChannel } from '@/data/brands/channels';
import { insertPieces } from '@/data/pieces/pieces';
import {
  listRunningSeries,
  listSeriesPosts,
  maybeSeriesForUpdate,
  saveSeries,
  type Series,
} from '@/data/rhythm/series';
import { addPosts } from '../posts/addPosts';
import { channelsOfBrand } from '../pieces/pieces';
import { moving } from '../posts/planPosts';
import { takePosts } from '../posts/takePosts';
import { takeSetting } from '../brands/takeSetting';
import { changedPost, madePosts } from '../undo/noteChange';
import { undoably } from '../undo/undoably';
import { mustMay } from '../rights/mustMay';
import { attempt, doing, must, notFound, refused, type Doing, type Work } from '../useCase';
import type { PostWrite } from '../posts/checkWrites';
import { writeWhatMayBe } from '../posts/writePosts';

/** What can be set of a series. */
export interface SeriesInput {
  name: string;
  format: Format;
  recurrence: Recurrence;
  time: LocalTime;
  from: LocalDate;
  to: LocalDate | null;
  ahead: number;
}

/** Starts a series on a channel: its piece is made, and its first posts ahead. */
export function startSeries(
  work: Work,
  brandId: string,
  channelId: string,
  input: SeriesInput & { firstNumber: number },
): Promise<Result<{ id: string; made: number }>> {
  return doing(work, async (act) => {
    await mustMay(act, 'runSeries', brandId);
    const { firstNumber, ...rest } = input;
    if (!Number.isInteger(firstNumber) || firstNumber < 1 || firstNumber > 100_000)
      refused({ code: 'badNumber', field: 'firstNumber', message: 'The first number is a whole one from 1.' });
    const fields = await checkSeries(act, brandId, channelId, rest);
    const [id, pieceId] = [act.ids(), act.ids()];
    const series: Series = {
      ...fields,
      ...{ id, brandId, pieceId, channelId, nextNumber: firstNumber, lastRound: null },
      ...{ ownerId: act.actorId, endedAt: null },
    };
    const made = await undoably(
      act,
      {
        ...{ brandId, label: `Started the series ${quoted(series.name)}` },
        things: [
          { name: 'piece', id: pieceId },
          { name: 'series', id },
        ],
      },
      async () => {
        await insertPieces(act.tx, [
          {
            ...{ id: pieceId, brandId, title: fields.name, note: '', link: '', sourceText: '' },
            ...{ ownerId: act.actorId, createdAt: act.now },
          },
        ]);
        await saveSeries(act.tx, series);
        return makeAhead(act, series, 'refuse');
      },
      madePosts,
    );
    await act.note({ brandId, subject: 'series', subjectId: id, deed: 'started' });
    return { id, made: made.length };
  });
}

/**
 * Changes a series from here on: posts not yet published that nobody wrote get the new name, day and time; posts with
 * words keep theirs. Numbers stay.
 */
export function changeSeries(
  work: Work,
  id: string,
  input: SeriesInput,
): Promise<Result<{ moved: number; kept: number }>> {
  return doing(work, async (act) => {
    const before = await takeSeries(act, id);
    await takeSetting(act, 'series', id);
    const fields = await checkSeries(act, before.brandId, before.channelId, input);
    const series = { ...before, ...fields };
    const brand = await oneBrand(act.tx, series.brandId);
    const today = localOf(act.now, brand.zone).date;
    const posts = (await listSeriesPosts(act.tx, id, 1)).filter((post) => post.date === null || post.date >= today);
    const free = posts.filter((post) => !post.hasWords && post.stage !== 'published' && post.stage !== 'setAside');
    const taken = new Set(posts.filter((post) => !free.includes(post)).map((post) => post.date));
    const rounds = nextRounds(series, addDays(today, -1), free.length + taken.size);
    const open = await takePosts(
      act,
      free.map((post) => post.id),
      'runSeries',
    );
    const places = rounds.filter((date) => !taken.has(date));
    for (const date of places) must(dueInstant(date, series.time, brand.zone));
    const writes: PostWrite[] = [];
    for (const [index, post] of free.entries()) {
      const date = places[index] ?? null;
      const write = await attempt(async () =>
        moving(act, must(open.get(post.id)!), {
          date,
          time: date === null ? null : series.time,
        }),
      );
      if (!write.ok) continue;
      const change = { ...write.value.change, title: roundTitle(series.name, post.number), format: series.format };
      writes.push({ ...write.value, change, deed: 'series changed' });
    }
    const { brandId } = series;
    const { moved } = await undoably(
      act,
      { brandId, label: `Changed the series ${quoted(series.name)}`, things: [{ name: 'series', id }] },
      async () => {
        const written = await writeWhatMayBe(act, writes);
        await saveSeries(act.tx, { ...series, lastRound: rounds.at(-1) ?? series.lastRound });
        const made = await makeAhead(act, (await maybeSeriesForUpdate(act.tx, id))!, 'refuse');
        const changed = written.flatMap((one) =>
          one.ok ? [changedPost(one.value.write.open.post, one.value.after)] : [],
        );
        return { moved: changed.length, items: [...changed, ...madePosts(made)] };
      },
      ({ items }) => items,
    );
    await act.note({ brandId, subject: 'series', subjectId: id, deed: 'changed' });
    return { moved, kept: posts.length - moved };
  });
}

/** Ends a series: it makes no more posts. Those that are there stay. */
export function endSeries(work: Work, id: string): Promise<Result<true>> {
  return doing(work, async (act) => {
    const series = await takeSeries(act, id);
    const label = `Ended the series ${quoted(series.name)}`;
    await undoably(act, { brandId: series.brandId, label, things: [{ name: 'series', id }] }, () =>
      saveSeries(act.tx, { ...series, endedAt: act.now }),
    );
    await act.note({ brandId: series.brandId, subject: 'series', subjectId: id, deed: 'ended' });
    return true as const;
  });
}

/**
 * Makes the posts a series lacks ahead. @returns how many were made
 *
 * @internal
 */
export function keepAhead(work: Work, id: string): Promise<Result<number>> {
  return doing(work, async (act) => {
    const series = await maybeSeriesForUpdate(act.tx, id);
    return series && series.endedAt === null ? (await makeAhead(act, series, 'leaveOpen')).length : 0;
  });
}

/**
 * Lets every running series make the posts it lacks ahead. One that cannot stops no other.
 *
 * @param onBroken told of a series that broke, with its id
 * @returns how many posts were made, and how many series made none for a reason
 */
export async function keepAllAhead(
  work: Omit<Work, 'actorId'>,
  onBroken: (error: unknown, id: string) => void,
): Promise<{ made: number; failed: number }> {
  let [made, failed] = [0, 0];
  for (const { id, ownerId } of await listRunningSeries(work.db)) {
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

async function takeSeries(act: Doing, id: string): Promise<Series> {
  const series = await maybeSeriesForUpdate(act.tx, id);
  if (!series || series.endedAt !== null) refused(notFound('series'));
  await mustMay(act, 'runSeries', series.brandId);
  return series;
}

async function checkSeries(act: Doing, brandId: string, channelId: string, input: SeriesInput) {
  const [channel] = await channelsOfBrand(act, brandId, [channelId]);
  if (!channel) refused({ code: 'noChannel', field: 'channelId', message: 'Choose the channel it runs on.' });
  if (!formatRule(channel.sheet, input.format))
    refused({ code: 'format', field: 'format', message: `${channel.name} takes no ${FORMAT_LABELS[input.format]}.` });
  if (!Number.isInteger(input.ahead) || input.ahead < 1 || input.ahead > 26)
    refused({ code: 'badAhead', field: 'ahead', message: 'A series keeps 1 to 26 posts ahead.' });
  must(readDate(input.from, 'from'));
  if (input.to !== null) must(readDate(input.to, 'to'));
  const { recurrence, time, format, from, to } = input;
  must(readRhythm([{ id: 'series', recurrence, time, format, theme: '', pillarId: null, from, to }]));
  return { ...input, name: must(readTitle(input.name, 'name')) };
}

/**
 * Makes the posts a series lacks ahead, on the rounds after the last it made one for; none on an archived channel.
 *
 * @param skipped what is done where the clocks jump over the series' time on a round: whoever sets it is refused; a post
 *   that is made by itself gets its day and no time, so that it leaves at no time nobody chose
 * @returns the ids of the posts that were made
 */
async function makeAhead(act: Doing, series: Series, skipped: 'refuse' | 'leaveOpen'): Promise<string[]> {
  const brand = await oneBrand(act.tx, series.brandId);
  if (!(await maybeChannel(act.tx, series.channelId))) return [];
  const today = localOf(act.now, brand.zone).date;
  const posts = await listSeriesPosts(act.tx, series.id, 1);
  const ahead = posts.filter((post) => post.stage !== 'setAside' && (post.date === null || post.date >= today));
  const lacking = series.ahead - ahead.length;
  if (lacking <= 0) return [];
  const yesterday = addDays(today, -1);
  const { lastRound } = series;
  const rounds = nextRounds(series, lastRound !== null && lastRound > yesterday ? lastRound : yesterday, lacking);
  const timeOn = (date: LocalDate): LocalTime | null => {
    const due = dueInstant(date, series.time, brand.zone);
    if (!due.ok && skipped === 'refuse') refused(due.refusal);
    return due.ok ? series.time : null;
  };
  const ids = rounds.map(() => act.ids());
  await addPosts(
    act,
    rounds.map((date, index) => ({
      id: ids[index]!,
      brandId: series.brandId,
      pieceId: series.pieceId,
      channelId: series.channelId,
      format: series.format,
      title: roundTitle(series.name, series.nextNumber + index),
      headline: '',
      caption: '',
      hashtags: '',
      link: '',
      date,
      time: timeOn(date),
      stage: 'drafting' as const,
      ownerId: series.ownerId,
      publishedAt: null,
      address: '',
      seriesId: series.id,
      seriesNumber: series.nextNumber + index,
      createdAt: act.now,
    })),
  );
  await saveSeries(act.tx, {
    ...series,
    nextNumber: series.nextNumber + rounds.length,
    lastRound: rounds.at(-1) ?? lastRound,
  });
  return ids;
}
