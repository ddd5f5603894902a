import { type CalendarFilter, isFiltering, NO_FILTER } from '@/core/calendar/filter';
import { spanOfPeriod, type ListPeriod } from '@/core/calendar/listPeriod';
import { monthWeeks, type MonthDay } from '@/core/calendar/month';
import type { Slip } from '@/core/calendar/slip';
import { groupBy } from '@/core/group';
import type { LocalNow } from '@/core/rhythm/fill';
import { HORIZON_DAYS, horizonOf, type Horizon } from '@/core/rhythm/horizon';
import { nextOpeningDay, openingsBetween, type ChannelRhythm, type Opening } from '@/core/rhythm/openings';
import { STAGES, type Stage } from '@/core/stages/stages';
import { addDays, startOfWeek } from '@/core/time/days';
import { localOf, type Instant, type LocalDate } from '@/core/time/plan';
import type { PieceKind } from '@/core/pieces/kinds';
import { readAsOf } from '@/data/database/asOf';
import type { Brand } from '@/data/brands/brands';
import type { Channel } from '@/data/brands/channels';
import { listBatchDays, type BatchDayLine } from '@/data/prep/batchDays';
import type { Db } from '@/data/database/db';
import { listKnownDates, type KnownDate } from '@/data/calendar/knownDates';
import { listIdeas, listPieceTitles } from '@/data/pieces/pieces';
import {
  countPostsAtStage,
  listPlannedPosts,
  listPostsAtStage,
  listPostsBetween,
  listUndatedPosts,
  type CalendarScope,
  type PlannedPost,
} from '@/data/posts/postLines';
import { listRhythms } from '@/data/rhythm/rhythms';
import { listStepsBetween, type CalendarStep } from '@/data/prep/steps';
import { slipsOf } from '../posts/loadPosts';

/** The ways the calendar arranges the same posts. */
export const ARRANGEMENTS = ['lanes', 'month', 'day', 'stages', 'list'] as const;
export type Arrangement = (typeof ARRANGEMENTS)[number];

/** An idea as it lies in the tray. */
export interface TrayIdea {
  id: string;
  brandId: string;
  title: string;
  note: string;
  link: string;
  suggestedChannelIds: string[];
  kind: PieceKind;
  version: number;
}

/** Rows the tray shows of each kind. */
const TRAY_LIMIT = 200;
/** Posts a column of the stages arrangement shows. */
const STAGE_LIMIT = 150;
/** Posts of a stage are counted up to here. */
const STAGE_COUNT_LIMIT = 2_000;
/** Days back that published posts show among the stages. */
const PUBLISHED_DAYS = 14;
/** Rows the list holds. */
const LIST_LIMIT = 10_000;

/** What the calendar is asked for. */
export interface CalendarAsk {
  arrangement: Arrangement;
  /** A day in the span to show. */
  date: LocalDate;
  /** Weeks of the lanes. */
  weeks: 1 | 2;
  /** How long a time the list shows; three months around the day where it is absent. */
  period?: ListPeriod;
  filter: CalendarFilter;
  /** Whose working dates show as well: everybody's, those of one person by id, or none. */
  stepsOf?: 'all' | { personId: string } | null;
}

/** The calendar as it is drawn. */
export interface CalendarView {
  /** How far the database had got before the view was read, as `readAsOf` gives it. */
  asOf: number;
  /** The days shown, in order; empty where the arrangement is not by days. */
  dates: LocalDate[];
  /** The weeks of the month arrangement. */
  weeks: MonthDay[][];
  slips: Slip[];
  ideas: TrayIdea[];
  /** Openings of the days shown, from today on. */
  openings: Opening[];
  /** What fills openings, when a filter hides some of it; null when the slips tell all. */
  planned: PlannedPost[] | null;
  /** Now on the wall of each channel that has a rhythm, by channel. */
  nowOf: Record<string, LocalNow>;
  /** By channel; only for the lanes. */
  horizons: Horizon[];
  knownDates: KnownDate[];
  /** Posts of each stage, counted to a limit; only for the stages. */
  stageCounts: Partial<Record<Stage, number>>;
  /** Titles of pieces by id; only for the list. */
  pieceTitles: Record<string, string>;
  /** Batch days, where working dates are shown. */
  batchDays: BatchDayLine[];
  /** Open steps on their days, where working dates are shown. */
  steps: CalendarStep[];
  /** There are more rows than the list holds. */
  isCut: boolean;
}

/** Reads the calendar of one or several brands. `brands[0]` sets the week's start and what is near. */
export async function loadCalendar(
  db: Db,
  brands: readonly Brand[],
  channels: readonly Channel[],
  ask: CalendarAsk,
  now: Instant,
): Promise<CalendarView> {
  const first = brands[0]!;
  const brandIds = brands.map((brand) => brand.id);
  const today = localOf(now, first.zone).date;
  const scope: CalendarScope = { brandIds, filter: ask.filter, today };
  const weeks = ask.arrangement === 'month' ? monthWeeks(ask.date, first.weekStart) : [];
  const dates = datesOf(ask, weeks, first.weekStart);
  const byDays = ask.arrangement === 'lanes' || ask.arrangement === 'month' || ask.arrangement === 'day';
  const span = spanOf(ask, dates);
  const stepsOf = byDays ? (ask.stepsOf ?? null) : null;
  const [asOf, shown, tray, rhythm, knownDates, steps, batchDays] = await Promise.all([
    readAsOf(db),
    // Slips are made of each answer as it comes, while the database reads the next.
    ask.arrangement === 'stages'
      ? loadStages(db, scope, channels)
      : loadSpan(db, scope, channels, span, ask.arrangement === 'list'),
    loadTray(db, scope, channels),
    byDays ? loadRhythm(db, brands, channels, span, ask.arrangement === 'lanes', now) : null,
    byDays ? listKnownDates(db, brandIds, span.from, span.to) : [],
    stepsOf ? listStepsBetween(db, brandIds, span.from, span.to, stepsOf === 'all' ? null : stepsOf.personId) : [],
    stepsOf ? listBatchDays(db, brandIds, span.from, span.to) : [],
  ]);
  const seen = new Set(shown.slips.map((slip) => slip.id));
  return {
    asOf,
    dates,
    weeks,
    slips: [...shown.slips, ...tray.undated.filter((slip) => !seen.has(slip.id))],
    ideas: tray.ideas,
    openings: rhythm?.openings ?? [],
    planned: byDays && isFiltering(ask.filter) ? await listPlannedPosts(db, brandIds, span.from, span.to) : null,
    nowOf: rhythm?.nowOf ?? {},
    horizons: rhythm?.horizons ?? [],
    knownDates,
    stageCounts: shown.counts,
    pieceTitles:
      ask.arrangement === 'list'
        ? await listPieceTitles(
            db,
            shown.slips.map((slip) => slip.pieceId),
          )
        : {},
    steps: steps.filter(
      ({ channelId }) =>
        ask.filter.channels.length === 0 || (channelId !== null && ask.filter.channels.includes(channelId)),
    ),
    batchDays,
    isCut: shown.isCut,
  };
}

/** Both horizons of each channel of a brand, and its openings for the next days. */
export async function loadHorizons(
  db: Db,
  brand: Brand,
  channels: readonly Channel[],
  now: Instant,
): Promise<{ horizons: Horizon[]; openings: Opening[]; planned: PlannedPost[] }> {
  const today = localOf(now, brand.zone).date;
  const end = addDays(today, HORIZON_DAYS - 1);
  const [rhythms, planned] = await Promise.all([
    listRhythms(db, [brand.id]),
    listPlannedPosts(db, [brand.id], today, end),
  ]);
  const openings = rhythms.flatMap((rhythm) => openingsBetween(rhythm, today, end, brand.zone));
  return {
    horizons: horizonsOf(
      channels,
      rhythms,
      openings,
      planned,
      () => localOf(now, brand.zone),
      () => brand,
    ),
    openings,
    planned,
  };
}

function datesOf(ask: CalendarAsk, weeks: MonthDay[][], weekStart: number): LocalDate[] {
  if (ask.arrangement === 'month') return weeks.flat().map((day) => day.date);
  if (ask.arrangement === 'day') return [ask.date];
  if (ask.arrangement !== 'lanes') return [];
  const start = startOfWeek(ask.date, weekStart);
  return Array.from({ length: ask.weeks * 7 }, (_, index) => addDays(start, index));
}

const spanOf = (ask: CalendarAsk, dates: readonly LocalDate[]): { from: LocalDate; to: LocalDate } =>
  dates.length > 0 ? { from: dates[0]!, to: dates.at(-1)! } : spanOfPeriod(ask.period ?? 'around', ask.date);

async function loadSpan(
  db: Db,
  scope: CalendarScope,
  channels: readonly Channel[],
  span: { from: LocalDate; to: LocalDate },
  isList: boolean,
) {
  const posts = await listPostsBetween(db, scope, span.from, span.to, isList ? LIST_LIMIT + 1 : undefined);
  return {
    slips: slipsOf(posts.slice(0, LIST_LIMIT), channels),
    counts: {},
    isCut: isList && posts.length > LIST_LIMIT,
  };
}

async function loadStages(db: Db, scope: CalendarScope, channels: readonly Channel[]) {
  const wanted =
    scope.filter.stages.length > 0 ? STAGES.filter((stage) => scope.filter.stages.includes(stage)) : STAGES;
  const since = (stage: Stage) => (stage === 'published' ? addDays(scope.today, -PUBLISHED_DAYS) : null);
  const columns = await Promise.all(
    wanted.map(async (stage) => ({
      stage,
      slips: slipsOf(await listPostsAtStage(db, scope, stage, since(stage), STAGE_LIMIT), channels),
      count: await countPostsAtStage(db, scope, stage, since(stage), STAGE_COUNT_LIMIT),
    })),
  );
  return {
    slips: columns.flatMap((column) => column.slips),
    counts: Object.fromEntries(columns.map(({ stage, count }) => [stage, count])) as Partial<Record<Stage, number>>,
    isCut: false,
  };
}

async function loadTray(db: Db, scope: CalendarScope, channels: readonly Channel[]) {
  const whole: CalendarScope = { ...scope, filter: NO_FILTER };
  const [ideas, undated] = await Promise.all([
    listIdeas(db, scope.brandIds, TRAY_LIMIT),
    listUndatedPosts(db, whole, TRAY_LIMIT),
  ]);
  return {
    ideas: ideas.map(({ id, brandId, title, note, link, suggestedChannelIds, kind, version }): TrayIdea => ({
      id,
      brandId,
      title,
      note,
      link,
      suggestedChannelIds,
      kind,
      version,
    })),
    undated: slipsOf(undated, channels),
  };
}

async function loadRhythm(
  db: Db,
  brands: readonly Brand[],
  channels: readonly Channel[],
  span: { from: LocalDate; to: LocalDate },
  withHorizons: boolean,
  now: Instant,
) {
  const brandIds = brands.map((brand) => brand.id);
  const brandOf = new Map(brands.map((brand) => [brand.id, brand]));
  const brandOfChannel = new Map(channels.map((channel) => [channel.id, brandOf.get(channel.brandId)!]));
  const nowOf = (channelId: string): LocalNow => localOf(now, brandOfChannel.get(channelId)!.zone);
  const rhythms = (await listRhythms(db, brandIds)).filter((rhythm) => brandOfChannel.has(rhythm.channelId));
  const openings = rhythms.flatMap((rhythm) => {
    const { date: today } = nowOf(rhythm.channelId);
    const from = span.from > today ? span.from : today;
    return openingsBetween(rhythm, from, span.to, brandOfChannel.get(rhythm.channelId)!.zone);
  });
  const shown = {
    openings,
    nowOf: Object.fromEntries(
      rhythms.flatMap(({ channelId, entries }) => (entries.length > 0 ? [[channelId, nowOf(channelId)]] : [])),
    ),
  };
  if (!withHorizons) return { ...shown, horizons: [] };
  const today = localOf(now, brands[0]!.zone).date;
  // A day more at either end, for brands whose day is another already.
  const planned = await listPlannedPosts(db, brandIds, addDays(today, -1), addDays(today, HORIZON_DAYS));
  const ahead = rhythms.flatMap((rhythm) => {
    const from = nowOf(rhythm.channelId).date;
    return openingsBetween(rhythm, from, addDays(from, HORIZON_DAYS - 1), brandOfChannel.get(rhythm.channelId)!.zone);
  });
  return {
    ...shown,
    horizons: horizonsOf(channels, rhythms, ahead, planned, nowOf, (id) => brandOfChannel.get(id)!),
  };
}

function horizonsOf(
  channels: readonly Channel[],
  rhythms: readonly ChannelRhythm[],
  openings: readonly Opening[],
  planned: readonly PlannedPost[],
  nowOf: (channelId: string) => LocalNow,
  brandOf: (channelId: string) => Brand,
): Horizon[] {
  const openingsOf = groupBy(openings, (opening) => opening.channelId);
  const postsOf = groupBy(planned, (post) => post.channelId);
  const rhythmOf = new Map(rhythms.map((rhythm) => [rhythm.channelId, rhythm]));
  return channels.map((channel) => {
    const [own, now, rhythm] = [openingsOf.get(channel.id) ?? [], nowOf(channel.id), rhythmOf.get(channel.id)];
    const isBare = own.every(({ date, time }) => date === now.date && time < now.time);
    const beyond = addDays(now.date, HORIZON_DAYS - 1);
    const next = isBare && rhythm ? nextOpeningDay(rhythm, beyond, brandOf(channel.id).zone) : null;
    return horizonOf(channel, own, postsOf.get(channel.id) ?? [], now, next);
  });
}
