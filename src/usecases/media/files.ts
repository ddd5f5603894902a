export { type MediaFile, refuseBySize, takeFont, takeMedia } from '@/data/media/mediaFiles';
export { hasFile, LostFileError, picturePath, readPictureFile } from '@/data/media/mediaPaths';
export { drawnPath } from '@/data/media/drawings';
export { NativeFailedError } from '@/data/native/children';
export { renderPicture } from '@/data/media/renderPicture';
export { originalFrom } from '@/data/media/outgoing';
