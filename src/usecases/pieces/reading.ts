/** Pieces and ideas as pages read them. Plain queries, handed on as they are. */

export { type Piece, listIdeas, maybePiece } from '@/data/pieces/pieces';
