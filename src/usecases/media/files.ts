export {
  type MediaFile,
  picturePath,
  hasFile,
  readPictureFile,
  refuseBySize,
  takeFont,
  takeMedia,
} from '@/data/media/mediaFiles';
export { renderPicture } from '@/data/media/renderPicture';
