import type { Lasting, PastPost } from '@/core/encores/encores';
import type { FamilyMember } from '@/core/encores/family';
import type { Counts } from '@/core/results/engagement';
import type { LocalDate } from '@/core/time/plan';
import type { Queryable } from '../database/db';
import { instantText, manyRows } from '../database/manyRows';

/** A published post with the counts of its last reading that engagement is worked out from. */
export type PastRow = Omit<PastPost, 'rate'> &
  Pick<Counts, 'reach' | 'views' | 'likes' | 'comments' | 'shares' | 'saves'>;

/** All published posts of a brand on channels that are not archived. */
export function listPast(db: Queryable, brandId: string): Promise<PastRow[]> {
  return manyRows<PastRow>(
    db,
    {
      id: 'p.id',
      rootId: 'coalesce(p.encore_of, p.id)',
      channelId: 'p.channel_id',
      format: 'p.format',
      publishedAt: instantText('p.published_at'),
      lasting: 'p.lasting',
      againWeeks: 'p.again_weeks',
      reach: 'r.reach',
      views: 'r.views',
      likes: 'r.likes',
      comments: 'r.comments',
      shares: 'r.shares',
      saves: 'r.saves',
    },
    `posts p left join lateral (select r.reach, r.views, r.likes, r.comments, r.shares, r.saves from readings r
       where r.post_id = p.id order by r.read_at desc limit 1) r on true
     where p.brand_id = $1 and p.stage = 'published' and p.deleted_at is null and p.published_at is not null
       and p.channel_id = any(array(select id from channels where brand_id = $1 and archived_at is null))`,
    [brandId],
  );
}

/** The first posts of those that have one to come again. */
export async function listPlannedAgain(db: Queryable, brandId: string): Promise<Set<string>> {
  const rows = await db.rows<{ id: string }>(
    `select distinct encore_of as id from posts
     where brand_id = $1 and encore_of is not null and deleted_at is null and stage not in ('published', 'setAside')`,
    [brandId],
  );
  return new Set(rows.map(({ id }) => id));
}

/** Says of a post, and of all that are it again, whether it may come again. */
export async function updateLasting(
  tx: Queryable,
  rootId: string,
  lasting: Lasting,
  againWeeks: number | null,
): Promise<void> {
  await tx.run('update posts set lasting = $2, again_weeks = $3 where id = $1 or encore_of = $1', [
    rootId,
    lasting,
    againWeeks,
  ]);
}

/** Live posts of channels that say exactly one of these captions, on a day of a span. */
export function listSameCaptions(
  db: Queryable,
  channelIds: readonly string[],
  captions: readonly string[],
  from: LocalDate,
  to: LocalDate,
): Promise<{ channelId: string; caption: string; date: LocalDate }[]> {
  return db.rows(
    `select channel_id as "channelId", caption, plan_date as date from posts
     where channel_id = any($1::uuid[]) and deleted_at is null and stage <> 'setAside'
       and plan_date between $3 and $4 and caption = any($2::text[])`,
    [channelIds, captions, from, to],
  );
}

/** The live posts of a piece, as its family is drawn, at most 400. */
export function listFamily(db: Queryable, pieceId: string): Promise<FamilyMember[]> {
  return db.rows<FamilyMember>(
    `select id, channel_id as "channelId", title, plan_date as date, stage = 'published' as "isPublished",
       encore_of as "encoreOf"
     from posts where piece_id = $1 and deleted_at is null and stage <> 'setAside' order by plan_date, id limit 400`,
    [pieceId],
  );
}
