import { accept, type Refusal, type Result } from '@/core/refusal';
import type { BadRow, ImportRow } from '@/core/exchange/planImport';
import { counted } from '@/core/words';
import {
  askToStop,
  endImport,
  insertImport,
  maybeFileOf,
  maybeImport,
  maybeOpenImport,
  noteProgress,
  type LongImport,
} from '@/data/exchange/imports';
import { insertJobs } from '@/data/jobs/jobs';
import { noteExchange } from './noteExchange';
import { mustMay } from '../rights/mustMay';
import { ofBrand } from '../rights/readFor';
import { doing, must, notFound, refused, type Doing, type Work } from '../useCase';
import { inLines, keepMapping, mustBeGood, placeFor, planFile, type ImportFile } from './importPosts';
import { letPiecesBeRead } from './textsOfPieces';
import { checkRows, writeRows, type ImportOutcome } from './importRows';

/** A long import with what came of it so far. */
export type RunningImport = LongImport<ImportOutcome>;

/** The kind of job that brings long files in. */
export const IMPORT_JOB = 'import';

/** Rows brought in at a time. Others are answered between two slices. */
export const SLICE_ROWS = 100;

/** Runs in a row that may break before an import is given up. */
const TRIES = 5;
const BROKE: Refusal = {
  code: 'broken',
  message: 'Bimlo had an error of its own and gave up. What is in stays; its log says more.',
};

const NOTHING_YET: ImportOutcome = { made: 0, changed: 0, same: 0, bad: [], notes: [] };

/**
 * Lets a long file be brought in by a job. What can be refused at once is; all else is told by how the import stands.
 * One file of a brand comes at a time.
 */
export async function startImport(work: Work, file: ImportFile): Promise<Result<RunningImport>> {
  const planned = await planFile(work, file);
  if (!planned.ok) return planned;
  const plan = planned.value;
  return doing(work, async (act) => {
    await mustMay(act, 'exchange', file.brandId);
    if (file.extent === 'whole') mustBeGood(plan.bad);
    const open = await maybeOpenImport<ImportOutcome>(act.tx, file.brandId);
    if (open)
      refused({
        code: 'importRuns',
        message: `“${open.fileName}” is being imported at present. Wait until it has ended, or stop it.`,
      });
    const id = act.ids();
    const { brandId, fileName } = file;
    await insertImport(act.tx, {
      id,
      brandId,
      actorId: act.actorId,
      fileName,
      rowCount: plan.rows.length,
      outcome: NOTHING_YET,
      createdAt: act.now,
      file: JSON.stringify(file),
    });
    await insertJobs(act.tx, [{ id: act.ids(), kind: IMPORT_JOB, subject: id, dueAt: act.now }]);
    return (await maybeImport<ImportOutcome>(act.tx, id))!;
  });
}

/** How an import stands, for somebody who may bring files in. */
export async function readImport(work: Work, id: string): Promise<Result<RunningImport>> {
  const found = await maybeImport<ImportOutcome>(work.db, id);
  if (!found) return { ok: false, refusal: notFound('import') };
  return ofBrand(work, found.brandId, async () => found, 'exchange');
}

/** The import of a brand that runs at present, if one does. */
export const maybeRunningImport = (work: Pick<Work, 'db'>, brandId: string): Promise<RunningImport | undefined> =>
  maybeOpenImport<ImportOutcome>(work.db, brandId);

/** Ends an import after the slice it is at. What is in stays; the same file again brings the rest. */
export function stopImport(work: Work, id: string): Promise<Result<RunningImport>> {
  return doing(work, async (act) => {
    await takeImport(act, id);
    await askToStop(act.tx, id);
    return takeImport(act, id);
  });
}

async function takeImport(act: Doing, id: string): Promise<RunningImport> {
  const found = await maybeImport<ImportOutcome>(act.tx, id);
  if (!found) refused(notFound('import'));
  await mustMay(act, 'exchange', found.brandId);
  return found;
}

/**
 * Brings a waiting file in, slice by slice, each in a transaction of its own that also says how far it has come: broken off,
 * it goes on where it was. A file that has to come whole is checked to its end before its first row is written. What others
 * do between two slices is held against then: a row that may not come any more is named.
 *
 * @param tries runs in a row that broke
 * @param isStopping whether to break off now and go on at another time
 * @returns what it came to, in a few words; null when it was broken off
 */
export async function runImport(
  work: Omit<Work, 'actorId' | 'request'>,
  id: string,
  { tries = 0, isStopping = () => false }: { tries?: number; isStopping?: () => boolean } = {},
): Promise<string | null> {
  const text = await maybeFileOf(work.db, id);
  if (text === undefined) return 'had ended';
  const file = JSON.parse(text) as ImportFile;
  const start = (await maybeImport<ImportOutcome>(work.db, id))!;
  const own: Work = { ...work, actorId: start.actorId };
  const end = async (state: 'done' | 'refused' | 'stopped', refusal: RunningImport['refusal'] = null) => {
    const { made, changed } = (await maybeImport<ImportOutcome>(work.db, id))!.outcome;
    await work.db.transaction(async (tx) => {
      await endImport(tx, id, { state, refusal, at: work.clock.now() });
      if (made + changed > 0) await noteExchange(tx, own, 'imported', file.brandId, file.fileName);
    });
    return `${state}: ${counted(made, 'post')} made`;
  };

  if (tries >= TRIES) return end('refused', BROKE);
  const planned = await planFile(own, file);
  if (!planned.ok) return end('refused', planned.refusal);
  const { rows, bad: unread } = planned.value;
  await letPiecesBeRead(own.db, file.brandId, rows);
  if (file.extent === 'whole' && start.state !== 'writing') {
    const checked = await checkAll(own, file, id, { rows, unread, isStopping });
    if (!checked.ok) return end('refused', checked.refusal);
    if (checked.value === 'stopped') return end('stopped');
    if (checked.value === 'brokenOff') return null;
  }
  let outcome = start.state === 'writing' ? start.outcome : { ...NOTHING_YET, bad: unread };
  const first = rows.findIndex(({ line }) => line > start.doneLine);
  for (let from = first; from >= 0 && from < rows.length; from += SLICE_ROWS) {
    const slice = rows.slice(from, from + SLICE_ROWS);
    const written = await tried(own, async (act) => {
      const place = await placeFor(act, file, id);
      const added = joined(outcome, await writeRows(act, place, await checkRows(act, place, slice)));
      const progress = {
        state: 'writing' as const,
        doneCount: from + slice.length,
        doneLine: slice.at(-1)!.line,
        outcome: added,
      };
      return { outcome: added, stops: await noteProgress(act.tx, id, progress) };
    });
    if (!written.ok) return end('refused', written.refusal);
    outcome = written.value.outcome;
    if (from + SLICE_ROWS >= rows.length) break;
    if (written.value.stops) return end('stopped');
    if (isStopping()) return null;
  }
  must(await doing(own, (act) => keepMapping(act, file)));
  return end('done');
}

/** A part of a run. A full disk refuses nothing for good: it breaks the run, which is tried again. */
async function tried<T>(work: Work, part: (act: Doing) => Promise<T>): Promise<Result<T>> {
  const result = await doing(work, part);
  if (!result.ok && result.refusal.code === 'diskFull') throw new Error(result.refusal.message);
  return result;
}

/** Checks every row and writes none. */
async function checkAll(
  work: Work,
  file: ImportFile,
  id: string,
  { rows, unread, isStopping }: { rows: readonly ImportRow[]; unread: readonly BadRow[]; isStopping: () => boolean },
): Promise<Result<'good' | 'stopped' | 'brokenOff'>> {
  const bad = [...unread];
  for (let from = 0; from < rows.length; from += SLICE_ROWS) {
    const slice = rows.slice(from, from + SLICE_ROWS);
    const checked = await tried(work, async (act) => {
      const progress = { state: 'checking' as const, doneCount: from, doneLine: 0, outcome: NOTHING_YET };
      const stops = await noteProgress(act.tx, id, progress);
      return { bad: (await checkRows(act, await placeFor(act, file, id), slice)).bad, stops };
    });
    if (!checked.ok) return checked;
    bad.push(...checked.value.bad);
    if (checked.value.stops) return accept('stopped');
    if (isStopping()) return accept('brokenOff');
  }
  return doing(work, async () => {
    mustBeGood(bad);
    return 'good' as const;
  });
}

const joined = (sum: ImportOutcome, more: ImportOutcome): ImportOutcome =>
  inLines({
    made: sum.made + more.made,
    changed: sum.changed + more.changed,
    same: sum.same + more.same,
    bad: [...sum.bad, ...more.bad],
    notes: [...sum.notes, ...more.notes],
  });
