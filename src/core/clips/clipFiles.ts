import type { Cue } from '../reading/subtitles';
import type { Clip } from './clips';

/** Frames a second that a cut list counts in where its video does not say. */
const USUAL_FRAMES = 25;

const two = (value: number): string => String(value).padStart(2, '0');
const three = (value: number): string => String(value).padStart(3, '0');

/** Milliseconds as `01:02:03,004`; the mark before the thousandths is the format's. */
function clockOf(ms: number, mark: ',' | '.'): string {
  const whole = Math.max(0, Math.round(ms));
  const seconds = Math.floor(whole / 1_000);
  return `${two(Math.floor(seconds / 3_600))}:${two(Math.floor(seconds / 60) % 60)}:${two(seconds % 60)}${mark}${three(whole % 1_000)}`;
}

/** What is said in a clip from one moment to another, in milliseconds from its beginning. */
export interface SaidInClip {
  inMs: number;
  outMs: number;
  said: string;
}

/** What is said in a clip, cue by cue. */
export function linesOf(
  text: string,
  cues: readonly Cue[],
  clip: Pick<Clip, 'start' | 'end' | 'inMs' | 'outMs'>,
): SaidInClip[] {
  return cues
    .filter(({ start, end }) => end > clip.start && start < clip.end)
    .map((cue) => ({
      inMs: Math.max(0, cue.inMs - clip.inMs),
      outMs: Math.min(cue.outMs, clip.outMs) - clip.inMs,
      said: text.slice(Math.max(cue.start, clip.start), Math.min(cue.end, clip.end)).replace(/\s+/g, ' ').trim(),
    }))
    .filter(({ inMs, outMs, said }) => said !== '' && outMs > inMs);
}

/** The subtitles of a clip as SRT, timed from zero. */
export const clipAsSrt = (text: string, cues: readonly Cue[], clip: Clip): string =>
  linesOf(text, cues, clip)
    .map(({ inMs, outMs, said }, at) => `${at + 1}\n${clockOf(inMs, ',')} --> ${clockOf(outMs, ',')}\n${said}\n`)
    .join('\n');

/** The subtitles of a clip as WebVTT (W3C, 2019), timed from zero. */
export const clipAsVtt = (text: string, cues: readonly Cue[], clip: Clip): string =>
  `WEBVTT\n\n${linesOf(text, cues, clip)
    .map(
      ({ inMs, outMs, said }) =>
        `${clockOf(inMs, '.')} --> ${clockOf(outMs, '.')}\n${said.replace(/&/g, '&amp;').replace(/</g, '&lt;')}\n`,
    )
    .join('\n')}`;

/** The cut list of clips as CSV (RFC 4180): number, in, out, length in seconds, words. */
export function clipsAsCsv(clips: readonly Clip[]): string {
  const quoted = (text: string) => `"${safe(text).replace(/"/g, '""')}"`;
  const rows = clips.map(
    ({ inMs, outMs, text }, at) =>
      `${at + 1},${clockOf(inMs, '.')},${clockOf(outMs, '.')},${((outMs - inMs) / 1_000).toFixed(3)},${quoted(text)}`,
  );
  return ['number,in,out,seconds,words', ...rows, ''].join('\r\n');
}

/** A text that a spreadsheet would run as a formula begins with an apostrophe. */
const safe = (text: string): string => (/^[=+\-@\t\r]/.test(text) ? `'${text}` : text);

/**
 * Clips as a plain edit decision list, non-drop: one cut each, laid one after the other, with its words as a comment.
 *
 * @param frames a second
 */
export function clipsAsEdl(title: string, clips: readonly Clip[], frames = USUAL_FRAMES): string {
  const timecode = (frame: number) => {
    const seconds = Math.floor(frame / frames);
    return `${two(Math.floor(seconds / 3_600))}:${two(Math.floor(seconds / 60) % 60)}:${two(seconds % 60)}:${two(frame % frames)}`;
  };
  const frameAt = (ms: number) => Math.round((ms * frames) / 1_000);
  let laid = 0;
  const events = clips.map(({ inMs, outMs, text }, at) => {
    const [from, to] = [frameAt(inMs), frameAt(outMs)];
    const record = `${timecode(laid)} ${timecode(laid + to - from)}`;
    laid += to - from;
    return `${three(at + 1)}  AX       B     C        ${timecode(from)} ${timecode(to)} ${record}\r\n* COMMENT: ${text.replace(/\s+/g, ' ').slice(0, 200)}`;
  });
  return [`TITLE: ${title.replace(/\s+/g, ' ')}`, 'FCM: NON-DROP FRAME', '', ...events, ''].join('\r\n');
}
