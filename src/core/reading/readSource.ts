import { accept, refuse, type Result } from '../refusal';
import { figure } from '../words';
import { DEEPEST } from './markdown';
import { readArticle } from './htmlArticle';
import { readPieceFile, type AboutInFile } from '../pieces/pieceFile';
import { maybeReadMarkdown, MOST_BLOCKS, readMarkdown, type Block, type ReadingText } from './readingText';
import { looksTimed, readSubtitles, type Cue } from './subtitles';

/** A text as it was brought in. */
export interface SourceText {
  /** What is kept and can be corrected: Markdown, or of a timed text what is said. */
  source: string;
  /** Empty for a text without times. */
  cues: readonly Cue[];
  isWordTimed: boolean;
  /** What it calls itself; empty where it does not. */
  title: string;
  /** What was left out or mended, in words. */
  notes: readonly string[];
  /** What a file that was written from a piece says about it. */
  about?: AboutInFile;
}

/**
 * Reads a text by what it is: subtitles by their times, a page by its tags, anything else as Markdown.
 *
 * @param name of its file; empty for text that was pasted
 */
export function readSource(text: string, name = ''): Result<SourceText> {
  const piece = readPieceFile(text);
  if (piece) {
    const { about, source, cues, isWordTimed } = piece;
    const refused = cues.length === 0 ? maybeReadMarkdown(source) : '';
    if (typeof refused === 'string' && refused !== '') return refuse(refused, NOT_READ[refused], 'file');
    return accept({ source, cues, isWordTimed, about, title: about.title ?? '', notes: [] });
  }
  if (/\.(?:srt|vtt)$/i.test(name) || looksTimed(text)) {
    const read = readSubtitles(text);
    if (!read.ok) return read;
    const { text: source, cues, isWordTimed, notes } = read.value;
    return accept({ source, cues, isWordTimed, notes, title: '' });
  }
  if (/\.x?html?$/i.test(name) || /^\uFEFF?\s*<(?:!doctype|html|head|body|article)\b/i.test(text)) {
    const read = readArticle(text);
    return read.ok ? accept({ source: read.value.markdown, title: read.value.title, ...UNTIMED }) : read;
  }
  const reading = maybeReadMarkdown(text);
  if (typeof reading === 'string') return refuse(reading, NOT_READ[reading], 'file');
  return accept({ source: text, title: reading.title ?? '', ...UNTIMED });
}

const NOT_READ = {
  tooIntricate: `Quotations and lists stand in one another more than ${DEEPEST} deep in this text, which Bimlo does not read. Take the signs at the beginning of its lines away.`,
  tooManyParagraphs: `This text has more than ${figure(MOST_BLOCKS)} paragraphs, which Bimlo does not read at once. Divide it into several pieces.`,
};

const UNTIMED = { cues: [], isWordTimed: false, notes: [] };

/** A piece's text, with how it was read where it was before: read once more it might be otherwise, if time was short. */
export interface TextToRead extends Pick<SourceText, 'source' | 'cues'> {
  reading?: ReadingText;
}

/** A piece's text to be read: of a timed one as it was said, of any other as Markdown. */
export function readingOf({ source, cues, reading }: TextToRead): ReadingText {
  if (reading) return reading;
  if (cues.length === 0) return readMarkdown(source);
  const blocks: Block[] = [];
  let at = 0;
  for (const paragraph of source.split('\n\n')) {
    const [start, words] = [at + paragraph.length - paragraph.trimStart().length, paragraph.trim()];
    if (words !== '') blocks.push({ kind: 'paragraph', start, end: start + words.length });
    at += paragraph.length + '\n\n'.length;
  }
  return { text: source, blocks, title: null };
}
