import { maybeSource } from '@/data/extracts/extracts';
import type { Queryable } from '@/data/database/db';
import { listPiecesByTitle } from '@/data/pieces/pieces';
import type { ImportRow } from '@/core/exchange/planImport';
import { keptReading, letBeRead, readingOfPiece } from '../extracts/keptReading';
import { attempt, type Db } from '../useCase';
import type { TextOfPiece } from './listings';

/** The texts of pieces, each read once. Not in a transaction: reading may take seconds on a thread. */
export const textsOfPieces = (db: Db): TextOfPiece =>
  once(async (pieceId) => {
    const source = await maybeSource(db, pieceId);
    return source && source.source !== '' ? (await readingOfPiece(db, pieceId, source)).text : null;
  });

/** The same in a transaction: the text of a piece that was not read before is null. */
export const keptTextsOfPieces = (tx: Queryable): TextOfPiece =>
  once(async (pieceId) => {
    const source = await maybeSource(tx, pieceId);
    if (!source || source.source === '') return null;
    const reading = await attempt(() => keptReading(tx, pieceId, source));
    return reading.ok ? reading.value.text : null;
  });

function once(read: TextOfPiece): TextOfPiece {
  const texts = new Map<string, Promise<string | null>>();
  return (pieceId) => {
    const text = texts.get(pieceId) ?? read(pieceId);
    texts.set(pieceId, text);
    return text;
  };
}

/** Lets the pieces be read whose extracts these rows name, before a transaction asks for them. */
export async function letPiecesBeRead(db: Db, brandId: string, rows: readonly ImportRow[]): Promise<void> {
  const titles = rows.flatMap(({ lists, pieceTitle }) => (lists.extracts?.length ? [pieceTitle] : []));
  if (titles.length === 0) return;
  for (const id of new Set((await listPiecesByTitle(db, brandId, [...new Set(titles)])).values()))
    await letBeRead(db, id);
}
