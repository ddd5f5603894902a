import type { BadRow, ImportMapping, ImportRow } from '@/core/exchange/planImport';
import { changedByRow, changedSteps, noteImported, type UndoOfImport } from './noteImported';
import { outcomeWords } from '@/core/posts/outcome';
import type { Brand } from '@/data/brands/brands';
import type { Channel } from '@/data/brands/channels';
import { noteBroughtIn } from '@/data/exchange/importedRows';
import { NOTHING_TOLD } from '@/core/results/engagement';
import { listStepsOf } from '@/data/prep/steps';
import { insertReadings } from '@/data/results/readings';
import { outcomeOf, writePosts } from '../posts/writePosts';
import { tellSteps } from '../prep/tellSteps';
import { mustMay } from '../rights/mustMay';
import { madePosts } from '../undo/noteChange';
import { madePieces, toldReadings } from '../undo/rows';
import type { Doing } from '../useCase';
import { checkChanges } from './changesByRows';
import { compareRows } from './compareRows';
import { checkNew, makePosts } from './postsOfRows';
import type { CheckedRows, RowNote } from './checkedRows';
import { tellExtracts } from './tellExtracts';
import { keptTextsOfPieces } from './textsOfPieces';

/** What came of bringing rows in. */
export interface ImportOutcome {
  /** By what all of it is undone; absent as long as a part is told. */
  changeId?: string;
  made: number;
  changed: number;
  same: number;
  bad: BadRow[];
  notes: RowNote[];
}

/** Where rows go: the brand and its channels, and by what the file is known. */
export interface ImportPlace {
  brand: Brand;
  channels: readonly Channel[];
  source: string;
  mapping: ImportMapping;
  undo: UndoOfImport;
}

/** Checks rows against what is there and what must hold, and writes nothing. */
export async function checkRows(act: Doing, place: ImportPlace, rows: readonly ImportRow[]): Promise<CheckedRows> {
  const textOf = keptTextsOfPieces(act.tx);
  const compared = await compareRows(act.tx, place.brand, place.source, rows, textOf);
  const { fresh, differing, counted, same, lost, files, notes } = compared;
  const { good, bad } = checkNew(place.channels, fresh);
  const changed = await checkChanges(
    act,
    place.channels,
    differing.filter(({ isOfPost }) => isOfPost),
    files,
  );
  const relisted = differing.filter(({ steps, isOfExtracts }) => steps !== null || isOfExtracts);
  if (relisted.some(({ steps }) => steps !== null)) await mustMay(act, 'doSteps', place.brand.id);
  const isBad = new Set(changed.bad.map(({ line }) => line));
  return {
    fresh: good,
    changes: changed.changes,
    relisted: relisted.filter(({ row }) => !isBad.has(row.line)),
    counted,
    same: same.length,
    files,
    notes,
    bad: [...lost, ...bad, ...changed.bad],
  };
}

/** Brings in rows that were checked in the same transaction: a bounded number of statements, however many they are. */
export async function writeRows(
  act: Doing,
  { brand, channels, source, mapping, undo }: ImportPlace,
  checked: CheckedRows,
): Promise<ImportOutcome> {
  const { fresh, changes, relisted, counted, same, bad } = checked;
  const steppedIds = relisted.flatMap(({ steps, postId }) => (steps ? [postId] : []));
  const touchedIds = [...new Set([...steppedIds, ...changes.map(({ write }) => write.after.id)])];
  const stepsBefore = await listStepsOf(act.tx, touchedIds);
  await writePosts(
    act,
    changes.map(({ write }) => write),
  );
  for (const { row, postId, steps } of relisted)
    if (steps)
      await tellSteps(act, { brandId: brand.id, postId }, await listStepsOf(act.tx, [postId]), row.lists.steps!);
  const made = await makePosts(act, brand, channels, checked, mapping);
  await noteBroughtIn(act.tx, brand.id, source, made.keys);
  const postOf = new Map(made.keys.map((post) => [post.key, post]));
  const extracted = await tellExtracts(
    act,
    brand.id,
    [
      ...relisted.flatMap(({ row, postId, pieceId, isOfExtracts }) => (isOfExtracts ? [{ row, postId, pieceId }] : [])),
      ...fresh.flatMap((row) => (row.lists.extracts?.length ? [{ row, ...postOf.get(row.key)! }] : [])),
    ].map(({ row, postId, pieceId }) => ({ line: row.line, postId, pieceId, extracts: row.lists.extracts! })),
    keptTextsOfPieces(act.tx),
  );
  await insertReadings(
    act.tx,
    [
      ...counted,
      ...fresh.flatMap(({ key, numbers }) =>
        numbers ? [{ postId: postOf.get(key)!.postId, counts: { ...NOTHING_TOLD, ...numbers } }] : [],
      ),
    ].map(({ postId, counts }) => ({ ...counts, postId, at: act.now })),
  );
  await noteImported(act, brand.id, undo, [
    ...madePosts(made.keys.map(({ postId }) => postId)),
    ...changes.flatMap(({ write }) => changedByRow(write)),
    ...(await changedSteps(act, touchedIds, stepsBefore)),
    ...extracted.items,
    ...(await toldReadings(
      act,
      counted.map(({ postId }) => postId),
    )),
    ...(await madePieces(act, made.pieceIds)),
  ]);
  const told = changes.flatMap(({ row, notes, write }) =>
    [...outcomeWords(outcomeOf(write)).map((words) => `“${row.title}”: ${words}`), ...notes].map((message) => ({
      line: row.line,
      message,
    })),
  );
  return {
    made: made.keys.length,
    changed: new Set([...changes, ...relisted, ...counted].map(({ row }) => row)).size,
    same,
    bad,
    notes: [...told, ...made.notes, ...checked.notes, ...extracted.notes],
  };
}
