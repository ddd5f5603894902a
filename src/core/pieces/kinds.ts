/** What a piece can be. The kind decides which prep it gets of its own. */
export const PIECE_KINDS = ['message', 'talk', 'article', 'episode', 'photoSet'] as const;
export type PieceKind = (typeof PIECE_KINDS)[number];

/** What people read for each kind. */
export const KIND_LABELS: Record<PieceKind, string> = {
  message: 'message',
  talk: 'talk',
  article: 'article',
  episode: 'episode',
  photoSet: 'photo set',
};
