/** What the threads of the pool can do: pure work of core, on plain values. Loaded in each thread by `thread.mjs`. */
import { correctionsOf, sayingOf, type TextOfPiece } from '@/core/corrections/corrections';
import { correctPost, type CorrectedPost, type PostToCorrect } from '@/core/corrections/correctPost';
import { readCalendarFile, type CalendarFile, type DaySpan } from '@/core/exchange/calendarFile';
import { readCsv, type CsvTable } from '@/core/exchange/csvText';
import { foldPlan, type FoldedPlan } from '@/core/exchange/foldedPlan';
import { planImport, type ImportGround, type ImportMapping } from '@/core/exchange/planImport';
import type { Taken } from '@/core/extracts/extracts';
import { takeApart, type TakenApart } from '@/core/extracts/takeApart';
import type { FanOutGround } from '@/core/fanOut/ground';
import { draftFanOut } from '@/core/fanOut/draftFanOut';
import { readingOf, readSource, type SourceText, type TextToRead } from '@/core/reading/readSource';
import type { ReadingText } from '@/core/reading/readingText';
import { sameStretches, type Same } from '@/core/pieces/reanchor';
import type { Result } from '@/core/refusal';
import { decodeAs, decodeSurely, decodeText, possibleEncodings, type PossibleEncoding } from '@/core/text/decode';
import type { Zone } from '@/core/time/plan';

/** Reads a CSV file. */
export const csvFile = ({ bytes }: { bytes: Uint8Array }): Result<CsvTable> => readCsv(decodeText(bytes));

/** Plans what a file of posts brings in. */
export const importPlan = ({
  table,
  mapping,
  ground,
}: {
  table: CsvTable;
  mapping: ImportMapping;
  ground: ImportGround;
}): FoldedPlan => foldPlan(planImport(table, mapping, ground));

/** Reads a calendar file; `at` always holds the place of the event that is being read. */
export const calendarFile = ({
  bytes,
  span,
  zone,
  leftOut,
  at,
}: {
  bytes: Uint8Array;
  span: DaySpan;
  zone: Zone;
  /** Places of events that took too long before. */
  leftOut: readonly number[];
  at: Int32Array;
}): Result<CalendarFile> =>
  readCalendarFile(decodeText(bytes), span, zone, { leftOut, onEvent: (index) => (at[0] = index) });

/** A text that was read; or, where it cannot be told how its file is written, the ways in which it may be. */
export type ReadSourceFile = { read: Result<SourceText> } | { encodings: PossibleEncoding[] };

/** Reads a text that is brought in for a piece, in the encoding that somebody chose, else in the one that it surely has. */
export function sourceFile({
  bytes,
  name,
  encoding,
}: {
  bytes: Uint8Array;
  name: string;
  encoding: string | null;
}): ReadSourceFile {
  const text = (encoding === null ? null : decodeAs(bytes, encoding)) ?? decodeSurely(bytes)?.text;
  return text === undefined ? { encodings: possibleEncodings(bytes) } : { read: readSource(text, name) };
}

/** Reads a piece's text. */
export const reading = ({ kept }: { kept: TextToRead }): ReadingText => readingOf(kept);

/** What is the same in a text and the one that it was corrected to. */
export const same = ({ pairs }: { pairs: readonly (readonly [before: string, after: string])[] }): Same[][] =>
  pairs.map(([before, after]) => sameStretches(before, after));

/** Takes a piece's text apart. */
export const apart = ({ kept, taken, takenClips }: TextToTakeApart, onShare?: (share: number) => void): TakenApart =>
  takeApart(kept, taken, takenClips, { onShare });

/** A text with what was taken of it already. */
export interface TextToTakeApart {
  kept: Parameters<typeof takeApart>[0];
  taken: readonly Taken[];
  takenClips: readonly Taken[];
}

/** Drafts the posts of a fan-out. */
export const fanOut = ({ ground }: { ground: FanOutGround }): ReturnType<typeof draftFanOut> => draftFanOut(ground);

/** Posts with the texts of their piece that they were made of, and the text that it has now. */
export interface PostsToCorrect {
  now: TextOfPiece;
  formers: readonly { id: string; text: TextOfPiece }[];
  posts: readonly (PostToCorrect & { madeOf: string })[];
}

/** Corrects posts as their piece was corrected: in their order, null for one that says nothing of it. */
export function corrections({ now, formers, posts }: PostsToCorrect): (CorrectedPost | null)[] {
  const saying = sayingOf(now);
  const found = new Map(formers.map(({ id, text }) => [id, correctionsOf(sayingOf(text), saying)]));
  return posts.map((post) => correctPost(post, found.get(post.madeOf)!));
}
