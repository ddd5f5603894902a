import { door } from '@/app/server/door';
import { LIBRARY_PAGE } from '@/core/media/libraryPage';
import { accept, refuse } from '@/core/refusal';
import { listLibrary } from '@/usecases/media/reading';
import { takeUpload } from '@/app/server/upload';
import { answer, askedFor, isId, nothingThere, refusal } from '@/app/server/request';
import { ofBrand } from '@/usecases/rights/readFor';
import { dropFromLibrary, keepInLibrary } from '@/usecases/media/library';

/** Files of a brand (`?brand=&words=`), the newest first; `before` and `beforeHash` name the last of the page before. */
export const GET = door('look', async (request, _context, { work }) => {
  const brandId = askedFor(request, 'brand');
  const before = new URL(request.url).searchParams.get('before');
  if (!isId(brandId)) return nothingThere('brand');
  if (before !== null && Number.isNaN(Date.parse(before)))
    return refusal({ code: 'badPage', message: 'There is no such page. Look from the beginning.' });
  const after = before === null ? null : { addedAt: before, sha256: askedFor(request, 'beforeHash') };
  return answer(
    await ofBrand(work, brandId, () => listLibrary(work.db, brandId, askedFor(request, 'words'), after, LIBRARY_PAGE)),
  );
});

/** Takes a file into a brand's library (`?brand=`); the body is the file. Says whether the library had it already. */
export const POST = door('keepFiles', async (request, _context, { app, work }) => {
  const brandId = new URL(request.url).searchParams.get('brand') ?? '';
  if (!isId(brandId)) return nothingThere('brand');
  const taken = await takeUpload(request, app.folder.media);
  if (!taken.ok) return answer(taken);
  const kept = await keepInLibrary(work, brandId, taken.value);
  return answer(kept.ok ? accept({ ...kept.value, fileName: taken.value.fileName }) : kept);
});

/** Takes a file from a brand's library (`?brand=&file=` its content hash). */
export const DELETE = door('keepFiles', async (request, _context, { work }) => {
  const query = new URL(request.url).searchParams;
  const brandId = query.get('brand') ?? '';
  if (!isId(brandId)) return nothingThere('brand');
  const sha256 = query.get('file') ?? '';
  if (!/^[0-9a-f]{64}$/.test(sha256)) return answer(refuse('notFound', 'There is no such file.'));
  return answer(await dropFromLibrary(work, brandId, sha256));
});
