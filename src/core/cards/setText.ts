import { segmentsOf } from '../text/segments';

/** Width of a text set in a size, in pixels. */
export type Measure = (text: string, size: number) => number;

/** A text set into a box. */
export interface SetText {
  size: number;
  lines: string[];
}

/** The distance of lines, in sizes. */
export const LINE = 1.22;

/** Scripts that are written without spaces. */
const UNSPACED = /[\p{sc=Han}\p{sc=Hiragana}\p{sc=Katakana}\p{sc=Thai}\p{sc=Lao}\p{sc=Khmer}\p{sc=Myanmar}]/u;
/** What never begins a line. */
const CLOSING = /^[\p{Pe}\p{Pf}、。，．：；？！」』】〉》）!?.,:;…ー々]/u;
const segmenter = new Intl.Segmenter('und', { granularity: 'word' });
const graphemes = new Intl.Segmenter('und', { granularity: 'grapheme' });

/**
 * Pieces of a text between which a line may end, each with the space that follows it.
 *
 * @internal
 */
export function breakable(text: string): string[] {
  return (text.match(/\S+\s*/gu) ?? []).flatMap((word) => {
    if (!UNSPACED.test(word)) return [word];
    const pieces: string[] = [];
    for (const { segment } of segmentsOf(word, segmenter))
      if (pieces.length > 0 && (CLOSING.test(segment) || /^\s+$/u.test(segment))) pieces[pieces.length - 1] += segment;
      else pieces.push(segment);
    return pieces;
  });
}

/**
 * Sets a text as large as it goes into a box, its lines as even as can be. A word that is wider than the box is only cut where
 * even the smallest size does not hold it.
 *
 * @returns null where it does not fit in the smallest size
 */
export function setText(
  text: string,
  box: { width: number; height: number },
  sizes: { largest: number; least: number },
  measure: Measure,
): SetText | null {
  const pieces = breakable(text);
  let [low, high] = [Math.ceil(sizes.least) - 1, Math.floor(sizes.largest)];
  const fits = (size: number) => {
    const lines = linesOf(pieces, box.width, size, measure);
    return lines !== null && lines.length * size * LINE <= box.height;
  };
  while (low < high) {
    const size = Math.ceil((low + high) / 2);
    if (fits(size)) low = size;
    else high = size - 1;
  }
  if (low >= sizes.least) return { size: low, lines: evenLines(pieces, box.width, low, measure) };
  const least = Math.ceil(sizes.least);
  const cut = linesOf(cutToWidth(pieces, box.width, least, measure), box.width, least, measure)!;
  return cut.length * least * LINE <= box.height ? { size: least, lines: cut } : null;
}

/** Lines as full as they go; null where a piece is wider than a line. */
function linesOf(pieces: readonly string[], width: number, size: number, measure: Measure): string[] | null {
  const lines: string[] = [];
  let line = '';
  for (const piece of pieces) {
    const longer = line + piece;
    if (measure(longer.trimEnd(), size) <= width) {
      line = longer;
      continue;
    }
    if (measure(piece.trimEnd(), size) > width) return null;
    lines.push(line.trimEnd());
    line = piece;
  }
  return [...lines, line.trimEnd()];
}

/** The same number of lines in the narrowest measure that gives it. */
function evenLines(pieces: readonly string[], width: number, size: number, measure: Measure): string[] {
  const full = linesOf(pieces, width, size, measure)!;
  let [low, high] = [Math.floor(width / 3), Math.floor(width)];
  while (low < high) {
    const middle = Math.floor((low + high) / 2);
    const lines = linesOf(pieces, middle, size, measure);
    if (lines !== null && lines.length <= full.length) high = middle;
    else low = middle + 1;
  }
  return linesOf(pieces, low, size, measure) ?? full;
}

function cutToWidth(pieces: readonly string[], width: number, size: number, measure: Measure): string[] {
  return pieces.flatMap((piece) => {
    if (measure(piece.trimEnd(), size) <= width) return [piece];
    const cut: string[] = [];
    let part = '';
    for (const { segment } of segmentsOf(piece, graphemes)) {
      if (part !== '' && measure((part + segment).trimEnd(), size) > width) {
        cut.push(part);
        part = '';
      }
      part += segment;
    }
    return [...cut, part];
  });
}
