import type { Instant } from '@/core/time/plan';
import type { Queryable } from '../database/db';

/** One thing of a change: as it was before and after, or with null where it was not there. */
export interface ChangeItem<State = unknown> {
  /** What kind of thing it is. */
  subject: string;
  /** Which one. */
  id: string;
  before: State | null;
  after: State | null;
  /** Of a post: the version it had as it was before. */
  base?: number | null;
  /** Of a post: the version it had as it was after; one that was made is taken back only while it still has that. */
  version?: number;
}

/** Something a person did, and can undo unless it is final. */
export interface NotedChange {
  id: string;
  brandId: string;
  actorId: string;
  at: Instant;
  /** What was done, as it is told: “Moved 3 posts”. */
  label: string;
  items: readonly ChangeItem[];
  /** Why it cannot be undone; null where it can. */
  final: string | null;
}

/** Which way one goes among what one did. */
export type Direction = 'undo' | 'redo';

/** Changes of a person for a brand that can still be undone. */
const UNDO_DEPTH = 50;

/** Writes a change down. What was undone before it cannot be done again, and what lies too far back is forgotten. */
export async function insertChange(tx: Queryable, change: NotedChange): Promise<void> {
  const { id, brandId, actorId, at, label, items, final } = change;
  await tx.run('delete from changes where actor_id = $1 and brand_id = $2 and undone_at is not null', [
    actorId,
    brandId,
  ]);
  await tx.run(
    `insert into changes (id, brand_id, actor_id, at, label, items, final) values ($1, $2, $3, $4, $5, $6::jsonb, $7)`,
    [id, brandId, actorId, at, label, JSON.stringify(items), final],
  );
  await tx.run(
    `delete from changes where actor_id = $1 and brand_id = $2 and number < (
       select min(number) from (select number from changes where actor_id = $1 and brand_id = $2
         order by number desc limit ${UNDO_DEPTH}) kept)`,
    [actorId, brandId],
  );
}

const COLUMNS = 'id, brand_id as "brandId", actor_id as "actorId", at, label, items, final';

/** What comes next that way: the last that was done, or the last that was undone. `$1` and `$2` are brand and person. */
const NEXT: Record<Direction, string> = {
  undo: 'brand_id = $1 and actor_id = $2 and undone_at is null order by number desc',
  redo: 'brand_id = $1 and actor_id = $2 and undone_at is not null and final is null order by undone_at desc, number',
};

/** The change that comes next that way; held until the transaction ends. */
export async function maybeNextChange(
  tx: Queryable,
  brandId: string,
  actorId: string,
  direction: Direction,
): Promise<NotedChange | undefined> {
  const [next] = await tx.rows<NotedChange>(
    `select ${COLUMNS} from changes where ${NEXT[direction]} limit 1 for update`,
    [brandId, actorId],
  );
  return next;
}

/** The change with that id, if that person did it for that brand and it was not undone; held until the transaction ends. */
export async function maybeChange(
  tx: Queryable,
  brandId: string,
  actorId: string,
  id: string,
): Promise<NotedChange | undefined> {
  const [change] = await tx.rows<NotedChange>(
    `select ${COLUMNS} from changes where id = $3 and brand_id = $1 and actor_id = $2 and undone_at is null for update`,
    [brandId, actorId, id],
  );
  return change;
}

/** What a person would undo and do again next, in words; null where there is nothing. */
export async function nextLabels(
  db: Queryable,
  brandId: string,
  actorId: string,
): Promise<Record<Direction, string | null>> {
  const labelOf = async (direction: Direction) => {
    const [next] = await db.rows<{ label: string }>(`select label from changes where ${NEXT[direction]} limit 1`, [
      brandId,
      actorId,
    ]);
    return next?.label ?? null;
  };
  const [undo, redo] = await Promise.all([labelOf('undo'), labelOf('redo')]);
  return { undo, redo };
}

/** Marks a change as undone, or with null as done again. */
export async function noteUndone(tx: Queryable, id: string, at: Instant | null): Promise<void> {
  await tx.run('update changes set undone_at = $2 where id = $1', [id, at]);
}

/**
 * Adds things to a change: what only undoing it has touched, or what is done slice by slice.
 *
 * @param at when that was done, where it goes on with it; null where it stays as old as it is
 * @returns whether it is there
 */
export async function addItems(
  tx: Queryable,
  id: string,
  items: readonly ChangeItem[],
  at: Instant | null = null,
): Promise<boolean> {
  return (
    (await tx.run('update changes set items = items || $2::jsonb, at = coalesce($3::timestamptz, at) where id = $1', [
      id,
      JSON.stringify(items),
      at,
    ])) > 0
  );
}

/** Tells otherwise what a change was. */
export async function relabel(tx: Queryable, id: string, label: string): Promise<void> {
  await tx.run('update changes set label = $2 where id = $1', [id, label]);
}

/** Says of a change that it cannot be undone or done again, and why. */
export async function makeFinal(tx: Queryable, id: string, why: string): Promise<void> {
  await tx.run('update changes set final = $2 where id = $1', [id, why]);
}

/** Says of a change of more than so many things that it cannot be undone, and why. */
export async function makeFinalBeyond(tx: Queryable, id: string, most: number, why: string): Promise<void> {
  await tx.run(
    `update changes set items = '[]', final = $3 where id = $1 and (final is not null or jsonb_array_length(items) > $2)`,
    [id, most, why],
  );
}

/** A post that was put from one version back to what it was at another: it is at a new one now. */
export interface MovedVersion {
  id: string;
  /** What it was put back to; null for a post that was not there. */
  from: number | null;
  to: number;
}

/**
 * After posts were put back: what the same person did to them before and since finds them at their new versions, so that it can
 * be undone and done again in turn.
 *
 * @param putBackBy by whom, and the change by which they were put back, whose posts that were not there before are gone again; none
 *   where it is no putting back
 */
export async function followVersions(
  tx: Queryable,
  { id: changeId, actorId }: Pick<NotedChange, 'actorId'> & { id?: string },
  moved: readonly MovedVersion[],
): Promise<void> {
  if (moved.length === 0) return;
  await tx.run(
    `update changes c set items = (
       select jsonb_agg(x.item
           || case when m."to" is not null and m."from" = (x.item->>'version')::int then jsonb_build_object('version', m."to") else '{}' end
           || case when m."to" is not null and (m."from" = (x.item->>'base')::int
                or (c.id = $2::uuid and m."from" is null and x.item->'before' = 'null'::jsonb)) then jsonb_build_object('base', m."to") else '{}' end
         order by x.place)
       from jsonb_array_elements(c.items) with ordinality as x (item, place)
       left join jsonb_to_recordset($3::jsonb) as m (id text, "from" int, "to" int)
         on x.item->>'subject' in ('post', 'pictures') and m.id = x.item->>'id')
     where c.actor_id = $1 and jsonb_array_length(c.items) > 0`,
    [actorId, changeId ?? null, JSON.stringify(moved)],
  );
}
