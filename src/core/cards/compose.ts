import { blend, contrast } from '../brands/colours';
import { accept, refuse, type Result } from '../refusal';
import { LEAST, type Card } from './card';
import { LINE, setText, type Measure, type SetText } from './setText';
import { figureIn } from '../text/figures';

/** Fonts of a card: for its words, and for the line that says whose they are. */
export type CardFont = 'words' | 'by';

/** One thing that is drawn; pixels from the upper left corner. */
export type Drawn =
  | { draw: 'area'; x: number; y: number; width: number; height: number; colour: string }
  | { draw: 'picture' }
  | { draw: 'veil'; colour: string; share: number }
  /** `x` is where the line begins: at its right end for what is read from the right. */
  | { draw: 'line'; text: string; x: number; y: number; size: number; font: CardFont; colour: string; isRtl: boolean };

/** The largest size of words, in shares of the shorter side. */
const LARGEST = 0.15;
/** The least size of words, in shares of the width: so they are read on a phone, which shows all of the width. */
const SMALLEST = 0.03;
const BY_SIZE = 0.038;

/** Scripts that are read from the right. */
const RTL = /[\p{sc=Hebrew}\p{sc=Arabic}\p{sc=Syriac}\p{sc=Thaana}\p{sc=Nko}\p{sc=Adlam}]/u;
/**
 * Whether a text is read from the right: by its first letter (Unicode UAX #9, P2 and P3).
 *
 * @internal
 */
export const isRtl = (text: string): boolean => RTL.test(/\p{L}/u.exec(text)?.[0] ?? '');

interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

/**
 * Composes a card: what is drawn, in order. Words are as large as they go in their box; too long ones are refused with the reason.
 *
 * @param measure widths of text in each font
 * @param veil how much of the ground covers the picture beneath; not asked for without one
 */
export function composeCard(card: Card, measure: Record<CardFont, Measure>, veil = 1): Result<Drawn[]> {
  const { width, height, ground, picture } = card;
  const side = Math.min(width, height);
  const base: Drawn[] = picture
    ? [{ draw: 'picture' }, { draw: 'veil', colour: ground, share: veil }]
    : [{ draw: 'area', x: 0, y: 0, width, height, colour: ground }];
  const form = FORMS[card.layout](card, side);
  const words = setWords(card, form.words, form.ink, side, measure.words, form.isCentred);
  if (!words) {
    const room = Math.floor((form.words.width * form.words.height) / (width * SMALLEST) ** 2 / 0.62 / LINE);
    return refuse(
      'tooLong',
      `This is too long to be read on a card of that shape. Keep it to some ${room} letters.`,
      'text',
    );
  }
  const by = card.by === '' ? [] : byLine(card, form.by, form.byInk, side, measure.by);
  return accept([...base, ...form.drawn, ...words, ...by]);
}

interface Form {
  drawn: Drawn[];
  words: Box;
  ink: string;
  isCentred: boolean;
  by: Box;
  byInk: string;
}

const FORMS: Record<Card['layout'], (card: Card, side: number) => Form> = {
  /** A thick rule above, a thin one below, as a timetable is set. */
  ruled: ({ width, height, ink, accent }, side) => {
    const edge = side * 0.08;
    const [thick, thin] = [side * 0.022, Math.max(2, side * 0.003)];
    const foot = height - edge - side * 0.075;
    const inside = width - 2 * edge;
    return {
      drawn: [
        { draw: 'area', x: edge, y: edge, width: inside, height: thick, colour: accent },
        { draw: 'area', x: edge, y: foot, width: inside, height: thin, colour: ink },
      ],
      words: { x: edge, y: edge + thick + edge * 0.7, width: inside, height: foot - edge * 2.2 - thick },
      ...{ ink, isCentred: false, byInk: ink },
      by: { x: edge, y: foot + thin, width: inside, height: side * 0.075 },
    };
  },
  /** A light plate over a thick bar of colour, as call signs are. */
  plate: ({ width, height, ground, ink, accent, picture }, side) => {
    const edge = side * 0.07;
    const plate = { x: edge, y: edge, width: width - 2 * edge, height: height - 2 * edge - side * 0.1 };
    const bar = side * 0.028;
    const colour = ink;
    // Behind a picture the ground is not seen plain, but words stand on the plate.
    const onPlate = contrast(ground, colour) >= LEAST.words ? ground : ink === '#FFFFFF' ? '#20252B' : '#FFFFFF';
    const inside = side * 0.06;
    return {
      drawn: [
        { draw: 'area', ...plate, colour },
        {
          draw: 'area',
          ...plate,
          y: plate.y + plate.height,
          height: bar,
          colour: picture === null ? accent : blend(accent, ground, 0.9),
        },
      ],
      words: {
        x: plate.x + inside,
        y: plate.y + inside,
        width: plate.width - 2 * inside,
        height: plate.height - 2 * inside,
      },
      ...{ ink: onPlate, isCentred: true, byInk: ink },
      by: { x: edge, y: plate.y + plate.height + bar, width: plate.width, height: side * 0.1 + edge - bar },
    };
  },
  /** A band of colour along the side that reading begins at. */
  margin: ({ width, height, ink, accent, text }, side) => {
    const edge = side * 0.09;
    const band = side * 0.07;
    const fromRight = isRtl(text);
    const inside = { x: fromRight ? edge : band + edge, width: width - band - 2 * edge };
    const foot = height - edge * 0.8 - side * 0.06;
    return {
      drawn: [{ draw: 'area', x: fromRight ? width - band : 0, y: 0, width: band, height, colour: accent }],
      words: { ...inside, y: edge, height: foot - edge * 1.4 },
      ...{ ink, isCentred: true, byInk: ink },
      by: { ...inside, y: foot, height: side * 0.06 },
    };
  },
};

/** The words in their box; of a number, the number itself stands large above them. */
function setWords(
  card: Card,
  box: Box,
  colour: string,
  side: number,
  measure: Measure,
  isCentred: boolean,
): Drawn[] | null {
  const sizes = { largest: side * LARGEST, least: card.width * SMALLEST };
  const figure = card.kind === 'number' ? (figureIn(card.text)?.text ?? null) : null;
  const above =
    figure === null
      ? null
      : setText(figure, { ...box, height: box.height * 0.42 }, { ...sizes, largest: side * 0.34 }, measure);
  const used = above ? above.size * LINE * above.lines.length : 0;
  const text = card.kind === 'quote' ? quoted(card.text) : card.text;
  const set = setText(
    text,
    { ...box, height: box.height - used },
    above ? { ...sizes, largest: side * 0.09 } : sizes,
    measure,
  );
  if (!set) return null;
  const heightOf = ({ size, lines }: SetText) => size * LINE * lines.length;
  const free = box.height - used - heightOf(set);
  const top = box.y + (isCentred ? free / 2 : 0);
  return [
    ...(above ? linesAt(above, box, top, colour, isRtl(card.text)) : []),
    ...linesAt(set, box, top + used, colour, isRtl(card.text)),
  ];
}

const linesAt = ({ size, lines }: SetText, box: Box, top: number, colour: string, fromRight: boolean): Drawn[] =>
  lines.map((text, at) => ({
    draw: 'line',
    text,
    x: fromRight ? box.x + box.width : box.x,
    // The baseline: letters stand in the middle of their line.
    y: top + size * (LINE * at + (LINE - 1) / 2 + 0.8),
    ...{ size, font: 'words', colour, isRtl: fromRight },
  }));

/** A quotation with its marks, unless it has some. */
function quoted(text: string): string {
  if (/[“”„«»「」『』"]/u.test(text)) return text;
  if (/[\p{sc=Han}\p{sc=Hiragana}\p{sc=Katakana}]/u.test(text)) return `「${text}」`;
  return isRtl(text) ? `”${text}“` : `“${text}”`;
}

function byLine(card: Card, box: Box, colour: string, side: number, measure: Measure): Drawn[] {
  const size = side * BY_SIZE;
  const fromRight = isRtl(card.text);
  const whole = [...new Intl.Segmenter('und', { granularity: 'grapheme' }).segment(card.by)].map(
    ({ segment }) => segment,
  );
  let text = card.by;
  while (whole.length > 1 && measure(text, size) > box.width) {
    whole.pop();
    text = `${whole.join('').trimEnd()}…`;
  }
  return [
    {
      draw: 'line',
      text,
      x: fromRight ? box.x + box.width : box.x,
      y: box.y + box.height / 2 + size * 0.35,
      ...{ size, font: 'by', colour, isRtl: fromRight },
    },
  ];
}
