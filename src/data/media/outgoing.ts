import { openAsBlob } from 'node:fs';
import { lostFile } from '@/core/media/lost';
import { NotFitToLeave, type ReadPicture } from '@/core/delivery/network';
import { isVideo } from '@/core/media/video';
import { LostFileError, picturePath, unlessLost } from './mediaFiles';
import { renderPicture } from './renderPicture';

/** Makes what leaves out of the files of a folder: pictures after their recipes; a video as it is, read while it is sent. */
export const outgoingFrom =
  (folder: string): ReadPicture =>
  async (stored) => {
    try {
      if (!isVideo(stored)) return await renderPicture(folder, stored);
      const { recipe: _none, rendered: _before, ...picture } = stored;
      const file = openAsBlob(picturePath(folder, stored.sha256, 'original'));
      return { bytes: await unlessLost(stored.sha256, file), picture };
    } catch (error) {
      if (error instanceof LostFileError) throw new NotFitToLeave(lostFile(stored.fileName));
      throw error;
    }
  };
