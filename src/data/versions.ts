import type { WrittenWords } from '@/core/posts/written';
import type { Instant } from '@/core/time/plan';
import type { Queryable } from './db';

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

/** The newest version of a post, if any was kept. */
export async function maybeNewestVersion(db: Queryable, postId: string): Promise<WordsVersion | undefined> {
  return (await listWordsVersions(db, postId, 1))[0];
}

/** Adds versions. */
export async function insertWordsVersions(tx: Queryable, versions: readonly WordsVersion[]): Promise<void> {
  await tx.run(
    `insert into post_versions (id, post_id, person_id, at, words)
     select x.id, x."postId", x."personId", x.at, x.words
     from jsonb_to_recordset($1::jsonb) as x (id uuid, "postId" uuid, "personId" uuid, at timestamptz, words jsonb)`,
    [JSON.stringify(versions)],
  );
}

/** Lets a version be what its words are by now, the stretch of writing going on. */
export async function updateWordsVersion(tx: Queryable, id: string, at: Instant, words: WrittenWords): Promise<void> {
  await tx.run('update post_versions set at = $2, words = $3::jsonb where id = $1', [id, at, JSON.stringify(words)]);
}
