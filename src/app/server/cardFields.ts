import { number, string } from 'yup';
import { CARD_KINDS, CARD_LAYOUTS, CARD_LIMITS, CARD_SOURCES } from '@/core/cards/card';
import { fields, text } from './fields';

const pixels = number().typeError('Pixels are a number.').integer().min(200).max(CARD_LIMITS.side).required();

/** A card, as a request brings it. */
export const cardField = fields({
  layout: string()
    .oneOf([...CARD_LAYOUTS], 'That is not one of the layouts.')
    .required(),
  kind: string()
    .oneOf([...CARD_KINDS], 'A card holds a quote, a number or a point.')
    .required(),
  text: text('Words'),
  by: text('Whose words'),
  ground: string().required(),
  ink: string().required(),
  accent: string().required(),
  width: pixels,
  height: pixels,
  picture: string()
    .matches(/^[0-9a-f]{64}$/, 'That picture is not in the library.')
    .nullable()
    .defined(),
  follows: string()
    .oneOf([...CARD_SOURCES], 'A card follows the title, the first line, or nothing.')
    .nullable()
    .defined(),
}).required();
