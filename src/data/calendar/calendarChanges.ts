import type { Instant } from '@/core/time/plan';
import type { Post } from '../posts/posts';
import type { Queryable } from '../database/db';

/** The fields of a post that a change on the calendar may touch. */
export type Before = Pick<
  Post,
  | 'date'
  | 'time'
  | 'stage'
  | 'stageBefore'
  | 'setAsideReason'
  | 'ownerId'
  | 'pillarId'
  | 'campaignId'
  | 'channelId'
  | 'format'
  | 'title'
>;

/** One post of a change: as it was before, or null for a post the change made. */
export interface ChangeItem {
  postId: string;
  before: Before | null;
  /** The version it was made on. */
  base: number | null;
  /** The version the change left it at: undoing asks that it still be that. */
  version: number;
}

/** A change made on the calendar. */
export interface CalendarChange {
  id: string;
  brandId: string;
  actorId: string;
  at: Instant;
  /** What was done, as it is told: “Moved 3 posts”. */
  label: string;
  items: ChangeItem[];
}

/** Changes of a person that can still be undone: the last ten. */
export const UNDO_DEPTH = 10;

/** Writes a change down, and forgets this person's changes that lie too far back to be undone. */
export async function insertChange(tx: Queryable, change: CalendarChange): Promise<void> {
  await tx.run(
    `insert into calendar_changes (id, brand_id, actor_id, at, label, items) values ($1, $2, $3, $4, $5, $6::jsonb)`,
    [change.id, change.brandId, change.actorId, change.at, change.label, JSON.stringify(change.items)],
  );
  await tx.run(
    `delete from calendar_changes where actor_id = $1 and brand_id = $2 and number < (
       select min(number) from (select number from calendar_changes where actor_id = $1 and brand_id = $2
         order by number desc limit ${UNDO_DEPTH}) kept)`,
    [change.actorId, change.brandId],
  );
}

const COLUMNS = 'id, brand_id as "brandId", actor_id as "actorId", at, label, items';

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

/** Marks a change as undone. */
export async function noteUndone(tx: Queryable, id: string, at: Instant): Promise<void> {
  await tx.run('update calendar_changes set undone_at = $2 where id = $1', [id, at]);
}

/**
 * After posts were put back: earlier changes of the same person that left a post at `from` now find it at `to`, so that
 * they can be undone in turn.
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
     where c.actor_id = $1 and c.undone_at is null`,
    [actorId, JSON.stringify(moved)],
  );
}
