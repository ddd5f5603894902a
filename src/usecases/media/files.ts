export { type MediaFile, picturePath, readPictureFile, refuseBySize, takeMedia } from '@/data/media/mediaFiles';
export { renderPicture } from '@/data/media/renderPicture';
