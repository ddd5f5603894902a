import { door } from '@/app/server/door';
import { ofPost } from '@/usecases/rights/readFor';
import { listWordsVersions } from '@/usecases/posts/reading';
import { answer, isId, nothingThere } from '@/app/server/request';

/** Versions shown at once, the newest. */
const SHOWN = 100;

/** What a post's words were, the newest version first. */
export const GET = door<{ id: string }>('look', async (_request, { params }, { work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('post');
  return answer(await ofPost(work, id, 'post', () => listWordsVersions(work.db, id, SHOWN)));
});
