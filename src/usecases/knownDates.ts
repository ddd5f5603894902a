import { readCalendarFile } from '@/core/exchange/calendarFile';
import { readTitle } from '@/core/pieces/piece';
import type { Result } from '@/core/refusal';
import { addDays } from '@/core/time/days';
import { localOf } from '@/core/time/plan';
import { oneBrand } from '@/data/brands';
import { deleteDateFile, replaceDateFile } from '@/data/knownDates';
import { mustMay } from './door';
import { doing, must, notFound, refused, type Work } from './work';

/** Days before and after today that repeating dates are reckoned for. */
const SPAN = { before: 400, after: 800 };

/** What came of bringing dates in. */
export interface DatesOutcome {
  name: string;
  count: number;
  bad: { line: number; reason: string }[];
}

/** Brings a file of dates in under a name; one of the same name is replaced. Without a name it takes the file's own. */
export function bringDates(
  work: Work,
  brandId: string,
  text: string,
  fileName: string,
  name: string,
): Promise<Result<DatesOutcome>> {
  return doing(work, async (act) => {
    await mustMay(act, 'importAndExport', brandId);
    const brand = await oneBrand(act.tx, brandId);
    const today = localOf(act.now, brand.zone).date;
    const span = { from: addDays(today, -SPAN.before), to: addDays(today, SPAN.after) };
    const file = must(readCalendarFile(text, span, brand.zone));
    if (file.dates.length === 0)
      refused({
        code: 'noDates',
        field: 'file',
        message: file.bad[0]
          ? `No date of the file can be used. Line ${file.bad[0].line}: ${file.bad[0].reason}.`
          : `The file holds no date from ${span.from} to ${span.to}.`,
      });
    const called = must(readTitle(name.trim() || file.name || fileName.replace(/\.[a-z]+$/i, ''), 'name'));
    await replaceDateFile(
      act.tx,
      { id: act.ids(), brandId, name: called, fileName, importedAt: act.now, reckonedTo: span.to },
      file.dates,
    );
    return { name: called, count: file.dates.length, bad: file.bad };
  });
}

/** Takes a file of dates out again. */
export function removeDates(work: Work, brandId: string, id: string): Promise<Result<true>> {
  return doing(work, async (act) => {
    await mustMay(act, 'importAndExport', brandId);
    if (!(await deleteDateFile(act.tx, brandId, id))) refused(notFound('file of dates'));
    return true as const;
  });
}
