import type { LocalDate } from '@/core/time/plan';
import type { Queryable } from '../database/db';

/** One of a brand's themes. */
interface Pillar {
  id: string;
  brandId: string;
  name: string;
  /** `#2E7D50` */
  color: string;
}

/** Something a brand pushes for a while. */
interface Campaign {
  id: string;
  brandId: string;
  name: string;
  color: string;
  from: LocalDate | null;
  to: LocalDate | null;
}

/** The pillars of these brands in their order; archived ones on demand. */
export function listPillars(
  db: Queryable,
  brandIds: readonly string[],
  options: { archived?: boolean } = {},
): Promise<Pillar[]> {
  return db.rows<Pillar>(
    `select id, brand_id as "brandId", name, color from pillars
     where brand_id = any($1::uuid[]) and (archived_at is null or $2) order by position, name`,
    [brandIds, options.archived ?? false],
  );
}

/** The campaigns of these brands, the latest first; archived ones on demand. */
export function listCampaigns(
  db: Queryable,
  brandIds: readonly string[],
  options: { archived?: boolean } = {},
): Promise<Campaign[]> {
  return db.rows<Campaign>(
    `select id, brand_id as "brandId", name, color, from_date as "from", to_date as "to" from campaigns
     where brand_id = any($1::uuid[]) and (archived_at is null or $2) order by from_date desc nulls last, name`,
    [brandIds, options.archived ?? false],
  );
}

/** Which of these pillars and campaigns are there, and whose they are. */
export function listThemeBrands(
  db: Queryable,
  pillarIds: readonly string[],
  campaignIds: readonly string[],
): Promise<{ kind: 'pillarId' | 'campaignId'; id: string; brandId: string }[]> {
  return db.rows(
    `select 'pillarId' as kind, id, brand_id as "brandId" from pillars where id = any($1::uuid[])
     union all select 'campaignId', id, brand_id from campaigns where id = any($2::uuid[])`,
    [pillarIds, campaignIds],
  );
}

/** Adds a pillar at the end, or writes a known one. */
export async function savePillar(tx: Queryable, pillar: Pillar): Promise<void> {
  await tx.run(
    `insert into pillars (id, brand_id, name, color, position)
     values ($1, $2, $3, $4, (select count(*) from pillars where brand_id = $2))
     on conflict (id) do update set name = $3, color = $4 where pillars.brand_id = $2`,
    [pillar.id, pillar.brandId, pillar.name, pillar.color],
  );
}

/** Adds a campaign, or writes a known one. */
export async function saveCampaign(tx: Queryable, campaign: Campaign): Promise<void> {
  await tx.run(
    `insert into campaigns (id, brand_id, name, color, from_date, to_date) values ($1, $2, $3, $4, $5, $6)
     on conflict (id) do update set name = $3, color = $4, from_date = $5, to_date = $6 where campaigns.brand_id = $2`,
    [campaign.id, campaign.brandId, campaign.name, campaign.color, campaign.from, campaign.to],
  );
}

/** Archives a pillar or campaign: posts keep it, new ones are not offered it. @returns whether it was there */
export async function archiveTheme(
  tx: Queryable,
  table: 'pillars' | 'campaigns',
  brandId: string,
  id: string,
  at: string,
): Promise<boolean> {
  const changed = await tx.run(
    // Its name is free for another; one that was archived under the same name on the same day is told apart by a number.
    `update ${table} t set archived_at = $3::timestamptz, name = t.name || $4 || (
       select case count(*) when 0 then '' else ' ' || count(*) + 1 end from ${table} o
       where o.brand_id = t.brand_id and starts_with(o.name, t.name || $4))
     where t.id = $1 and t.brand_id = $2 and t.archived_at is null`,
    [id, brandId, at, ` (archived ${at.slice(0, 10)})`],
  );
  return changed === 1;
}

/** Whether a pillar or campaign of that brand is there. */
export async function existsTheme(
  db: Queryable,
  table: 'pillars' | 'campaigns',
  brandId: string,
  id: string,
): Promise<boolean> {
  return (await db.rows(`select 1 from ${table} where id = $1 and brand_id = $2`, [id, brandId])).length > 0;
}
