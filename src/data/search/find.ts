import { searchQuery } from '@/core/search/search';
import type { LocalDate } from '@/core/time/plan';
import type { Queryable } from '../database/db';

/** Something found by words. */
export interface Found {
  kind: 'post' | 'piece';
  id: string;
  title: string;
  /** Of posts. */
  date: LocalDate | null;
  callSign: string | null;
}

/** Posts and pieces of a brand that hold the words in any of their texts: the newest, at most `limit` each. */
export async function findByWords(db: Queryable, brandId: string, words: string, limit: number): Promise<Found[]> {
  const query = searchQuery(words);
  if (query === '') return [];
  return db.rows<Found>(
    `(select 'post' as kind, p.id, p.title, p.plan_date as date, c.call_sign as "callSign"
      from posts p join channels c on c.id = p.channel_id
      where p.brand_id = $1 and p.deleted_at is null and p.search @@ to_tsquery('simple', $2)
      order by p.plan_date desc nulls first limit $3)
     union all
     (select 'piece' as kind, s.id, s.title, null, null from pieces s
      where s.brand_id = $1 and s.deleted_at is null and s.search @@ to_tsquery('simple', $2)
      order by s.created_at desc limit $3)`,
    [brandId, query, limit],
  );
}
