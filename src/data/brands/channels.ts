import { DISTANCE_MINUTES } from '@/core/rhythm/window';
import { carries, type Delivers } from '@/core/delivery/carrier';
import { DEFAULT_AIM_DAYS } from '@/core/rhythm/horizon';
import type { RuleSheet } from '@/core/rulesheets/types';
import type { Queryable } from '../database/db';

/** One account of a brand on one network, with what that network allows. */
export interface Channel {
  id: string;
  brandId: string;
  name: string;
  /** Two capitals, unique in the brand. */
  callSign: string;
  /** `#2E7D50` */
  color: string;
  account: string;
  ruleSheetId: string;
  /** How many days ahead it should be filled. */
  aimDays: number;
  /** Minutes before its time at which people are told of a post that they post by hand. */
  leadMinutes: number;
  /** Minutes that a minute chosen in a window keeps from its other posts. */
  distanceMinutes: number;
  archived: boolean;
  /** Its rules as they hold for its brand. */
  sheet: RuleSheet;
}

const SELECT = `select c.id, c.brand_id as "brandId", c.name, c.call_sign as "callSign", c.color, c.account,
    c.rule_sheet_id as "ruleSheetId", c.aim_days as "aimDays", c.lead_minutes as "leadMinutes",
    c.distance_minutes as "distanceMinutes",
    c.archived_at is not null as archived, r.rules as sheet, b.delivers
  from channels c join rule_sheets r on r.id = c.rule_sheet_id join brands b on b.id = c.brand_id`;

async function readChannels(
  db: Queryable,
  where: string,
  parameters: Parameters<Queryable['rows']>[1],
): Promise<Channel[]> {
  const rows = await db.rows<Channel & { delivers: Delivers }>(`${SELECT} ${where}`, parameters);
  return rows.map(({ delivers, ...channel }) => asHeld(channel, delivers));
}

/** A channel with its rules as they hold for a brand, made of those of its rule sheet. */
export const asHeld = (channel: Channel, delivers: Delivers): Channel => ({
  ...channel,
  sheet: { ...channel.sheet, automatic: carries(channel.sheet, delivers) },
});

/** The channels of a brand that are not archived, in their order. */
export function listChannels(db: Queryable, brandId: string): Promise<Channel[]> {
  return listChannelsOf(db, [brandId]);
}

/** The channels of these brands, brand by brand in their order; archived ones, last, on demand. */
export function listChannelsOf(
  db: Queryable,
  brandIds: readonly string[],
  options: { archived?: boolean } = {},
): Promise<Channel[]> {
  return readChannels(
    db,
    `where c.brand_id = any($1::uuid[]) and (c.archived_at is null or $2)
     order by array_position($1::uuid[], c.brand_id), c.archived_at is not null, c.position, c.name`,
    [brandIds, options.archived ?? false],
  );
}

/** The channels with these ids, archived or not, in no order. */
export function listChannelsById(db: Queryable, ids: readonly string[]): Promise<Channel[]> {
  return readChannels(db, 'where c.id = any($1::uuid[])', [ids]);
}

/** The channel with that id, archived or not. @throws when there is none. */
export async function oneChannel(db: Queryable, id: string): Promise<Channel> {
  const channel = (await readChannels(db, 'where c.id = $1', [id]))[0];
  if (!channel) throw new Error(`no channel ${id}`);
  return channel;
}

/** The channel with that id that is not archived, if there is one. */
export async function maybeChannel(db: Queryable, id: string): Promise<Channel | undefined> {
  return (await readChannels(db, 'where c.id = $1 and c.archived_at is null', [id]))[0];
}

/** A rule sheet with what it is known by. */
interface KeptRuleSheet {
  id: string;
  slug: string;
  name: string;
  rules: RuleSheet;
  /** Channels that go by it. */
  channels: number;
}

/** All rule sheets by name. */
export function listRuleSheets(db: Queryable): Promise<KeptRuleSheet[]> {
  return db.rows<KeptRuleSheet>(
    `select r.id, r.slug, r.name, r.rules,
       (select count(*)::int from channels c where c.rule_sheet_id = r.id and c.archived_at is null) as channels
     from rule_sheets r order by r.name`,
  );
}

/** The channels that go by a rule sheet. */
export function channelsOfSheet(db: Queryable, ruleSheetId: string): Promise<{ id: string; brandId: string }[]> {
  return db.rows('select id, brand_id as "brandId" from channels where rule_sheet_id = $1', [ruleSheetId]);
}

/** Writes the rules of a rule sheet. */
export async function updateRuleSheet(tx: Queryable, id: string, sheet: RuleSheet): Promise<void> {
  await tx.run('update rule_sheets set name = $2, rules = $3::jsonb where id = $1', [
    id,
    sheet.name,
    JSON.stringify(sheet),
  ]);
}

/** Writes what can be set of a channel. @returns whether the brand has it */
export async function updateChannel(
  tx: Queryable,
  brandId: string,
  id: string,
  fields: Pick<Channel, 'name' | 'callSign' | 'color' | 'account' | 'aimDays'> & {
    ruleSheetId: string;
    /** Absent: as it is. */
    leadMinutes?: number;
    distanceMinutes?: number;
  },
): Promise<boolean> {
  const changed = await tx.run(
    `update channels set name = $3, call_sign = $4, color = $5, account = $6, aim_days = $7, rule_sheet_id = $8,
       lead_minutes = coalesce($9, lead_minutes), distance_minutes = coalesce($10, distance_minutes)
     where id = $1 and brand_id = $2 and archived_at is null`,
    [
      ...[id, brandId, fields.name, fields.callSign, fields.color, fields.account, fields.aimDays, fields.ruleSheetId],
      ...[fields.leadMinutes ?? null, fields.distanceMinutes ?? null],
    ],
  );
  return changed === 1;
}

/** Archives a channel. */
export async function archiveChannel(tx: Queryable, id: string, at: string): Promise<void> {
  await tx.run('update channels set archived_at = $2 where id = $1', [id, at]);
}

/** Adds rule sheets. */
export async function insertRuleSheets(
  tx: Queryable,
  sheets: readonly { id: string; sheet: RuleSheet }[],
): Promise<void> {
  await tx.run(
    `insert into rule_sheets (id, slug, name, rules)
     select (s->>'id')::uuid, s->'sheet'->>'slug', s->'sheet'->>'name', s->'sheet' from jsonb_array_elements($1::jsonb) s`,
    [JSON.stringify(sheets)],
  );
}

/** Adds a channel on the network with that rule sheet. */
export async function insertChannel(
  tx: Queryable,
  channel: Omit<Channel, 'sheet' | 'aimDays' | 'leadMinutes' | 'distanceMinutes' | 'ruleSheetId' | 'archived'> & {
    ruleSheetSlug: string;
    position: number;
    aimDays?: number;
    leadMinutes?: number;
    distanceMinutes?: number;
  },
): Promise<void> {
  await tx.run(
    `insert into channels (id, brand_id, rule_sheet_id, name, call_sign, color, account, position, aim_days, lead_minutes, distance_minutes)
     select $1, $2, r.id, $4, $5, $6, $7, $8, $9, $10, $11 from rule_sheets r where r.slug = $3`,
    [
      channel.id,
      channel.brandId,
      channel.ruleSheetSlug,
      channel.name,
      channel.callSign,
      channel.color,
      channel.account,
      channel.position,
      channel.aimDays ?? DEFAULT_AIM_DAYS,
      channel.leadMinutes ?? 0,
      channel.distanceMinutes ?? DISTANCE_MINUTES.usual,
    ],
  );
}
