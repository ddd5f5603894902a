import type { Lasting, PastPost, Peers } from '@/core/encores/encores';
import type { FamilyMember } from '@/core/encores/family';
import type { Format } from '@/core/rulesheets/types';
import type { Instant, LocalDate } from '@/core/time/plan';
import type { Queryable } from '../database/db';
import { instantText, manyRows } from '../database/manyRows';

/** How published posts of a brand did, by channel and format, on channels that are not archived. */
export function listPeers(db: Queryable, brandId: string): Promise<Peers[]> {
  return manyRows<Peers>(
    db,
    { channelId: 'x.channel_id', format: 'x.format', rates: 'x.rates' },
    `(select p.channel_id, p.format, json_agg(p.rate order by p.rate) as rates from posts p
      where p.channel_id = any(array(select id from channels where brand_id = $1 and archived_at is null))
        and p.stage = 'published' and p.deleted_at is null and p.rate is not null
      group by p.channel_id, p.format) x`,
    [brandId],
  );
}

/** What has to be known to find the families that may be shown. */
interface EncoreSearch {
  /** Channels and formats of which posts have numbers, with the rate that is exceeded by what did well; null with too few to tell. */
  middles: readonly { channelId: string; format: Format; middle: number | null }[];
  /** Instants before which a family is out last that is old enough, and that counts in full. */
  least: Instant;
  full: Instant;
  /** Families wanted of each kind, at most. */
  limit: number;
}

const ROOT = 'coalesce(p.encore_of, p.id)';
const OUT = `p.stage = 'published' and p.deleted_at is null and p.published_at is not null
  and not exists (select 1 from take_downs t where t.post_id = p.id)`;

/**
 * No post of the family of `p` holds for a condition on `f`. The family is found by its own indexes alone (`offset 0`), whatever a plan
 * thinks of the condition.
 */
const noneOfFamily = (condition: string) => {
  const someOf = (family: string) =>
    `(select false from (select * from posts f where ${family} = ${ROOT} and f.deleted_at is null offset 0) f
      where ${condition} limit 1)`;
  return `coalesce(${someOf('f.id')}, ${someOf('f.encore_of')}, true)`;
};

/** The family of `p` may come again: none of it is dated, to come, or out after an instant. */
const mayComeAgain = (since: string) =>
  noneOfFamily(`case when f.stage = 'published' then f.lasting = 'dated' or f.published_at > ${since}
    else f.encore_of is not null and f.stage <> 'setAside' end`);

const IS_BEST_OF_PEERS = noneOfFamily(`f.stage = 'published' and f.channel_id = p.channel_id and f.format = p.format
  and (f.rate, f.id) > (p.rate, p.id)`);
const HAS_NO_PERCENTILE = noneOfFamily(`f.stage = 'published' and f.rate is not null
  and exists (select 1 from told t where t.channel_id = f.channel_id and t.format = f.format)`);

/**
 * All published posts of the families that may be shown as encores: those that are not long old enough, and of the others the first. What did well is looked for from the best of each channel and format down, what has no numbers from the oldest
 * on, so that few posts are read however many there are.
 */
export function listMayComeAgain(
  db: Queryable,
  brandId: string,
  { middles, least, full, limit }: EncoreSearch,
): Promise<PastPost[]> {
  return manyRows<PastPost>(
    db,
    {
      id: 'p.id',
      rootId: ROOT,
      channelId: 'p.channel_id',
      format: 'p.format',
      publishedAt: instantText('p.published_at'),
      lasting: 'p.lasting',
      rate: 'p.rate',
    },
    `(select * from posts p
      where (p.id = any(array(select id from roots)) or p.encore_of = any(array(select id from roots))) and p.deleted_at is null
      offset 0) p
     where ${OUT} and p.channel_id = any(array(select id from shown))`,
    [brandId, JSON.stringify(middles), least, full, limit],
    `with shown as (select id from channels where brand_id = $1 and archived_at is null),
     middles as (select "channelId" as channel_id, format, middle
       from jsonb_to_recordset($2::jsonb) as x ("channelId" uuid, format text, middle float8)),
     told as (select * from middles where middle is not null),
     well_and_old as (select best.id from told t cross join lateral (
       select ${ROOT} as id from posts p
       where p.channel_id = t.channel_id and p.format = t.format and p.rate > t.middle and ${OUT}
         and ${mayComeAgain('$4::timestamptz')} and ${IS_BEST_OF_PEERS}
       order by p.rate desc, p.published_at limit $5) best),
     not_long_old as (select ${ROOT} as id from posts p
       where p.brand_id = $1 and p.published_at > $4::timestamptz and p.published_at <= $3::timestamptz
         and ${OUT} and ${mayComeAgain('$3::timestamptz')}),
     few as (select one.id from middles t cross join lateral (
       select ${ROOT} as id from posts p
       where p.channel_id = t.channel_id and p.format = t.format and p.rate is not null and p.published_at <= $3::timestamptz
         and ${OUT} and ${mayComeAgain('p.published_at')}
       offset 0) one
       where t.middle is null),
     untold as (select ${ROOT} as id from posts p
       where p.brand_id = $1 and p.channel_id = any(array(select id from shown)) and p.published_at <= $3::timestamptz and p.rate is null
         and ${OUT} and ${mayComeAgain('p.published_at')} and ${HAS_NO_PERCENTILE}
       order by p.published_at, ${ROOT} limit $5),
     roots as (select id from well_and_old union select id from not_long_old
       union select id from few union select id from untold)`,
  );
}

/** Says of a post, and of all that are it again, whether it may come again. */
export async function updateLasting(tx: Queryable, rootId: string, lasting: Lasting): Promise<void> {
  await tx.run('update posts set lasting = $2 where id = $1 or encore_of = $1', [rootId, lasting]);
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
