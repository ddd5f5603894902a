import { array, bool, mixed, number, string } from 'yup';
import { EXTRACT_KINDS } from '@/core/extracts/extracts';
import { FAN_OUT_LIMITS, type RowSource } from '@/core/fanOut/fanOut';
import { PIECE_KINDS, type PieceKind } from '@/core/pieces/kinds';
import { NETWORK_KINDS } from '@/core/rulesheets/types';
import { fields, format, text } from './fields';

const isSource = (value: unknown): value is RowSource => {
  if (typeof value !== 'object' || value === null) return false;
  const { of, kinds, ...more } = value as { of?: unknown; kinds?: unknown };
  if (Object.keys(more).length > 0) return false;
  if (of !== 'extracts') return (of === 'clips' || of === 'whole') && kinds === undefined;
  return Array.isArray(kinds) && kinds.every((kind) => EXTRACT_KINDS.includes(kind as never));
};

/** What can be set of a fan-out, as a request or a file brings it. */
export const fanOutSettingFields = {
  name: text('Name'),
  for: mixed<PieceKind>()
    .oneOf([...PIECE_KINDS, null] as PieceKind[], 'A piece is of one of the kinds of the list.')
    .nullable()
    .defined(),
  isStanding: bool().required(),
  rows: array(
    fields({
      network: string()
        .oneOf([...NETWORK_KINDS], 'That is no kind of network.')
        .required(),
      format: format.required(),
      count: number().typeError('How many is a number.').required(),
      source: mixed<RowSource>().test('source', 'A row says what it is made from.', isSource).required(),
      offset: number().typeError('Days are a number.').required(),
      gap: number().typeError('Days are a number.').required(),
    }).required(),
  )
    .max(FAN_OUT_LIMITS.rows, `At most ${FAN_OUT_LIMITS.rows} rows.`)
    .required(),
};
