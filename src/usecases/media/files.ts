export {
  type MediaFile,
  picturePath,
  readPictureFile,
  refuseBySize,
  takeFont,
  takeMedia,
} from '@/data/media/mediaFiles';
export { renderPicture } from '@/data/media/renderPicture';
