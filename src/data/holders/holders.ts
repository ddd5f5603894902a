import type { Beat } from '@/core/holders/holders';
import type { Queryable } from '../database/db';

/** A process as far as it claims: who it is, and who has stopped, each at the beat it stopped at. */
export interface Claimant {
  id: string;
  stopped: readonly Beat[];
}

/** Lets a process beat once more; its first beat makes it known. */
export async function beatOnce(tx: Queryable, id: string): Promise<void> {
  await tx.run('insert into holders (id, beat) values ($1, 1) on conflict (id) do update set beat = holders.beat + 1', [
    id,
  ]);
}

/** The beats of all processes but one. */
export function listOtherBeats(db: Queryable, id: string): Promise<Beat[]> {
  return db.rows<Beat>('select id, beat from holders where id <> $1', [id]);
}

/** Frees all that processes held. Only for a database that no other process can have open, when it is opened. */
export async function forgetHolders(tx: Queryable): Promise<void> {
  await tx.run('delete from holders');
}

/**
 * SQL that is true where nobody else holds a row: nobody at all, a process that is not known any more, or one that has
 * stopped and has not beaten since.
 *
 * @param holder the column
 * @param ids, beats the parameters of those that have stopped
 */
export const heldByNobodyElse = (holder: string, ids: string, beats: string): string =>
  `not exists (select 1 from holders h where h.id = ${holder} and not exists (
     select 1 from unnest(${ids}::uuid[], ${beats}::bigint[]) as s (id, beat) where s.id = h.id and s.beat = h.beat))`;

/** Those that have stopped, as `heldByNobodyElse` takes them. */
export const stoppedOf = ({ stopped }: Claimant): [string[], number[]] => [
  stopped.map(({ id }) => id),
  stopped.map(({ beat }) => beat),
];
