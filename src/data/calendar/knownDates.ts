import type { Instant, LocalDate, LocalTime } from '@/core/time/plan';
import type { Queryable } from '../database/db';

/** A date to plan around. */
export interface KnownDate {
  title: string;
  from: LocalDate;
  /** Last day, included. */
  to: LocalDate;
  /** Null for whole days. */
  time: LocalTime | null;
}

/** A file of dates that was brought in. */
export interface DateFile {
  id: string;
  brandId: string;
  name: string;
  fileName: string;
  importedAt: Instant;
  /** Repeating dates were reckoned up to this day. */
  reckonedTo: LocalDate;
  count: number;
}

/** The dates of these brands that touch a span of days, earliest first. At most 1,000. */
export function listKnownDates(
  db: Queryable,
  brandIds: readonly string[],
  from: LocalDate,
  to: LocalDate,
): Promise<KnownDate[]> {
  return db.rows<KnownDate>(
    `select title, from_date as "from", to_date as "to", to_char(at_time, 'HH24:MI') as time from known_dates
     where brand_id = any($1::uuid[]) and from_date <= $3 and to_date >= $2 order by from_date, at_time nulls first, title
     limit 1000`,
    [brandIds, from, to],
  );
}

/** The files of dates of a brand by name. */
export function listDateFiles(db: Queryable, brandId: string): Promise<DateFile[]> {
  return db.rows<DateFile>(
    `select f.id, f.brand_id as "brandId", f.name, f.file_name as "fileName", f.imported_at as "importedAt",
       f.reckoned_to as "reckonedTo", (select count(*)::int from known_dates d where d.file_id = f.id) as count
     from date_files f where f.brand_id = $1 order by f.name`,
    [brandId],
  );
}

/** Puts a file of dates in; one of the same name is replaced with all its dates. */
export async function replaceDateFile(
  tx: Queryable,
  file: Omit<DateFile, 'count'>,
  dates: readonly KnownDate[],
): Promise<void> {
  await tx.run('delete from date_files where brand_id = $1 and name = $2', [file.brandId, file.name]);
  await tx.run(
    'insert into date_files (id, brand_id, name, file_name, imported_at, reckoned_to) values ($1, $2, $3, $4, $5, $6)',
    [file.id, file.brandId, file.name, file.fileName, file.importedAt, file.reckonedTo],
  );
  await tx.run(
    `insert into known_dates (brand_id, file_id, title, from_date, to_date, at_time)
     select $1, $2, x.title, x."from", x."to", x.time
     from jsonb_to_recordset($3::jsonb) as x (title text, "from" date, "to" date, time time)`,
    [file.brandId, file.id, JSON.stringify(dates)],
  );
}

/** Gives a file of dates another name. @returns whether it was there */
export async function renameDateFile(tx: Queryable, brandId: string, id: string, name: string): Promise<boolean> {
  return (await tx.run('update date_files set name = $3 where brand_id = $1 and id = $2', [brandId, id, name])) === 1;
}

/** Takes a file of dates out again. @returns whether it was there */
export async function deleteDateFile(tx: Queryable, brandId: string, id: string): Promise<boolean> {
  return (await tx.run('delete from date_files where brand_id = $1 and id = $2', [brandId, id])) === 1;
}
