import { quoted } from '@/core/calendar/change';
import { readTitle } from '@/core/pieces/piece';
import type { Result } from '@/core/refusal';
import { addDays } from '@/core/time/days';
import { localOf } from '@/core/time/plan';
import { oneBrand } from '@/data/brands/brands';
import { deleteDateFile, listDateFiles, renameDateFile, replaceDateFile } from '@/data/calendar/knownDates';
import { readDatesFile } from '@/data/pool/readFiles';
import { mayRead, mustMay } from '../rights/mustMay';
import { undoably } from '../undo/undoably';
import { doing, must, notFound, refused, type Work } from '../useCase';

/** Days before and after today that repeating dates are reckoned for. */
const SPAN = { before: 400, after: 800 };

/** What came of bringing dates in. */
export interface DatesOutcome {
  name: string;
  count: number;
  bad: { line: number; reason: string }[];
}

/**
 * Brings a file of dates in under a name; one of the same name is replaced. Without a name it takes the file's own. The file
 * is read before anything is written, on a thread of its own.
 */
export async function bringDates(
  work: Work,
  brandId: string,
  bytes: Uint8Array,
  fileName: string,
  name: string,
): Promise<Result<DatesOutcome>> {
  const allowed = await mayRead(work, 'keepKnownDates', brandId);
  if (!allowed.ok) return allowed;
  const now = work.clock.now();
  const brand = await oneBrand(work.db, brandId);
  const today = localOf(now, brand.zone).date;
  const span = { from: addDays(today, -SPAN.before), to: addDays(today, SPAN.after) };
  const read = await readDatesFile(bytes, span, brand.zone);
  if (!read.ok) return read;
  const file = read.value;
  return doing(work, async (act) => {
    await mustMay(act, 'keepKnownDates', brandId);
    if (file.dates.length === 0)
      refused({
        code: 'noDates',
        field: 'file',
        message: file.bad[0]
          ? `No date of the file can be used. Line ${file.bad[0].line}: ${file.bad[0].reason}.`
          : `The file holds no date from ${span.from} to ${span.to}.`,
      });
    const called = must(readTitle(name.trim() || file.name || fileName.replace(/\.[a-z]+$/i, ''), 'name'));
    const id = act.ids();
    const replaced = (await listDateFiles(act.tx, brandId)).filter((one) => one.name === called);
    const things = [...replaced.map((one) => one.id), id].map((one) => ({ name: 'dateFile' as const, id: one }));
    await undoably(act, { brandId, label: `Brought in the dates ${quoted(called)}`, things }, () =>
      replaceDateFile(
        act.tx,
        { id, brandId, name: called, fileName, importedAt: act.now, reckonedTo: span.to },
        file.dates,
      ),
    );
    return { name: called, count: file.dates.length, bad: file.bad };
  });
}

/** Gives a file of dates another name; refused where another file has it. */
export function renameDates(work: Work, brandId: string, id: string, name: string): Promise<Result<true>> {
  return doing(work, async (act) => {
    await mustMay(act, 'keepKnownDates', brandId);
    const called = must(readTitle(name, 'name'));
    const files = await listDateFiles(act.tx, brandId);
    if (files.some((file) => file.name === called && file.id !== id))
      refused({ code: 'nameTaken', field: 'name', message: `There is another file of dates named “${called}”.` });
    await undoably(act, watchedOf(brandId, id, `Renamed the dates ${quoted(called)}`), async () => {
      if (!(await renameDateFile(act.tx, brandId, id, called))) refused(notFound('file of dates'));
    });
    return true as const;
  });
}

/** Takes a file of dates out again. */
export function removeDates(work: Work, brandId: string, id: string): Promise<Result<true>> {
  return doing(work, async (act) => {
    await mustMay(act, 'keepKnownDates', brandId);
    await undoably(act, watchedOf(brandId, id, 'Removed a file of dates'), async () => {
      if (!(await deleteDateFile(act.tx, brandId, id))) refused(notFound('file of dates'));
    });
    return true as const;
  });
}

const watchedOf = (brandId: string, id: string, label: string) => ({
  ...{ brandId, label },
  things: [{ name: 'dateFile' as const, id }],
});
