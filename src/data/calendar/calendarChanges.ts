import type { Instant } from '@/core/time/plan';
import type { Post } from '../posts/posts';
import type { Step } from '../prep/steps';
import type { Queryable } from '../database/db';

/** The fields of a post that a change may touch and undoing puts back. */
export const POST_FIELDS = [
  'date',
  'time',
  'stage',
  'stageBefore',
  'setAsideReason',
  'ownerId',
  'pillarId',
  'campaignId',
  'channelId',
  'format',
  'title',
  'deletedAt',
  'archivedAt',
] as const satisfies readonly (keyof Post)[];

/** Those fields of a post at some time. */
export type PostState = Pick<Post, (typeof POST_FIELDS)[number]>;

/** One post of a change: as it was before and after, or with null before for a post the change made. */
export interface ChangeItem {
  postId: string;
  before: PostState | null;
  after: PostState | null;
  /** The version it was made on. */
  base: number | null;
  /** The version the change left it at: a post that it made is taken back only while it still is that. */
  version: number;
}

/** One step of a change: as it was before and after; null where it was added or taken away. */
export interface StepItem {
  before: Omit<Step, 'version'> | null;
  after: Omit<Step, 'version'> | null;
}

/** Something a person did that they can undo. */
export interface CalendarChange {
  id: string;
  brandId: string;
  actorId: string;
  at: Instant;
  /** What was done, as it is told: “Moved 3 posts”. */
  label: string;
  items: readonly ChangeItem[];
  steps: readonly StepItem[];
  /** Channels a piece was suggested for until its posts were made. */
  suggested: { pieceId: string; channelIds: readonly string[] } | null;
}

/** Changes of a person that can still be undone: the last ten. */
const UNDO_DEPTH = 10;

/** Writes a change down, and forgets this person's changes that lie too far back to be undone. */
export async function insertChange(tx: Queryable, change: CalendarChange): Promise<void> {
  await tx.run(
    `insert into calendar_changes (id, brand_id, actor_id, at, label, items, steps, suggested)
     values ($1, $2, $3, $4, $5, $6::jsonb, $7::jsonb, $8::jsonb)`,
    [
      change.id,
      change.brandId,
      change.actorId,
      change.at,
      change.label,
      JSON.stringify(change.items),
      JSON.stringify(change.steps),
      JSON.stringify(change.suggested),
    ],
  );
  await tx.run(
    `delete from calendar_changes where actor_id = $1 and brand_id = $2 and number < (
       select min(number) from (select number from calendar_changes where actor_id = $1 and brand_id = $2
         order by number desc limit ${UNDO_DEPTH}) kept)`,
    [change.actorId, change.brandId],
  );
}

const COLUMNS = 'id, brand_id as "brandId", actor_id as "actorId", at, label, items, steps, suggested';

/** The change with that id, or without one the person's last, if it was not undone; held until the transaction ends. */
export async function maybeChangeForUndo(
  tx: Queryable,
  brandId: string,
  actorId: string,
  id: string | null,
): Promise<CalendarChange | undefined> {
  return (
    await tx.rows<CalendarChange>(
      `select ${COLUMNS} from calendar_changes where brand_id = $1 and actor_id = $2 and undone_at is null
         and ($3::uuid is null or id = $3::uuid) order by number desc limit 1 for update`,
      [brandId, actorId, id],
    )
  )[0];
}

/** What a person would undo next, in words. */
export async function maybeLabelOfLast(db: Queryable, brandId: string, actorId: string): Promise<string | undefined> {
  const [last] = await db.rows<{ label: string }>(
    `select label from calendar_changes where brand_id = $1 and actor_id = $2 and undone_at is null
     order by number desc limit 1`,
    [brandId, actorId],
  );
  return last?.label;
}

/** Marks a change as undone. */
export async function noteUndone(tx: Queryable, id: string, at: Instant): Promise<void> {
  await tx.run('update calendar_changes set undone_at = $2 where id = $1', [id, at]);
}

/**
 * After posts were put back: earlier changes of the same person that made a post and left it at `from` now find it at
 * `to`, so that they can be undone in turn.
 */
export async function followVersions(
  tx: Queryable,
  actorId: string,
  moved: readonly { postId: string; from: number; to: number }[],
): Promise<void> {
  await tx.run(
    `update calendar_changes c set items = (
       select jsonb_agg(case when m."to" is null then x.item else jsonb_set(x.item, '{version}', to_jsonb(m."to")) end
         order by x.place)
       from jsonb_array_elements(c.items) with ordinality as x (item, place)
       left join jsonb_to_recordset($2::jsonb) as m ("postId" text, "from" int, "to" int)
         on m."postId" = x.item->>'postId' and m."from" = (x.item->>'version')::int)
     where c.actor_id = $1 and c.undone_at is null and jsonb_array_length(c.items) > 0`,
    [actorId, JSON.stringify(moved)],
  );
}
