import { door } from '@/app/server/door';
import { fileNameOf } from '@/app/server/upload';
import { isId, nothingThere, readAtMost, refusal } from '@/app/server/request';
import { DRAW_UP_JOB } from '@/usecases/proposals/drawUp';
import { bringSource, readSourceFile, SOURCE_LIMIT_BYTES } from '@/usecases/extracts/bringSource';
import { answerPiece } from '../../answer';

/** Makes a file, named in `x-file-name`, the source text of a piece, at the version of the piece that `If-Match` names. */
export const POST = door<{ id: string }>('changePieces', async (request, { params }, { app, work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('piece');
  if (work.seen === undefined)
    return refusal({ code: 'noVersion', message: 'Say which version of the piece this replaces the text of.' });
  const bytes = await readAtMost(request, SOURCE_LIMIT_BYTES);
  if (bytes === null)
    return refusal({
      code: 'tooBig',
      field: 'file',
      message: 'That file is larger than Bimlo takes as a text (12 MB).',
    });
  const read = await readSourceFile(bytes, fileNameOf(request) ?? '');
  if (!read.ok) return refusal(read.refusal);
  const brought = await bringSource(work, id, work.seen, read.value);
  if (brought.ok) await app.jobs.runSoon(DRAW_UP_JOB);
  return answerPiece(app, id, brought);
});
