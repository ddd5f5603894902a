import type { LocalDate } from '@/core/time/plan';
import type { Queryable } from '../database/db';

/** A post that was set aside, with why. */
export interface SetAsidePost {
  id: string;
  title: string;
  channelId: string;
  date: LocalDate | null;
  reason: string;
}

const IS_SET_ASIDE = `brand_id = $1 and stage = 'setAside' and deleted_at is null and archived_at is null`;

/** The posts of a brand that were set aside, the last days first, those without a day before all. @param reason null for any */
export function listSetAside(
  db: Queryable,
  brandId: string,
  reason: string | null,
  limit: number,
): Promise<SetAsidePost[]> {
  return db.rows<SetAsidePost>(
    `select id, title, channel_id as "channelId", plan_date as date, set_aside_reason as reason
     from posts where ${IS_SET_ASIDE} and ($2::text is null or set_aside_reason = $2)
     order by plan_date desc nulls first, plan_time desc nulls first, id limit $3`,
    [brandId, reason, limit],
  );
}

/** Why posts of a brand were set aside, and how many, the most first. */
export function listReasonsSetAside(
  db: Queryable,
  brandId: string,
  limit: number,
): Promise<{ reason: string; count: number }[]> {
  return db.rows(
    `select set_aside_reason as reason, count(*)::int as count from posts where ${IS_SET_ASIDE}
     group by set_aside_reason order by count desc, reason limit $2`,
    [brandId, limit],
  );
}
