import { randomUUID } from 'node:crypto';
import type { DaySpan, RhythmEntry } from '@/core/rhythm/entry';
import type { ChannelRhythm } from '@/core/rhythm/openings';
import type { LocalDate } from '@/core/time/plan';
import type { Queryable } from '../database/db';

/** A named span of days in which a channel, or a whole brand, asks for nothing. */
interface NamedSpan extends DaySpan {
  id: string;
  name: string;
}

/** The rhythms of all channels of these brands; the days off of a brand count as pauses of each of its channels. */
export async function listRhythms(db: Queryable, brandIds: readonly string[]): Promise<ChannelRhythm[]> {
  const [row] = await db.rows<{ rhythms: ChannelRhythm[] }>(
    `select coalesce(json_agg(json_build_object('channelId', c.id,
       'entries', (select coalesce(json_agg(json_build_object('id', e.id, 'recurrence', e.recurrence,
           'time', to_char(e.at_time, 'HH24:MI'), 'until', to_char(e.until_time, 'HH24:MI'), 'format', e.format, 'theme', e.theme, 'pillarId', e.pillar_id,
           'from', e.from_date, 'to', e.to_date) order by e.position), '[]')
         from rhythm_entries e where e.channel_id = c.id),
       'pauses', (select coalesce(json_agg(json_build_object('from', s.from_date, 'to', s.to_date)), '[]') from (
           select from_date, to_date from rhythm_pauses p where p.channel_id = c.id
           union all select from_date, to_date from brand_days_off o where o.brand_id = c.brand_id) s)
     )), '[]') as rhythms from channels c where c.brand_id = any($1::uuid[]) and c.archived_at is null`,
    [brandIds],
  );
  return row!.rhythms;
}

/** Replaces the whole rhythm of a channel. */
export async function replaceRhythm(
  tx: Queryable,
  channel: { id: string; brandId: string },
  entries: readonly RhythmEntry[],
): Promise<void> {
  await tx.run('delete from rhythm_entries where channel_id = $1', [channel.id]);
  await tx.run(
    `insert into rhythm_entries (id, brand_id, channel_id, position, recurrence, at_time, format, theme, pillar_id,
       from_date, to_date, until_time)
     select x.id, $1, $2, x.position, x.recurrence, x.time, x.format, x.theme, x."pillarId", x."from", x."to", x.until
     from jsonb_to_recordset($3::jsonb) as x (id uuid, position int, recurrence jsonb, time time, format text, theme text,
       "pillarId" uuid, "from" date, "to" date, until time)`,
    [channel.brandId, channel.id, JSON.stringify(entries.map((entry, position) => ({ ...entry, position })))],
  );
}

/** The pauses of a channel, earliest first. */
export function listPauses(db: Queryable, channelId: string): Promise<NamedSpan[]> {
  return db.rows<NamedSpan>(
    'select id, name, from_date as "from", to_date as "to" from rhythm_pauses where channel_id = $1 order by from_date, id',
    [channelId],
  );
}

/** Replaces the pauses of a channel. */
export async function replacePauses(
  tx: Queryable,
  channel: { id: string; brandId: string },
  pauses: readonly (DaySpan & { name: string })[],
): Promise<void> {
  await tx.run('delete from rhythm_pauses where channel_id = $1', [channel.id]);
  await tx.run(
    `insert into rhythm_pauses (id, brand_id, channel_id, name, from_date, to_date)
     select x.id, $1, $2, x.name, x."from", x."to"
     from jsonb_to_recordset($3::jsonb) as x (id uuid, name text, "from" date, "to" date)`,
    [channel.brandId, channel.id, JSON.stringify(pauses.map((pause) => ({ ...pause, id: randomUUID() })))],
  );
}

/** The days off of a brand, earliest first. */
export function listDaysOff(db: Queryable, brandId: string): Promise<NamedSpan[]> {
  return db.rows<NamedSpan>(
    'select id, name, from_date as "from", to_date as "to" from brand_days_off where brand_id = $1 order by from_date, id',
    [brandId],
  );
}

/** Replaces the days off of a brand. */
export async function replaceDaysOff(
  tx: Queryable,
  brandId: string,
  daysOff: readonly (DaySpan & { name: string })[],
): Promise<void> {
  await tx.run('delete from brand_days_off where brand_id = $1', [brandId]);
  await tx.run(
    `insert into brand_days_off (id, brand_id, name, from_date, to_date)
     select x.id, $1, x.name, x."from", x."to"
     from jsonb_to_recordset($2::jsonb) as x (id uuid, name text, "from" date, "to" date)`,
    [brandId, JSON.stringify(daysOff.map((span) => ({ ...span, id: randomUUID() })))],
  );
}

/** When and as what a channel really published in the last weeks: what a rhythm can be proposed from. Newest first. */
export function listPractice(
  db: Queryable,
  channelId: string,
  since: LocalDate,
): Promise<{ date: LocalDate; time: string | null; format: string; title: string }[]> {
  return db.rows(
    `select p.plan_date as date, to_char(p.plan_time, 'HH24:MI') as time, p.format, p.title from posts p
     where p.channel_id = $1 and p.stage = 'published' and p.plan_date >= $2 and p.deleted_at is null
     order by p.plan_date desc, p.plan_time desc limit 500`,
    [channelId, since],
  );
}
