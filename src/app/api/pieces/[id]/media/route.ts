import { door } from '@/app/server/door';
import { answer, isId, nothingThere, refusal } from '@/app/server/request';
import { takeUpload } from '@/app/server/upload';
import { addPieceMedium } from '@/usecases/pieces/pieceMedia';

/** Adds a picture to a piece, or its recording (a video or a sound): the body is the file, its name in `x-file-name`. */
export const POST = door<{ id: string }>('changePieces', async (request, { params }, { app, work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('piece');
  const stored = await takeUpload(request, app.folder.media, { takesSound: true });
  return stored.ok ? answer(await addPieceMedium(work, id, stored.value)) : refusal(stored.refusal);
});
