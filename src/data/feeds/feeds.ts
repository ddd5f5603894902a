import type { Instant, LocalDate } from '@/core/time/plan';
import type { Queryable } from '../database/db';
import { instantText } from '../database/manyRows';

/** A private calendar feed. */
export interface Feed {
  id: string;
  personId: string;
  /** The brand whose posts it gives; null: what is the person's own, in all brands. */
  brandId: string | null;
  madeAt: Instant;
  usedAt: Instant | null;
}

const SELECT = `select f.id, f.person_id as "personId", f.brand_id as "brandId", ${instantText('f.made_at')} as "madeAt",
  ${instantText('f.used_at')} as "usedAt" from feeds f`;

/** The feeds of a person that were not revoked, the last ones first. */
export const listFeeds = (db: Queryable, personId: string): Promise<Feed[]> =>
  db.rows<Feed>(`${SELECT} where f.person_id = $1 and f.revoked_at is null order by f.made_at desc, f.id`, [personId]);

/** The feed with a key of that hash that was not revoked, of somebody who is not archived. */
export async function maybeFeed(db: Queryable, keyHash: Buffer): Promise<Feed | undefined> {
  return (
    await db.rows<Feed>(
      `${SELECT} join people p on p.id = f.person_id
       where f.key_hash = $1 and f.revoked_at is null and p.archived_at is null`,
      [keyHash],
    )
  )[0];
}

/** Adds a feed. */
export async function insertFeed(tx: Queryable, feed: Omit<Feed, 'usedAt'> & { keyHash: Buffer }): Promise<void> {
  await tx.run('insert into feeds (id, key_hash, person_id, brand_id, made_at) values ($1, $2, $3, $4, $5)', [
    ...[feed.id, feed.keyHash, feed.personId, feed.brandId, feed.madeAt],
  ]);
}

/** Revokes a feed of somebody. @returns whether they had it */
export async function revokeFeed(tx: Queryable, personId: string, id: string, at: Instant): Promise<boolean> {
  const changed = await tx.run(
    'update feeds set revoked_at = $3 where id = $1 and person_id = $2 and revoked_at is null',
    [id, personId, at],
  );
  return changed === 1;
}

/** Notes that a feed was read. */
export async function noteFeedUsed(tx: Queryable, id: string, at: Instant): Promise<void> {
  await tx.run('update feeds set used_at = $2 where id = $1', [id, at]);
}

/** The dated posts that a feed gives, with whether they are off: set aside, or deleted. */
export function listPostsOfFeed(
  db: Queryable,
  { brandIds, ownerId }: { brandIds: readonly string[]; /** Null: of anybody. */ ownerId: string | null },
  from: LocalDate,
  to: LocalDate,
  limit: number,
): Promise<{ id: string; isOff: boolean }[]> {
  return db.rows(
    `select id, (stage = 'setAside' or deleted_at is not null) as "isOff" from posts
     where brand_id = any($1::uuid[]) and plan_date between $2 and $3 and ($4::uuid is null or owner_id = $4)
     order by plan_date, plan_time nulls first, id limit $5`,
    [brandIds, from, to, ownerId, limit],
  );
}

/** Somebody's steps that are not done, with their days. */
export function listStepsOfFeed(
  db: Queryable,
  personId: string,
  brandIds: readonly string[],
  from: LocalDate,
  to: LocalDate,
  limit: number,
): Promise<{ id: string; title: string; holder: string; day: LocalDate; version: number }[]> {
  return db.rows(
    `select s.id, s.title, coalesce(p.title, i.title, '') as holder, s.day, s.version
     from steps s left join posts p on p.id = s.post_id left join pieces i on i.id = s.piece_id
     where s.owner_id = $1 and s.brand_id = any($2::uuid[]) and s.done_at is null and s.day between $3 and $4
       and p.deleted_at is null and (p.stage is null or p.stage not in ('setAside', 'published'))
     order by s.day, s.id limit $5`,
    [personId, brandIds, from, to, limit],
  );
}
