import { KIND_LABELS, PIECE_KINDS, type PieceKind } from '../pieces/kinds';
import { FORMAT_LABELS, FORMATS, type Format } from '../rulesheets/types';

/** What a prep sheet is for: a format of posts, or a kind of piece. */
export type PrepSubject = Format | `piece:${PieceKind}`;

/** The subject of a kind of piece. */
export const ofPiece = (kind: PieceKind): PrepSubject => `piece:${kind}`;

/** The kinds of pieces a prep sheet can be for. */
export const PIECE_SUBJECTS: readonly PrepSubject[] = PIECE_KINDS.map(ofPiece);

/** All that a prep sheet can be for. */
export const PREP_SUBJECTS: readonly PrepSubject[] = [...FORMATS, ...PIECE_SUBJECTS];

/** What people read for each subject. */
export const SUBJECT_LABELS = {
  ...FORMAT_LABELS,
  ...Object.fromEntries(PIECE_KINDS.map((kind) => [ofPiece(kind), KIND_LABELS[kind]])),
} as Record<PrepSubject, string>;
