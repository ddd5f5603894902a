import { array, mixed, number, string } from 'yup';
import { PIECE_KINDS, type PieceKind } from '@/core/pieces/kinds';
import { SHELF_KINDS } from '@/core/shelf/shelf';
import { fields, maybeText, text } from './fields';

/** An item of the shelf as a request or a file brings it. */
export const shelfFields = {
  kind: string().oneOf(SHELF_KINDS, 'There is no such kind of item.').required(),
  title: text('Title'),
  text: text('Text'),
  source: text('Source'),
  fits: fields({
    kinds: array(string<PieceKind>().oneOf(PIECE_KINDS, 'There is no such kind of piece.').required()).optional(),
    networks: array(string().max(80).required()).max(60).optional(),
    weekdays: array(number().required()).max(7).optional(),
    until: string().optional(),
    about: maybeText('About'),
  }).default(undefined),
};

const isByNetwork = (value: unknown): boolean =>
  typeof value === 'object' && value !== null && Object.values(value).every((handle) => typeof handle === 'string');

/** Somebody or some place to name, as a request or a file brings it. */
export const nameFields = {
  kind: string()
    .oneOf(['person', 'place'] as const, 'A person or a place?')
    .required(),
  name: text('Name'),
  handles: mixed<Record<string, string>>()
    .test('handles', 'Handles have to be texts by network.', isByNetwork)
    .required(),
};
