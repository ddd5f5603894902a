/** The library and pictures as pages read them. Plain queries, handed on as they are. */

export { type LibraryFile, listLibrary } from '@/data/media/library';
export { listPictures, maybeMimeFor } from '@/data/media/media';
export { type PieceMedium, listPieceMedia } from '@/data/media/pieceMedia';
