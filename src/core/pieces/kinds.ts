import type { Format, RuleSheet } from '../rulesheets/types';

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

/** The formats that carry a piece of a kind as a whole; a message may go anywhere. */
const CARRIED_BY: Record<PieceKind, readonly Format[]> = {
  message: [],
  talk: ['longVideo'],
  article: ['article', 'newsletter'],
  episode: ['longVideo', 'shortVideo'],
  photoSet: ['carousel', 'photo'],
};

/** The channels that a piece of a kind is proposed for where nobody suggested any: those that can carry it as a whole. */
export const channelsForKind = (
  kind: PieceKind,
  channels: readonly { id: string; sheet: Pick<RuleSheet, 'formats'> }[],
): string[] =>
  channels
    .filter(({ sheet }) => sheet.formats.some(({ format }) => CARRIED_BY[kind].includes(format)))
    .map(({ id }) => id);
