import { door } from '@/app/server/door';
import { answer, isId, nothingThere, readAtMost, refusal } from '@/app/server/request';
import { fileNameOf } from '@/app/server/upload';
import { SOURCE_LIMIT_BYTES, SOURCE_TOO_BIG } from '@/usecases/extracts/bringSource';
import { lookAtSource, mayLookAtSource } from '@/usecases/extracts/lookAtSource';

/**
 * Reads a text, named in `x-file-name`, for the brand of `?brand=` and keeps nothing: its title, and what of it is read. Where it
 * cannot be told how its file is written, the encodings it may have are answered; `?encoding=` chooses one.
 */
export const POST = door('changePieces', async (request, _context, { work }) => {
  const query = new URL(request.url).searchParams;
  const brandId = query.get('brand') ?? '';
  if (!isId(brandId)) return nothingThere('brand');
  const allowed = await mayLookAtSource(work, brandId);
  if (!allowed.ok) return refusal(allowed.refusal);
  const bytes = await readAtMost(request, SOURCE_LIMIT_BYTES);
  if (bytes === null) return refusal(SOURCE_TOO_BIG);
  return answer(await lookAtSource(bytes, fileNameOf(request) ?? '', query.get('encoding')));
});
