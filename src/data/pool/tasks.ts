/** What the threads of the pool can do: pure work of core, on plain values. Loaded in each thread by `thread.mjs`. */
import { readCalendarFile, type CalendarFile, type DaySpan } from '@/core/exchange/calendarFile';
import { decodeText, readCsv, type CsvTable } from '@/core/exchange/csvText';
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

/** Reads a text that is brought in for a piece. */
export const sourceFile = ({ bytes, name }: { bytes: Uint8Array; name: string }): Result<SourceText> =>
  readSource(decodeText(bytes), name);

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
