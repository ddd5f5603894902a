import type { WrittenWords } from '@/core/posts/written';
import type { Instant } from '@/core/time/plan';
import type { Queryable } from '../database/db';

/** What a post's words were after a stretch of writing by one person. */
export interface WordsVersion {
  id: string;
  postId: string;
  personId: string;
  /** When the stretch ended. */
  at: Instant;
  words: WrittenWords;
}

const COLUMNS = 'id, post_id as "postId", person_id as "personId", at, words';

/** The newest versions of a post, the newest first. */
export function listWordsVersions(db: Queryable, postId: string, limit: number): Promise<WordsVersion[]> {
  return db.rows(`select ${COLUMNS} from post_versions where post_id = $1 order by number desc limit $2`, [
    postId,
    limit,
  ]);
}

/** The words of a post after a stretch of writing, with what stood there before. */
interface Stretch {
  own: WordsVersion;
  /** What was there before the first stretch; kept where no version of the post was kept yet. */
  original: WordsVersion;
}

/**
 * Keeps the words of posts. Where the newest version is of the same person and ended after `since`, their stretch of
 * writing goes on and that version is written anew; otherwise a version is added, after the original where it is the first.
 */
export async function keepStretches(tx: Queryable, stretches: readonly Stretch[], since: Instant): Promise<void> {
  if (stretches.length === 0) return;
  const columns = '(id uuid, "postId" uuid, "personId" uuid, at timestamptz, words jsonb)';
  await tx.run(
    `with own as (select * from jsonb_to_recordset($1::jsonb) as x ${columns}),
       original as (select * from jsonb_to_recordset($2::jsonb) as x ${columns}),
       newest as (
         select distinct on (v.post_id) v.post_id, v.id, v.person_id, v.at
         from post_versions v where v.post_id in (select "postId" from own) order by v.post_id, v.number desc
       ),
       going_on as (
         update post_versions v set at = own.at, words = own.words
         from own join newest n on n.post_id = own."postId" and n.person_id = own."personId" and n.at > $3
         where v.id = n.id returning v.post_id
       )
     insert into post_versions (id, post_id, person_id, at, words)
     select id, "postId", "personId", at, words from (
       select 0 as place, * from original where "postId" not in (select post_id from newest)
       union all
       select 1, * from own where "postId" not in (select post_id from going_on)
     ) added order by place`,
    [JSON.stringify(stretches.map(({ own }) => own)), JSON.stringify(stretches.map(({ original }) => original)), since],
  );
}
