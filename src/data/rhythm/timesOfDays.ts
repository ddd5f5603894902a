import type { LocalDate, LocalTime } from '@/core/time/plan';
import type { Queryable } from '../database/db';

/** When something is planned on days of channels. */
export function listTimesOfDays(
  db: Queryable,
  days: readonly { channelId: string; date: LocalDate }[],
): Promise<{ postId: string; channelId: string; date: LocalDate; time: LocalTime }[]> {
  return db.rows(
    `select p.id as "postId", p.channel_id as "channelId", p.plan_date as date, p.plan_time as time
     from jsonb_to_recordset($1::jsonb) as x ("channelId" uuid, date date)
       join posts p on p.channel_id = x."channelId" and p.plan_date = x.date
     where p.plan_time is not null and p.deleted_at is null and p.stage <> 'setAside'`,
    [JSON.stringify(days)],
  );
}
