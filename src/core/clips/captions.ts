import { segmentsOf } from '../text/segments';
import type { SaidInClip } from './clipFiles';

/** Words that stand in a clip from one moment to another, in milliseconds from its beginning. */
export interface BurntCaption {
  inMs: number;
  outMs: number;
  lines: readonly string[];
}

/** Lines that stand at once, at most. */
const MOST_LINES = 2;
/** How long a caption stays after its words where nothing follows, in milliseconds, so that it can be read to its end. */
const LINGERS_MS = 500;

const words = new Intl.Segmenter('und', { granularity: 'word' });

/**
 * What is said in a clip as captions of at most two lines: what is too long for that is cut between words, each part as long as its
 * share of the letters. Captions never overlap.
 *
 * @param perLine letters that a line has room for
 */
export function captionsOf(said: readonly SaidInClip[], perLine: number): BurntCaption[] {
  const all = said.flatMap(({ inMs, outMs, said: text }) => {
    const lines = linesIn(text, perLine);
    const letters = lines.reduce((sum, line) => sum + line.length, 0);
    const captions: BurntCaption[] = [];
    let before = 0;
    for (let at = 0; at < lines.length; at += MOST_LINES) {
      const own = lines.slice(at, at + MOST_LINES);
      const after = before + own.reduce((sum, line) => sum + line.length, 0);
      const momentAt = (share: number) => Math.round(inMs + (share / letters) * (outMs - inMs));
      captions.push({ inMs: momentAt(before), outMs: momentAt(after), lines: own });
      before = after;
    }
    return captions;
  });
  return all.map((caption, at) => {
    const next = all[at + 1]?.inMs ?? Infinity;
    return { ...caption, outMs: Math.min(Math.max(caption.outMs, Math.min(caption.outMs + LINGERS_MS, next)), next) };
  });
}

/** A text in lines of at most so many letters, cut between words; a longer word is cut. */
function linesIn(text: string, perLine: number): string[] {
  const lines: string[] = [];
  let line = '';
  const push = () => {
    if (line.trim() !== '') lines.push(line.trim());
    line = '';
  };
  for (const { segment } of segmentsOf(text, words)) {
    // A mark stays with the word before it.
    if (line !== '' && (line + segment).trimEnd().length > perLine && /[\p{L}\p{N}]/u.test(segment)) push();
    line += segment;
    while (line.trim().length > perLine + 2) {
      const letters = [...line.trimStart()];
      lines.push(letters.slice(0, perLine).join(''));
      line = letters.slice(perLine).join('');
    }
  }
  push();
  return lines;
}

/** The caption that stands at a moment. */
export const captionAt = (captions: readonly BurntCaption[], atMs: number): BurntCaption | undefined =>
  captions.find(({ inMs, outMs }) => atMs >= inMs && atMs < outMs);

/** How captions are set in a picture of a size: pixels of the letters, and how many a line has room for. */
export function settingOf({ width, height }: { width: number; height: number }): { letters: number; perLine: number } {
  const letters = Math.max(10, Math.round(Math.min(width, height) * 0.055));
  return { letters, perLine: Math.max(12, Math.floor((width * 0.84) / (letters * 0.54))) };
}
