import type { WrittenField } from '@/core/posts/texts';
import type { Instant } from '@/core/time/plan';
import type { Queryable } from '../database/db';
import { columnOf } from './textColumns';

/** Some texts of a post, cut where they are long. */
export interface PostTexts {
  id: string;
  version: number;
  texts: Partial<Record<WrittenField, string>>;
  /** Texts that go on. */
  cut: WrittenField[];
  /** Where and when it was published; empty and null while it is not. */
  address: string;
  publishedAt: Instant | null;
}

/** Some texts of posts of some brands, each cut after so many characters. */
export async function listTextsOf(
  db: Queryable,
  { brandIds, ids }: { brandIds: readonly string[]; ids: readonly string[] },
  fields: readonly WrittenField[],
  most: number,
): Promise<PostTexts[]> {
  const pairs = (of: (field: WrittenField) => string) => fields.map((field) => `'${field}', ${of(field)}`).join(', ');
  const rows = await db.rows<Omit<PostTexts, 'cut'> & { isCut: Record<string, boolean> }>(
    `select p.id, p.version, p.address, p.published_at as "publishedAt",
       jsonb_build_object(${pairs((field) => `left(p.${columnOf(field)}, $3)`)}) as texts,
       jsonb_build_object(${pairs((field) => `length(p.${columnOf(field)}) > $3`)}) as "isCut"
     from posts p where p.brand_id = any($1::uuid[]) and p.id = any($2::uuid[]) and p.deleted_at is null`,
    [brandIds, ids, most],
  );
  return rows.map(({ isCut, ...row }) => ({ ...row, cut: fields.filter((field) => isCut[field]) }));
}
