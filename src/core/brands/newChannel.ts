import { readChannelColour } from './colours';

/** Colours offered to channels in turn: each shows on paper and is told apart from the others. */
export const CHANNEL_COLOURS = [
  '#2E7D50',
  '#B4531F',
  '#3F5DA8',
  '#8A3D6B',
  '#6E7A1F',
  '#3B6E7A',
  '#94304B',
  '#6A4FA3',
  '#8A5A12',
  '#47525E',
  '#A8324A',
  '#1F6CAE',
] as const;

/** The first colour that the channels of a brand do not have, nor one much like it; the first of all where none is left. */
export function freeColour(others: readonly { name: string; color: string }[]): string {
  return CHANNEL_COLOURS.find((color) => readChannelColour(color, others).ok) ?? CHANNEL_COLOURS[0];
}

/** A call sign for a channel of that name: its first letter with the first of its others that makes one which is not taken. */
export function freeCallSign(name: string, taken: readonly string[]): string {
  const letters = name
    .normalize('NFKD')
    .toUpperCase()
    .replace(/[^A-Z]/g, '');
  const alphabet = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ';
  const firsts = [...new Set([...letters.slice(0, 1), ...alphabet])];
  for (const first of firsts)
    for (const second of [...letters.slice(1), ...alphabet]) {
      const sign = first + second;
      if (!taken.includes(sign)) return sign;
    }
  return '';
}
