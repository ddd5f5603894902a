import { listWordsVersions } from '@/data/versions';
import { done, isId, nothingThere, workOfRequest } from '@/app/server/request';

/** Versions shown at once, the newest. */
const SHOWN = 100;

/** What a post's words were, the newest version first. */
export async function GET(_request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return nothingThere('post');
  const { app } = await workOfRequest();
  return done(await listWordsVersions(app.db, id, SHOWN));
}
