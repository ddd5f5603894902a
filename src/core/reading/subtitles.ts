import { accept, refuse, type Result } from '../refusal';
import { cleanText } from '../text/clean';
import { HEARD_IN_BRACKETS, MUSIC, STAGE_MARK } from './apartWords';
import type { LeftOut, LeftOutReason } from './leftOut';

/** A stretch of a text with the moments between which it is said, in milliseconds from the beginning. */
export interface Cue {
  /** UTF-16 offsets of the text. */
  start: number;
  end: number;
  inMs: number;
  outMs: number;
}

/**
 * What was said, with its times.
 *
 * @internal
 */
export interface Transcript {
  /** What is said, its paragraphs apart by blank lines; where several speak, each turn begins with a name. */
  text: string;
  cues: readonly Cue[];
  /** Whether single words carry their times. */
  isWordTimed: boolean;
  /** What its file calls it; empty where it does not. */
  title: string;
  leftOut: readonly LeftOut[];
}

/** Milliseconds of the longest recording that is read: 24 hours. */
const LONGEST_MS = 24 * 3_600_000;
/** A pause after which a new paragraph begins, in milliseconds. */
const PARAGRAPH_PAUSE_MS = 2_500;
/** Characters after which a paragraph ends with its sentence. */
const PARAGRAPH_CHARACTERS = 600;

const TIME = String.raw`(?:(\d{1,3}):)?(\d{1,2}):(\d{1,2})[.,](\d{1,3})`;
const TIMING = new RegExp(String.raw`^\s*(-?)${TIME}\s*-->\s*(-?)${TIME}(?:\s.*)?$`);
const INNER_TIME = new RegExp(`<${TIME}>`, 'g');

interface RawCue {
  inMs: number;
  outMs: number;
  /** Its lines, each in words with the moment they are said from, where it is known. */
  lines: { text: string; atMs: number | null }[][];
  speaker: string;
}

const lineText = (line: RawCue['lines'][number]): string =>
  line
    .map(({ text }) => text)
    .join('')
    .replace(/\s+/g, ' ')
    .trim();

/** Whether a text looks like SRT or WebVTT: a line of times stands near its beginning. */
export const looksTimed = (text: string): boolean =>
  /^\uFEFF?WEBVTT/.test(text) ||
  text
    .slice(0, 4_000)
    .split('\n')
    .some((line) => TIMING.test(line));

/**
 * Reads SRT, or WebVTT (W3C, 2019): what is said, in paragraphs, with its times. Left out, and told, are notes, styles and regions,
 * cues without a time that can be read, what is heard and not said, music, and the names of speakers, each of whom begins a
 * paragraph. Cues out of order are put in order; a line that a rolling caption repeats is taken once, at its first time; what overlaps
 * ends where the next begins.
 *
 * @returns refused where no cue can be read
 */
export function readSubtitles(source: string): Result<Transcript> {
  const leftOut: LeftOut[] = [];
  const text = cleanText(source.replace(/^\uFEFF/, '')).replace(/\r\n?/g, '\n');
  const read = withoutHeard(withSpeakers(readCues(text, leftOut)), leftOut);
  const cues = withoutRepeats(inOrder(read), leftOut);
  if (cues.length === 0)
    return refuse('noCues', 'There is no line of times in it that can be read, so nothing was taken from it.', 'file');
  const title = /^WEBVTT[ \t]+(?:[-–—][ \t]*)?(\S.*)/.exec(text)?.[1]?.trim() ?? '';
  return accept({ ...setInParagraphs(cues), title, leftOut });
}

function readCues(source: string, leftOut: LeftOut[]): RawCue[] {
  const cues: RawCue[] = [];
  const leave = (reason: LeftOutReason, words: string) => {
    if (/[\p{L}\p{N}]/u.test(words)) leftOut.push({ reason, text: words });
  };
  for (const chunk of source.split(/\n[^\S\n]*\n+/)) {
    const lines = chunk.split('\n');
    const at = lines.findIndex((line) => line.includes('-->'));
    if (at < 0 || /^(?:NOTE|STYLE|REGION)\b/.test(lines[0]!)) {
      if (!/^\s*\d+\s*$/.test(chunk)) leave('fileNote', chunk.replace(/^WEBVTT\b/, ''));
      continue;
    }
    const head = lines
      .slice(0, at)
      .filter((line) => !/^\s*\d+\s*$/.test(line))
      .join('\n');
    leave('fileNote', head.replace(/^WEBVTT\b/, ''));
    // One blank line missing: several cues stand in one chunk.
    let from = at;
    while (from < lines.length) {
      const next = lines.findIndex((line, index) => index > from && line.includes('-->'));
      const end = next < 0 ? lines.length : /^\s*\d+\s*$/.test(lines[next - 1] ?? '') ? next - 1 : next;
      const cue = readCue(lines[from]!, lines.slice(from + 1, end));
      if (cue) cues.push(cue);
      else leave('untimed', lines.slice(from + 1, end).join('\n'));
      from = next < 0 ? lines.length : next;
    }
  }
  return cues.filter(({ lines }) => lines.length > 0);
}

/** A name as it begins what somebody says: “ADA:”, “Ada Brook:”. */
const NAMED = /^\s*(?:>>\s*)?(\p{Lu}[\p{L}\p{N} .'’-]{0,30}):\s+(?=\S)/u;
/** Turns from which a name that is not set in capitals is that of a speaker. */
const TURNS = 2;

/** Takes the names of speakers from before their words: those in capitals, and those that come back where several do. */
function withSpeakers(cues: readonly RawCue[]): RawCue[] {
  const turns = new Map<string, number>();
  const nameOf = (cue: RawCue) => (cue.speaker === '' ? NAMED.exec(cue.lines[0]![0]!.text) : null);
  for (const cue of cues) {
    const name = nameOf(cue)?.[1];
    if (name !== undefined) turns.set(name, (turns.get(name) ?? 0) + 1);
  }
  const several = [...turns.values()].filter((times) => times >= TURNS).length > 1;
  const isSpeaker = (name: string) =>
    (!/\p{Ll}/u.test(name) && name.length > 1) || (several && turns.get(name)! >= TURNS);
  return cues.map((cue) => {
    const named = nameOf(cue);
    if (!named || !isSpeaker(named[1]!)) return cue;
    const [[first, ...words] = [], ...lines] = cue.lines;
    return {
      ...cue,
      speaker: named[1]!.trim(),
      lines: [[{ ...first!, text: first!.text.slice(named[0].length) }, ...words], ...lines],
    };
  });
}

/** Takes out what is heard and not said: marks in brackets, and music with what is sung. */
function withoutHeard(cues: readonly RawCue[], leftOut: LeftOut[]): RawCue[] {
  const take = (text: string): string => {
    let left = text;
    for (const [reason, pattern] of [
      ['music', MUSIC],
      ['stageMark', STAGE_MARK],
      ['stageMark', HEARD_IN_BRACKETS],
    ] as const)
      left = left.replace(pattern, (mark) => {
        leftOut.push({ reason, text: mark.trim() });
        return ' ';
      });
    return left === text ? text : left.replace(/\s{1,4}(?=[.,;:!?…])/gu, '');
  };
  return cues.flatMap((cue) => {
    const lines = cue.lines
      .map((line) => line.map((word) => ({ ...word, text: take(word.text) })).filter(({ text }) => text.trim() !== ''))
      .filter((line) => line.length > 0);
    return lines.length > 0 ? [{ ...cue, lines }] : [];
  });
}

function readCue(timing: string, lines: readonly string[]): RawCue | null {
  const match = TIMING.exec(timing);
  if (!match) return null;
  const [, minusIn, h1, m1, s1, f1, minusOut, h2, m2, s2, f2] = match;
  const inMs = minusIn ? 0 : millisecondsOf(h1, m1!, s1!, f1!);
  const outMs = minusOut ? 0 : millisecondsOf(h2, m2!, s2!, f2!);
  if (inMs > LONGEST_MS || (minusOut && minusIn)) return null;
  const { speaker, text } = withoutMarkup(lines.join('\n'));
  const said = text.split('\n').map(timedWords);
  return { inMs, outMs: Math.max(outMs, inMs), lines: said.filter((line) => lineText(line) !== ''), speaker };
}

const millisecondsOf = (hours: string | undefined, minutes: string, seconds: string, fraction: string): number =>
  ((Number(hours ?? 0) * 60 + Number(minutes)) * 60 + Number(seconds)) * 1_000 + Number(fraction.padEnd(3, '0'));

const ENTITIES: Record<string, string> = { amp: '&', lt: '<', gt: '>', nbsp: ' ', lrm: '', rlm: '' };

function withoutMarkup(lines: string): { speaker: string; text: string } {
  const voice = /<v(?:\.[^\s<>]*)?\s([^<>]+)>/.exec(lines)?.[1]?.trim() ?? '';
  const text = lines
    .replace(/<(?!\d|\/?\d)[^<>]*>/g, '')
    .replace(/\{\\[^{}]*\}/g, '')
    .replace(/&(amp|lt|gt|nbsp|lrm|rlm);/g, (_whole, name: string) => ENTITIES[name]!)
    .split('\n')
    .map((line) => line.trimStart().replace(/^[-–—]\s+/, ''))
    .join('\n');
  return { speaker: voice, text };
}

function timedWords(text: string): RawCue['lines'][number] {
  const said: RawCue['lines'][number] = [];
  let atMs: number | null = null;
  let from = 0;
  for (const match of text.matchAll(INNER_TIME)) {
    said.push({ text: text.slice(from, match.index), atMs });
    const [, hours, minutes, seconds, fraction] = match;
    atMs = millisecondsOf(hours, minutes!, seconds!, fraction!);
    from = match.index + match[0].length;
  }
  said.push({ text: text.slice(from), atMs });
  return said.filter(({ text: words }) => words.trim() !== '');
}

const inOrder = (cues: readonly RawCue[]): RawCue[] => [...cues].sort((a, b) => a.inMs - b.inMs);

/** Rolling captions repeat the line before; each line is taken once. */
function withoutRepeats(cues: readonly RawCue[], leftOut: LeftOut[]): RawCue[] {
  const kept: RawCue[] = [];
  let shown: string[] = [];
  let shownTo = -Infinity;
  for (const cue of cues) {
    const texts = cue.lines.map(lineText);
    const isAtOnce = cue.inMs - shownTo < 1_000;
    const isRepeated = (index: number) => isAtOnce && shown.includes(texts[index]!);
    const lines = cue.lines.filter((_line, index) => !isRepeated(index));
    texts.forEach((text, index) => isRepeated(index) && leftOut.push({ reason: 'repeated', text }));
    shown = texts;
    shownTo = Math.max(shownTo, cue.outMs);
    if (lines.length > 0) kept.push({ ...cue, lines });
    else kept.at(-1)!.outMs = Math.max(kept.at(-1)!.outMs, cue.outMs);
  }
  return kept;
}

const ENDS_SENTENCE = /[.!?…。！？]["”’»)\]]*$/u;

function setInParagraphs(raw: readonly RawCue[]): { text: string; cues: Cue[]; isWordTimed: boolean } {
  // Joined once at the end: a text that grows and is looked at in between is copied each time.
  const texts: string[] = [];
  const cues: Cue[] = [];
  let length = 0;
  let begun = 0;
  let speaker = '';
  let lastOut = 0;
  const named = new Set(raw.flatMap((cue) => (cue.speaker === '' ? [] : [cue.speaker]))).size > 1;
  const add = (words: string) => {
    texts.push(words);
    length += words.length;
  };
  raw.forEach((cue, index) => {
    const nextIn = raw[index + 1]?.inMs ?? Infinity;
    const outMs = nextIn > cue.inMs ? Math.min(cue.outMs, nextIn) : cue.outMs;
    const isNew =
      (cue.speaker !== '' && cue.speaker !== speaker) ||
      cue.inMs - lastOut >= PARAGRAPH_PAUSE_MS ||
      (length - begun >= PARAGRAPH_CHARACTERS && ENDS_SENTENCE.test(texts.at(-1)!));
    if (length > 0 && isNew) {
      add('\n\n');
      begun = length;
    }
    if (named && cue.speaker !== '' && cue.speaker !== speaker) {
      // Who speaks stands before their words, so that it can be corrected; no time points to it.
      add(`${cue.speaker}: `);
      begun = length;
    }
    if (cue.speaker !== '') speaker = cue.speaker;
    const said = togetherTimed(cue);
    said.forEach(({ text, atMs }, place) => {
      if (length > begun && !texts.at(-1)!.endsWith(' ')) add(' ');
      const start = length;
      add(text);
      const inMs = Math.max(cue.inMs, atMs ?? cue.inMs);
      cues.push({ start, end: length, inMs, outMs: Math.max(inMs, said[place + 1]?.atMs ?? outMs) });
    });
    lastOut = outMs;
  });
  const isWordTimed = raw.some(({ lines }) => lines.some((line) => line.length > 1));
  return { text: texts.join(''), cues, isWordTimed };
}

/** The words of a cue, those that no time parts together. */
function togetherTimed(cue: RawCue): { text: string; atMs: number | null }[] {
  const said: { text: string; atMs: number | null }[] = [];
  for (const { text, atMs } of cue.lines.flat()) {
    const words = text.replace(/\s+/g, ' ').trim();
    if (words === '') continue;
    const last = said.at(-1);
    if (last && atMs === null) last.text += ` ${words}`;
    else said.push({ text: words, atMs });
  }
  return said;
}

/** The moments between which a stretch of a text is said, as exactly as its cues tell: within one, by the share of its characters. */
export function timesOf(cues: readonly Cue[], start: number, end: number): { inMs: number; outMs: number } | null {
  const at = firstEndingAfter(cues, start);
  const first = cues[at];
  if (!first || first.start >= end) return null;
  let last = first;
  for (let next = at + 1; next < cues.length && cues[next]!.start < end; next++) last = cues[next]!;
  const inMs = momentIn(first, start);
  return { inMs, outMs: Math.max(inMs, momentIn(last, end)) };
}

function firstEndingAfter(cues: readonly Cue[], offset: number): number {
  let [low, high] = [0, cues.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (cues[middle]!.end > offset) high = middle;
    else low = middle + 1;
  }
  return low;
}

function momentIn(cue: Cue, offset: number): number {
  const share = (Math.min(Math.max(offset, cue.start), cue.end) - cue.start) / Math.max(1, cue.end - cue.start);
  return Math.round(cue.inMs + share * (cue.outMs - cue.inMs));
}
