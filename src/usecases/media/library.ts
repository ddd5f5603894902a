import { refuse, type Result } from '@/core/refusal';
import { deleteLibraryFile, insertLibraryFiles, maybeLibraryFile } from '@/data/media/library';
import { quoted } from '@/core/calendar/change';
import { noteTogether } from '../undo/noteChange';
import { watching } from '../undo/rows';
import { undoably } from '../undo/undoably';
import { attachPicture, type PictureOutcome, type StoredPicture } from './pictures';
import { mustBeUnused } from './mustBeUnused';
import { mustMay } from '../rights/mustMay';
import { doing, notFound, refused, type Work } from '../useCase';

/** Puts a stored file into a brand's library. @returns whether the library did not have it yet */
export function keepInLibrary(work: Work, brandId: string, stored: StoredPicture): Promise<Result<{ isNew: boolean }>> {
  return doing(work, async (act) => {
    await mustMay(act, 'keepFiles', brandId);
    const { things } = watchedOf(brandId, stored.sha256, '');
    let added = 0;
    const items = await watching(act, things, async () => {
      added = await insertLibraryFiles(act.tx, [{ ...stored, brandId, addedAt: act.now }]);
    });
    await noteTogether(act, { brandId, label: 'Added files to the library', items });
    return { isNew: added === 1 };
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
    const file = (await maybeLibraryFile(act.tx, brandId, sha256)) ?? refused(notFound('file'));
    await mustBeUnused(act, brandId, sha256);
    const label = `Removed ${quoted(file.fileName)} from the library`;
    await undoably(act, watchedOf(brandId, sha256, label), () => deleteLibraryFile(act.tx, brandId, sha256));
    return true as const;
  });
}

const watchedOf = (brandId: string, sha256: string, label: string) => ({
  ...{ brandId, label },
  things: [{ name: 'libraryFile' as const, id: `${brandId} ${sha256}` }],
});
