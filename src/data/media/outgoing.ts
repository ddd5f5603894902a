import { openAsBlob } from 'node:fs';
import { lostFile } from '@/core/media/lost';
import { NotFitToLeave, type Network, type ParcelPicture, type ReadPicture } from '@/core/delivery/network';
import { isVideo } from '@/core/media/video';
import { takeMedia } from './mediaFiles';
import { hasFile, LostFileError, picturePath } from './mediaPaths';
import { renderPicture } from './renderPicture';

/** Takes pictures in that networks hold, unless they are here, and does without those that cannot be had. */
export const keepingIn =
  (folder: string, { pictureOf }: Pick<Network, 'pictureOf'>) =>
  async (network: string, { sha256, fileName }: ParcelPicture): Promise<void> => {
    if (hasFile(folder, sha256)) return;
    const bytes = await pictureOf(network, sha256);
    if (bytes) await takeMedia(folder, bytes, fileName);
  };

/** Makes what leaves out of the files of a folder: pictures after their recipes; a video as it is, read while it is sent. */
export const outgoingFrom =
  (folder: string): ReadPicture =>
  async (stored) => {
    try {
      if (!isVideo(stored)) return await renderPicture(folder, stored);
      const { recipe: _none, rendered: _before, ...picture } = stored;
      return { bytes: await originalFrom(folder, stored.sha256), picture };
    } catch (error) {
      if (error instanceof LostFileError) throw new NotFitToLeave(lostFile(stored.fileName));
      throw error;
    }
  };

/** A picture or video as it was taken in, read while it is written elsewhere. @throws LostFileError */
export async function originalFrom(folder: string, sha256: string): Promise<Blob> {
  // What `openAsBlob` throws for a file that is not there does not say so.
  if (!hasFile(folder, sha256)) throw new LostFileError(sha256);
  return openAsBlob(picturePath(folder, sha256, 'original'));
}
