import { accept, refuse, type Result } from '../refusal';
import { figure } from '../words';
import { withoutNumber } from '../text/headings';
import { readPieceFile, type AboutInFile } from '../pieces/pieceFile';
import { readArticle } from './htmlArticle';
import { looksLikeMarkdown, READ_AS_IT_LOOKS, type HowRead } from './howRead';
import type { LeftOut } from './leftOut';
import { DEEPEST } from './markdown';
import {
  accounted,
  inOwnLanguage,
  maybeReadMarkdown,
  maybeReadPlain,
  MOST_BLOCKS,
  readMarkdown,
  readPlain,
  type Block,
  type ReadingText,
} from './readingText';
import { whyUnread } from './sentenceless';
import { looksTimed, readSubtitles, type Cue } from './subtitles';
import { reasonToLeave, speakerIn, speakersOf } from './tellApart';

/** A text as it was brought in. */
export interface SourceText {
  /** What is kept and can be corrected: Markdown or plain text, or of a timed text what is said. */
  source: string;
  /** Empty for a text without times. */
  cues: readonly Cue[];
  isWordTimed: boolean;
  how: HowRead;
  /** What it calls itself; empty where it does not. */
  title: string;
  /** What a file that was written from a piece says about it. */
  about?: AboutInFile;
}

/**
 * Reads a text by what it is: subtitles by their times, a page by its tags, Markdown by its ending or because it looks so, anything
 * else as plain text. A file without sentences is refused.
 *
 * @param name of its file; empty for text that was pasted
 */
export function readSource(text: string, name = ''): Result<SourceText> {
  const piece = readPieceFile(text);
  if (piece) {
    const { about, source, cues, isWordTimed, how } = piece;
    const refused = cues.length === 0 ? whyUnreadable(source, how) : null;
    if (refused) return refused;
    return accept({ source, cues, isWordTimed, how, about, title: about.title ?? '' });
  }
  const unread = whyUnread(text);
  if (unread) return refuse('noSentences', unread, 'file');
  if (/\.(?:srt|vtt)$/i.test(name) || looksTimed(text)) {
    const read = readSubtitles(text);
    if (!read.ok) return read;
    const { text: source, cues, isWordTimed, title, leftOut } = read.value;
    return accept({ source, cues, isWordTimed, title, how: { ...READ_AS_IT_LOOKS, leftOut } });
  }
  if (/\.x?html?$/i.test(name) || /^\uFEFF?\s*<(?:!doctype|html|head|body|article)\b/i.test(text)) {
    const read = readArticle(text);
    if (!read.ok) return read;
    const { markdown, title, leftOut } = read.value;
    return accept({
      source: markdown,
      title: withoutNumber(title),
      ...UNTIMED,
      how: { as: 'markdown', taken: [], leftOut },
    });
  }
  const how: HowRead = { ...READ_AS_IT_LOOKS, as: /\.(?:md|markdown)$/i.test(name) ? 'markdown' : null };
  const reading = maybeRead(text, how);
  if (typeof reading === 'string') return refuse(reading, NOT_READ[reading], 'file');
  return accept({ source: text, title: withoutNumber(reading.title ?? ''), ...UNTIMED, how });
}

const NOT_READ = {
  tooIntricate: `Quotations and lists stand in one another more than ${DEEPEST} deep in this text, which Bimlo does not read. Take the signs at the beginning of its lines away.`,
  tooManyParagraphs: `This text has more than ${figure(MOST_BLOCKS)} paragraphs, which Bimlo does not read at once. Divide it into several pieces.`,
};

const UNTIMED = { cues: [], isWordTimed: false };

const maybeRead = (source: string, how: HowRead) =>
  isMarkdown(source, how) ? maybeReadMarkdown(source) : maybeReadPlain(source);

function whyUnreadable(source: string, how: HowRead): Result<never> | null {
  const reading = maybeRead(source, how);
  return typeof reading === 'string' ? refuse(reading, NOT_READ[reading], 'file') : null;
}

/** Whether a text is read as Markdown: as somebody chose, else as it looks. */
const isMarkdown = (source: string, { as }: Pick<HowRead, 'as'>): boolean =>
  as === null ? looksLikeMarkdown(source) : as === 'markdown';

/** A piece's text, with how it was read where it was before: read once more it might be otherwise, if time was short. */
export interface TextToRead extends Pick<SourceText, 'source' | 'cues' | 'how'> {
  reading?: ReadingText;
}

/** A text that nobody brought in and nobody timed, to be read as it looks. */
export const plainlyKept = (source: string): TextToRead & { isWordTimed: false } => ({
  ...{ source, cues: [], isWordTimed: false, how: READ_AS_IT_LOOKS },
});

/** A piece's text to be read: of a timed one as it was said, of any other as Markdown or as plain text. */
export function readingOf({ source, cues, how, reading }: TextToRead): ReadingText {
  if (reading) return reading;
  if (cues.length > 0) return readSaid(source, how.leftOut);
  const read = (isMarkdown(source, how) ? readMarkdown : readPlain)(source, new Set(how.taken));
  return how.leftOut.length > 0 ? accounted({ ...read, leftOut: [...how.leftOut, ...read.leftOut] }) : read;
}

/** Reads what was said. Its text is the source to the letter: times point into it. */
function readSaid(source: string, before: readonly LeftOut[]): ReadingText {
  const blocks: Block[] = [];
  const leftOut = [...before];
  const paragraphs = source.split('\n\n');
  const speakers = speakersOf(paragraphs.map((text) => ({ kind: 'paragraph', text: text.trim() })));
  let at = 0;
  paragraphs.forEach((paragraph, place) => {
    const [start, text] = [at + paragraph.length - paragraph.trimStart().length, paragraph.trim()];
    const reason = reasonToLeave({ kind: 'paragraph', text }, place === paragraphs.length - 1);
    const [label = '', speaker] = speakerIn(text, speakers) ?? [];
    if (reason) leftOut.push({ reason, text });
    else if (text !== '')
      blocks.push({
        ...{ kind: 'paragraph', start: start + label.length, end: start + text.length },
        ...(speaker !== undefined && { speaker }),
      });
    if (!reason && speaker !== undefined) leftOut.push({ reason: 'speaker', text: speaker });
    at += paragraph.length + '\n\n'.length;
  });
  const own = inOwnLanguage(source, blocks);
  return accounted({ text: source, blocks: own, title: null, as: 'said', leftOut, takenIn: [] });
}
