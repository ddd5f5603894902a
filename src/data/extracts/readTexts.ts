import type { ReadingText } from '@/core/reading/readingText';
import type { Queryable } from '../database/db';

/** The kept reading of a piece's text, if there is one of that very text. */
export async function maybeReadText(db: Queryable, pieceId: string, ofText: string): Promise<ReadingText | undefined> {
  const rows = await db.rows<{ reading: ReadingText }>(
    'select reading from read_texts where piece_id = $1 and of_text = $2',
    [pieceId, ofText],
  );
  return rows[0]?.reading;
}

/** Keeps the reading of a piece's text, instead of that of another. */
export async function keepReadText(
  tx: Queryable,
  pieceId: string,
  ofText: string,
  reading: ReadingText,
): Promise<void> {
  await tx.run(
    `insert into read_texts (piece_id, of_text, reading) values ($1, $2, $3::jsonb)
     on conflict (piece_id) do update set of_text = excluded.of_text, reading = excluded.reading`,
    [pieceId, ofText, JSON.stringify(reading)],
  );
}
