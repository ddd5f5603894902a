import type { Ways } from '@/core/notices/ways';
import type { LocalTime, Zone } from '@/core/time/plan';
import type { Queryable } from '../database/db';
import { timeText } from '../database/manyRows';

/** How people are told, with their clocks. */
export async function listWays(
  db: Queryable,
  personIds: readonly string[],
): Promise<(Ways & { personId: string; zone: Zone })[]> {
  type Row = { personId: string; zone: Zone; mailAddress: string; from: LocalTime | null; to: LocalTime | null };
  const rows = await db.rows<Row>(
    `select id as "personId", zone, mail_address as "mailAddress", ${timeText('quiet_from')} as from,
       ${timeText('quiet_to')} as to
     from people where id = any($1::uuid[])`,
    [personIds],
  );
  return rows.map(({ from, to, ...own }) => ({ ...own, quiet: from === null || to === null ? null : { from, to } }));
}

/** Writes how somebody is told. */
export async function updateWays(tx: Queryable, personId: string, { mailAddress, quiet }: Ways): Promise<void> {
  await tx.run('update people set mail_address = $2, quiet_from = $3, quiet_to = $4 where id = $1', [
    personId,
    mailAddress,
    quiet?.from ?? null,
    quiet?.to ?? null,
  ]);
}
