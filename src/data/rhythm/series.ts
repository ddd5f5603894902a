import type { Recurrence } from '@/core/rhythm/entry';
import type { Format } from '@/core/rulesheets/types';
import type { Instant, LocalDate, LocalTime } from '@/core/time/plan';
import { ownWords } from '../posts/ownWords';
import type { Queryable } from '../database/db';

/** A named recurring theme that makes its next posts ahead. */
export interface Series {
  id: string;
  brandId: string;
  pieceId: string;
  channelId: string;
  name: string;
  format: Format;
  recurrence: Recurrence;
  time: LocalTime;
  from: LocalDate;
  to: LocalDate | null;
  /** How many posts it keeps ahead. */
  ahead: number;
  /** The number the next post gets. */
  nextNumber: number;
  /** The last round a post was made for, wherever that post was moved since; null while there is none. */
  lastRound: LocalDate | null;
  ownerId: string;
  endedAt: Instant | null;
}

const COLUMNS = `id, brand_id as "brandId", piece_id as "pieceId", channel_id as "channelId", name, format, recurrence,
  at_time as time, from_date as "from", to_date as "to", ahead, next_number as "nextNumber", last_round as "lastRound", owner_id as "ownerId",
  ended_at as "endedAt"`;

/** The series of a brand that have not ended, by name. */
export function listSeries(db: Queryable, brandId: string): Promise<Series[]> {
  return db.rows<Series>(`select ${COLUMNS} from series where brand_id = $1 and ended_at is null order by name, id`, [
    brandId,
  ]);
}

/** All series that have not ended: those that may have to make posts. */
export function listRunningSeries(db: Queryable): Promise<Series[]> {
  return db.rows<Series>(`select ${COLUMNS} from series where ended_at is null order by id`);
}

/** The series with that id, held until the transaction ends. */
export async function maybeSeriesForUpdate(tx: Queryable, id: string): Promise<Series | undefined> {
  return (await tx.rows<Series>(`select ${COLUMNS} from series where id = $1 for update`, [id]))[0];
}

/** Adds a series, or writes all of a known one. */
export async function saveSeries(tx: Queryable, series: Series): Promise<void> {
  await tx.run(
    `insert into series (id, brand_id, piece_id, channel_id, name, format, recurrence, at_time, from_date, to_date, ahead,
       next_number, owner_id, ended_at, last_round)
     values ($1, $2, $3, $4, $5, $6, $7::jsonb, $8, $9, $10, $11, $12, $13, $14, $15)
     on conflict (id) do update set name = $5, format = $6, recurrence = $7::jsonb, at_time = $8, from_date = $9,
       to_date = $10, ahead = $11, next_number = $12, ended_at = $14, last_round = $15`,
    [
      series.id,
      series.brandId,
      series.pieceId,
      series.channelId,
      series.name,
      series.format,
      JSON.stringify(series.recurrence),
      series.time,
      series.from,
      series.to,
      series.ahead,
      series.nextNumber,
      series.ownerId,
      series.endedAt,
      series.lastRound,
    ],
  );
}

/** A post of a series as far as the series looks at it. */
interface SeriesPost {
  id: string;
  number: number;
  date: LocalDate | null;
  time: LocalTime | null;
  title: string;
  stage: string;
  hasWords: boolean;
  version: number;
}

/** The posts of a series from a number on, set aside ones too, by number. */
export function listSeriesPosts(db: Queryable, seriesId: string, fromNumber: number): Promise<SeriesPost[]> {
  return db.rows<SeriesPost>(
    `select id, series_number as number, plan_date as date, plan_time as time, title, stage, version,
       ${ownWords('posts')} as "hasWords"
     from posts where series_id = $1 and series_number >= $2 and deleted_at is null order by series_number`,
    [seriesId, fromNumber],
  );
}
