import type { Instant, LocalDate, LocalTime } from '@/core/time/plan';
import type { Queryable } from '../database/db';

/** A post that was deleted, as far as somebody knows it again by that. */
export interface DeletedPost {
  id: string;
  title: string;
  caption: string;
  channelId: string;
  date: LocalDate | null;
  time: LocalTime | null;
  deletedAt: Instant;
}

/** The posts of a brand that were deleted since, the last first, at most `most`. */
export function listDeletedPosts(db: Queryable, brandId: string, since: Instant, most: number): Promise<DeletedPost[]> {
  return db.rows<DeletedPost>(
    `select p.id, p.title, left(p.caption, 200) as caption, p.channel_id as "channelId", p.plan_date as date,
       p.plan_time as time, p.deleted_at as "deletedAt"
     from posts p join pieces g on g.id = p.piece_id
     where p.brand_id = $1 and p.deleted_at > $2 and g.deleted_at is null
     order by p.deleted_at desc, p.id limit ${most}`,
    [brandId, since],
  );
}
