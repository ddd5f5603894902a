import { openAsBlob } from 'node:fs';
import type { ReadPicture } from '@/core/delivery/network';
import { isVideo } from '@/core/media/video';
import { picturePath } from './mediaFiles';
import { renderPicture } from './renderPicture';

/** Makes what leaves out of the files of a folder: pictures after their recipes; a video as it is, read while it is sent. */
export const outgoingFrom =
  (folder: string): ReadPicture =>
  async (stored) => {
    if (!isVideo(stored)) return renderPicture(folder, stored);
    const { recipe: _none, rendered: _before, ...picture } = stored;
    return { bytes: await openAsBlob(picturePath(folder, stored.sha256, 'original')), picture };
  };
