import { door } from '@/app/server/door';
import { isId, nothingThere, refusal } from '@/app/server/request';
import { drawProposal } from '@/usecases/proposals/proposals';

/** The picture that comes with what was drawn up: a PNG. */
export const GET = door<{ id: string }>('look', async (_request, { params }, { app, work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('proposal');
  const drawn = await drawProposal({ ...work, folder: app.folder.media }, id);
  if (!drawn.ok) return refusal(drawn.refusal);
  return new Response(new Uint8Array(drawn.value), {
    headers: { 'content-type': 'image/png', 'cache-control': 'private, max-age=3600' },
  });
});
