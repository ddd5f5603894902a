import type { Work } from '@/core/prep/step';
import type { Role } from '@/core/rights/may';
import type { Brand } from '../brands/brands';
import { asHeld, type Channel } from '../brands/channels';
import { JSON_COLUMNS as DELIVERY, type Delivery } from '../delivery/deliveries';
import type { Queryable } from '../database/db';
import { manyRows } from '../database/manyRows';
import { COLUMNS as PICTURE, type Picture } from '../media/media';
import { JSON_COLUMNS as POST, type Post } from './posts';

/** A step as far as the readiness of its post depends on it. */
export interface ReadinessStep {
  id: string;
  title: string;
  needed: boolean;
  lead: number;
  doneOn: string | null;
  work: Work;
  ticksItself: boolean;
  /** It is a needed step of the post's piece, which holds up its posts too. */
  ofPiece: boolean;
}

/** What decides about a post beside itself. */
export interface PostSurroundings {
  id: string;
  /** The title of its piece. */
  pieceTitle: string;
  brand: Brand;
  channel: Channel;
  pictures: Picture[];
  steps: ReadinessStep[];
  /** Whether the person asked about works for its brand, and what they are; null where nobody, or nobody any more, is asked about. */
  isTheirs: boolean;
  role: Role | null;
}

/** Locks the posts with these ids, deleted ones too, in one order for everybody. */
export function lockPosts(tx: Queryable, ids: readonly string[]): Promise<Post[]> {
  return manyRows<Post>(tx, POST, 'posts p where p.id = any($1::uuid[]) order by p.id for update', [ids]);
}

/** Locks the deliveries that still decide about posts which are locked already: the current ones, and those whose outcome is not known. */
export function lockDeliveriesOf(tx: Queryable, postIds: readonly string[]): Promise<Delivery[]> {
  return manyRows<Delivery>(
    tx,
    DELIVERY,
    `deliveries d where d.post_id = any($1::uuid[]) and (d.state <> 'withdrawn' or d.unsure_since is not null)
     order by d.id for update`,
    [postIds],
  );
}

/** What decides about a post, its brand and channel by their ids. */
type Row = Omit<PostSurroundings, 'brand' | 'channel'> & {
  brandId: string;
  channelId: string;
  /** With the first of its posts only: a rule sheet is long. */
  brand: Brand | null;
  channel: Channel | null;
};

/** Reads what decides about posts beside themselves, in one statement for all of them. */
export async function readSurroundings(
  tx: Queryable,
  postIds: readonly string[],
  personId: string | null,
): Promise<PostSurroundings[]> {
  const rows = await tx.rows<Row>(
    `select p.id, g.title as "pieceTitle", p.brand_id as "brandId", p.channel_id as "channelId",
       case when row_number() over (partition by p.brand_id) = 1 then
         jsonb_build_object('id', b.id, 'slug', b.slug, 'name', b.name, 'zone', b.zone, 'weekStart', b.week_start,
           'weekdays', b.weekdays, 'wordsPerMinute', b.words_per_minute, 'asksSignOff', b.asks_sign_off,
           'encoreDays', b.encore_days, 'delivers', b.delivers, 'makersSend', b.makers_send,
           'makersExchange', b.makers_exchange) end as brand,
       case when row_number() over (partition by p.channel_id) = 1 then
         jsonb_build_object('id', c.id, 'brandId', c.brand_id, 'name', c.name, 'callSign', c.call_sign, 'color', c.color,
           'account', c.account, 'ruleSheetId', c.rule_sheet_id, 'aimDays', c.aim_days, 'leadMinutes', c.lead_minutes,
           'distanceMinutes', c.distance_minutes,
           'archived', c.archived_at is not null, 'sheet', r.rules) end as channel,
       coalesce((select jsonb_agg(to_jsonb(x) order by x.position, x.id)
         from (select ${PICTURE} from media where post_id = p.id) x), '[]') as pictures,
       coalesce((select jsonb_agg(jsonb_build_object('id', s.id, 'title', s.title, 'needed', s.needed, 'lead', s.lead,
         'doneOn', s.done_on, 'work', s.work, 'ticksItself', s.ticks_itself, 'ofPiece', s.post_id is null)
         order by s.post_id is null, s.position, s.id)
         from steps s where s.holder_id = any(array[p.id, p.piece_id])
           and (s.post_id is not null or (s.needed and s.done_at is null))), '[]') as steps,
       exists (select 1 from brand_people w where w.brand_id = p.brand_id and w.person_id = $2::uuid) as "isTheirs",
       (select a.role from people a where a.id = $2::uuid and a.archived_at is null) as role
     from posts p join pieces g on g.id = p.piece_id join brands b on b.id = p.brand_id join channels c on c.id = p.channel_id
       join rule_sheets r on r.id = c.rule_sheet_id
     where p.id = any($1::uuid[])`,
    [postIds, personId],
  );
  const brands = new Map(rows.flatMap(({ brand }) => (brand ? [[brand.id, brand] as const] : [])));
  const channels = new Map(rows.flatMap(({ channel }) => (channel ? [[channel.id, channel] as const] : [])));
  return rows.map(({ brandId, channelId, ...row }) => ({
    ...row,
    brand: brands.get(brandId)!,
    channel: asHeld(channels.get(channelId)!, brands.get(brandId)!.delivers),
  }));
}
