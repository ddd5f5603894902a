import { createHash } from 'node:crypto';
import { isQuick } from '@/core/reading/markdown';
import { readingOf, type TextToRead } from '@/core/reading/readSource';
import type { ReadingText } from '@/core/reading/readingText';
import { maybeSource } from '@/data/extracts/extracts';
import { keepReadText, maybeReadText } from '@/data/extracts/readTexts';
import { readText } from '@/data/pool/readText';
import type { Queryable } from '@/data/database/db';
import { refused, type Db } from '../useCase';

/** Grows when texts are read otherwise than before, so that what was kept is read anew. */
const READER = 3;

type ToRead = Pick<TextToRead, 'source' | 'cues' | 'how'>;

/** What a kept reading is known by: the text, whether it is timed, how it is read, and by what reader. */
const nameOf = ({ source, cues, how }: ToRead): string =>
  createHash('sha256')
    .update(`${READER} ${cues.length > 0} ${JSON.stringify(how)} ${source}`)
    .digest('hex');

const isAtOnce = ({ source, cues }: ToRead): boolean => cues.length > 0 || isQuick(source);

/** A piece's text as it is read: what was kept of it, else read now and kept. Not in a transaction: it may take seconds on a thread. */
export async function readingOfPiece(db: Db, pieceId: string, kept: ToRead): Promise<ReadingText> {
  if (isAtOnce(kept)) return readingOf(kept);
  const name = nameOf(kept);
  const before = await maybeReadText(db, pieceId, name);
  if (before) return before;
  const reading = await readText(kept);
  await keepReadText(db, pieceId, name, reading);
  return reading;
}

/** Lets a piece's text be read and kept, before a transaction asks for it. */
export async function letBeRead(db: Db, pieceId: string): Promise<void> {
  const source = await maybeSource(db, pieceId);
  if (source) await readingOfPiece(db, pieceId, source);
}

/**
 * The same in a transaction, where nothing is read that takes long: it has to be kept by then, as `readingOfPiece` does before.
 * The use case ends with a refusal where it is not, since the text was changed meanwhile.
 */
export async function keptReading(tx: Queryable, pieceId: string, kept: ToRead): Promise<ReadingText> {
  if (isAtOnce(kept)) return readingOf(kept);
  return (
    (await maybeReadText(tx, pieceId, nameOf(kept))) ??
    refused({
      code: 'noStretch',
      field: 'start',
      message: 'The text has changed since. Reload the piece, then choose the words again.',
    })
  );
}
