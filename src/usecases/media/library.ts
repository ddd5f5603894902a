import { refuse, type Result } from '@/core/refusal';
import { deleteUnusedLibraryFile, insertLibraryFiles, maybeLibraryFile } from '@/data/media/library';
import { attachPicture, type PictureOutcome, type StoredPicture } from './pictures';
import { mustMay } from '../rights/mustMay';
import { doing, notFound, refused, type Work } from '../useCase';

/** Puts a stored file into a brand's library. @returns whether the library did not have it yet */
export function keepInLibrary(work: Work, brandId: string, stored: StoredPicture): Promise<Result<{ isNew: boolean }>> {
  return doing(work, async (act) => {
    await mustMay(act, 'keepFiles', brandId);
    return { isNew: (await insertLibraryFiles(act.tx, [{ ...stored, brandId, addedAt: act.now }])) === 1 };
  });
}

/** Attaches a file of the brand's library to a post. */
export async function attachFromLibrary(
  work: Work,
  postId: string,
  brandId: string,
  sha256: string,
): Promise<Result<PictureOutcome>> {
  const file = await maybeLibraryFile(work.db, brandId, sha256);
  return file ? attachPicture(work, postId, file, '') : refuse('notFound', notFound('file').message);
}

/** Takes a file from a brand's library. One that a post uses stays. */
export function dropFromLibrary(work: Work, brandId: string, sha256: string): Promise<Result<true>> {
  return doing(work, async (act) => {
    await mustMay(act, 'keepFiles', brandId);
    if (!(await maybeLibraryFile(act.tx, brandId, sha256))) refused(notFound('file'));
    if (!(await deleteUnusedLibraryFile(act.tx, brandId, sha256)))
      refused({ code: 'inUse', message: 'A post uses this file. Take it from the post first.' });
    return true as const;
  });
}
