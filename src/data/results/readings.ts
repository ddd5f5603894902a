import type { Reading } from '@/core/results/engagement';
import type { Queryable } from '../database/db';

/** Keeps what was said of posts; the same post at the same instant is told once more. */
export async function insertReadings(
  tx: Queryable,
  readings: readonly (Reading & { postId: string })[],
): Promise<void> {
  if (readings.length === 0) return;
  await tx.run(
    `insert into readings (post_id, read_at, reach, views, likes, comments, shares, saves, clicks, follows, watch_seconds)
     select x."postId", x.at, x.reach, x.views, x.likes, x.comments, x.shares, x.saves, x.clicks, x.follows, x."watchSeconds"
     from jsonb_to_recordset($1::jsonb) as x ("postId" uuid, at timestamptz, reach int, views int, likes int, comments int,
       shares int, saves int, clicks int, follows int, "watchSeconds" bigint)
     on conflict (post_id, read_at) do update set reach = excluded.reach, views = excluded.views, likes = excluded.likes,
       comments = excluded.comments, shares = excluded.shares, saves = excluded.saves, clicks = excluded.clicks,
       follows = excluded.follows, watch_seconds = excluded.watch_seconds`,
    [JSON.stringify(readings)],
  );
}

/** The columns of a reading `r`, without its post. */
const READING = `r.read_at as at, r.reach, r.views, r.likes, r.comments, r.shares, r.saves, r.clicks, r.follows,
  r.watch_seconds::float8 as "watchSeconds"`;

/** The last reading of each of these posts, by its id. */
export async function latestReadings(db: Queryable, postIds: readonly string[]): Promise<Map<string, Reading>> {
  const rows = await db.rows<Reading & { postId: string }>(
    `select x.id as "postId", r.* from unnest($1::uuid[]) as x (id)
     cross join lateral (select ${READING} from readings r where r.post_id = x.id order by r.read_at desc limit 1) r`,
    [postIds],
  );
  return new Map(rows.map(({ postId, ...reading }) => [postId, reading]));
}
