import type { WrittenField } from '@/core/posts/texts';
import { listBrandIdsOf } from '@/data/people/people';
import { listTextsOf, type PostTexts } from '@/data/posts/listTexts';
import type { Work } from '../useCase';

export type { PostTexts } from '@/data/posts/listTexts';

/** Characters (UTF-16 units) of a text that a list is given; a longer one is read and changed on its sheet. */
const LISTED_LENGTH = 2_000;

/** Some texts of posts, of those brands that whoever asks works for, each at most `LISTED_LENGTH` characters long. */
export async function listTexts(
  { db, actorId }: Pick<Work, 'db' | 'actorId'>,
  ids: readonly string[],
  fields: readonly WrittenField[],
): Promise<PostTexts[]> {
  return listTextsOf(db, { brandIds: await listBrandIdsOf(db, actorId), ids }, fields, LISTED_LENGTH);
}
