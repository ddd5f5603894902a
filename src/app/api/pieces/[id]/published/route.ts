import { door } from '@/app/server/door';
import { answer, isId, nothingThere } from '@/app/server/request';
import { publishedOf } from '@/usecases/captions/publishedOf';

/** What was published of a piece, the newest first. */
export const GET = door<{ id: string }>('look', async (_request, { params }, { work }) => {
  const { id } = await params;
  return isId(id) ? answer(await publishedOf(work, id)) : nothingThere('piece');
});
