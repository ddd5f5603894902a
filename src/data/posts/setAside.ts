import type { LocalDate } from '@/core/time/plan';
import type { Queryable } from '../database/db';

/** A post that was set aside, or taken down after it was published, with why. */
export interface SetAsidePost {
  id: string;
  title: string;
  channelId: string;
  date: LocalDate | null;
  reason: string;
  isTakenDown: boolean;
}

const POSTS = `(
  select id, title, channel_id, plan_date, plan_time, set_aside_reason as reason, false as is_taken_down from posts
  where brand_id = $1 and stage = 'setAside' and deleted_at is null and archived_at is null
  union all
  select p.id, p.title, p.channel_id, p.plan_date, p.plan_time, t.reason, true from take_downs t join posts p on p.id = t.post_id
  where t.brand_id = $1 and p.deleted_at is null) x`;

/** The posts of a brand that were set aside or taken down, the last days first, those without a day before all. @param reason null for any */
export function listSetAside(
  db: Queryable,
  brandId: string,
  reason: string | null,
  limit: number,
): Promise<SetAsidePost[]> {
  return db.rows<SetAsidePost>(
    `select id, title, channel_id as "channelId", plan_date as date, reason, is_taken_down as "isTakenDown"
     from ${POSTS} where $2::text is null or reason = $2
     order by plan_date desc nulls first, plan_time desc nulls first, id limit $3`,
    [brandId, reason, limit],
  );
}

/** Why posts of a brand were set aside or taken down, and how many, the most first. */
export function listReasonsSetAside(
  db: Queryable,
  brandId: string,
  limit: number,
): Promise<{ reason: string; count: number }[]> {
  return db.rows(
    `select reason, count(*)::int as count from ${POSTS} group by reason order by count desc, reason limit $2`,
    [brandId, limit],
  );
}
