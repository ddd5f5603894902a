import { parse } from 'yaml';
import { READ_AS_IT_LOOKS, type HowRead } from '../reading/howRead';
import { LEFT_OUT, type LeftOut } from '../reading/leftOut';
import { READ_AS } from '../reading/readAs';
import { PIECE_KINDS, type PieceKind } from './kinds';
import type { Cue } from '../reading/subtitles';
import { ABOUT_FIELDS, type AboutField, type PieceTexts } from './texts';

/** What a file of a piece says of itself, so that no other front matter is taken for it. */
const KIND_OF_FILE = 'bimlo piece';

/** What stands about a piece in its file. */
export interface AboutInFile extends Partial<Record<AboutField, string>> {
  kind?: PieceKind;
}

/** A piece as its file holds it. */
interface PieceInFile extends PieceTexts {
  kind: PieceKind;
  cues: readonly Cue[];
  isWordTimed: boolean;
  how: HowRead;
}

/**
 * Writes a piece as Markdown with front matter (YAML 1.2, each value as JSON writes it): what stands about it, how it is read, of
 * a timed text the times of its words, and then its text as it is kept.
 */
export function writePieceFile(piece: PieceInFile): string {
  const about: [string, unknown][] = [
    ['file', KIND_OF_FILE],
    ['kind', piece.kind],
    ...ABOUT_FIELDS.flatMap((name): [string, unknown][] => (piece[name] === '' ? [] : [[name, piece[name]]])),
  ];
  if (piece.cues.length > 0) {
    about.push(['isWordTimed', piece.isWordTimed]);
    about.push(['times', piece.cues.map(({ start, end, inMs, outMs }) => [start, end, inMs, outMs])]);
  } else about.push(['readAs', piece.how.as ?? 'asItLooks']);
  if (piece.how.taken.length > 0) about.push(['takenIn', piece.how.taken]);
  if (piece.how.leftOut.length > 0)
    about.push(['leftOut', piece.how.leftOut.map(({ reason, text }) => [reason, text])]);
  const lines = about.map(([name, value]) => `${name}: ${JSON.stringify(value)}`);
  return `---\n${lines.join('\n')}\n---\n${piece.sourceText}`;
}

/** A file of a piece, read. */
interface ReadPieceFile {
  about: AboutInFile;
  source: string;
  cues: Cue[];
  isWordTimed: boolean;
  how: HowRead;
}

/** Reads a file as `writePieceFile` writes it; null for any other text. What a value may not be is left out. */
export function readPieceFile(text: string): ReadPieceFile | null {
  const plain = text.replace(/^\uFEFF/, '').replace(/\r\n?/g, '\n');
  if (!plain.startsWith('---\n')) return null;
  const end = plain.indexOf('\n---\n', 3);
  const head = plain.slice(4, end);
  if (end < 0 || !head.includes(KIND_OF_FILE)) return null;
  const said = frontMatter(head);
  if (said?.file !== KIND_OF_FILE) return null;
  const { kind, times, isWordTimed } = said;
  const about: AboutInFile = {};
  for (const name of ABOUT_FIELDS) {
    const value = said[name];
    if (typeof value === 'string') about[name] = value;
  }
  if (PIECE_KINDS.includes(kind as PieceKind)) about.kind = kind as PieceKind;
  const source = plain.slice(end + '\n---\n'.length);
  const cues = cuesIn(times, source.length);
  return { about, source, cues, isWordTimed: cues.length > 0 && isWordTimed === true, how: howIn(said, cues) };
}

/** How a file says that it is read. One that was written before files said so holds Markdown. */
function howIn({ readAs, takenIn, leftOut }: Said, cues: readonly Cue[]): HowRead {
  const as = READ_AS.find((way) => way === readAs) ?? (readAs === 'asItLooks' || cues.length > 0 ? null : 'markdown');
  const taken = Array.isArray(takenIn) ? takenIn.filter((name) => typeof name === 'string') : [];
  const left = Array.isArray(leftOut) ? leftOut.flatMap((one: unknown) => leftOutIn(one) ?? []) : [];
  return { ...READ_AS_IT_LOOKS, as, taken, leftOut: left };
}

function leftOutIn(one: unknown): LeftOut | null {
  if (!Array.isArray(one) || typeof one[0] !== 'string' || typeof one[1] !== 'string') return null;
  return Object.hasOwn(LEFT_OUT, one[0]) ? { reason: one[0] as LeftOut['reason'], text: one[1] } : null;
}

type Said = Record<string, unknown>;

/** What front matter says; null for what is none. Lines as Bimlo writes them are read as JSON, which takes a tenth of the time. */
function frontMatter(head: string): Said | null {
  const lines = head.split('\n').map((line) => /^(\w+): (.*)$/.exec(line));
  try {
    if (lines.every((line) => line !== null))
      return Object.fromEntries(lines.map(([, name, value]) => [name, JSON.parse(value!) as unknown]));
  } catch (error) {
    if (!(error instanceof SyntaxError)) throw error;
  }
  try {
    const said: unknown = parse(head, { maxAliasCount: 0 });
    return typeof said === 'object' ? (said as Said | null) : null;
  } catch {
    // Whatever is wrong with it: it is no front matter then, but text.
    return null;
  }
}

/** Times that lie one after the other within a text of that length; none where any does not. */
function cuesIn(times: unknown, length: number): Cue[] {
  if (!Array.isArray(times)) return [];
  const cues: Cue[] = [];
  let before = 0;
  for (const time of times as unknown[]) {
    if (!Array.isArray(time) || time.length !== 4 || !time.every((value) => Number.isSafeInteger(value))) return [];
    const [start, end, inMs, outMs] = time as [number, number, number, number];
    if (start < before || end < start || end > length || inMs < 0 || outMs < inMs) return [];
    before = start;
    cues.push({ start, end, inMs, outMs });
  }
  return cues;
}
