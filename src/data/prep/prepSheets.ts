import type { PrepLine } from '@/core/prep/step';
import type { PrepSubject } from '@/core/prep/subject';
import type { Queryable } from '../database/db';

/** The prep of one format or kind of piece, as a brand set it. */
interface PrepSheet {
  subject: PrepSubject;
  lines: PrepLine[];
}

/** The prep sheets a brand set; those it never touched are absent. */
export async function listPrepSheets(db: Queryable, brandId: string): Promise<PrepSheet[]> {
  const [row] = await db.rows<{ sheets: PrepSheet[] }>(
    `select coalesce(json_agg(json_build_object('subject', f.subject, 'lines', (
       select coalesce(json_agg(json_build_object('title', l.title, 'work', l.work, 'ownerId', l.owner_id, 'craft', l.craft,
         'lead', l.lead, 'leadIn', l.lead_in, 'minutes', l.minutes, 'note', l.note, 'needed', l.needed,
         'ticksItself', l.ticks_itself)
         order by l.position), '[]')
       from prep_lines l where l.brand_id = f.brand_id and l.subject = f.subject))), '[]') as sheets
     from prep_sheets f where f.brand_id = $1`,
    [brandId],
  );
  return row!.sheets;
}

/** Replaces the prep sheet. */
export async function replacePrepSheet(
  tx: Queryable,
  brandId: string,
  subject: PrepSubject,
  lines: readonly PrepLine[],
): Promise<void> {
  await tx.run('insert into prep_sheets (brand_id, subject) values ($1, $2) on conflict do nothing', [
    brandId,
    subject,
  ]);
  await tx.run('delete from prep_lines where brand_id = $1 and subject = $2', [brandId, subject]);
  await tx.run(
    `insert into prep_lines (brand_id, subject, position, title, work, owner_id, craft, lead, lead_in, minutes, note, needed,
       ticks_itself)
     select $1, $2, x.position, x.title, x.work, x."ownerId", x.craft, x.lead, x."leadIn", x.minutes, x.note, x.needed,
       coalesce(x."ticksItself", false)
     from jsonb_to_recordset($3::jsonb) as x (position int, title text, work text, "ownerId" uuid, craft text, lead int,
       "leadIn" text, minutes int, note text, needed boolean, "ticksItself" boolean)`,
    [brandId, subject, JSON.stringify(lines.map((line, position) => ({ ...line, position })))],
  );
}

/** Takes a brand's own prep sheet away, so that the one that ships holds again. */
export async function deletePrepSheet(tx: Queryable, brandId: string, subject: PrepSubject): Promise<void> {
  await tx.run('delete from prep_lines where brand_id = $1 and subject = $2', [brandId, subject]);
  await tx.run('delete from prep_sheets where brand_id = $1 and subject = $2', [brandId, subject]);
}
