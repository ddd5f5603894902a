import type { BadRow, ImportMapping, ImportRow } from '@/core/exchange/planImport';
import { noteImported, type UndoOfImport } from './noteImported';
import { outcomeWords } from '@/core/posts/outcome';
import type { Brand } from '@/data/brands/brands';
import type { Channel } from '@/data/brands/channels';
import { noteBroughtIn } from '@/data/exchange/importedRows';
import { NOTHING_TOLD } from '@/core/results/engagement';
import { insertReadings } from '@/data/results/readings';
import { outcomeOf, writePosts } from '../posts/writePosts';
import type { Doing } from '../useCase';
import { checkChanges } from './changesByRows';
import { compareRows } from './compareRows';
import { checkNew, makePosts } from './postsOfRows';
import type { CheckedRows, RowNote } from './checkedRows';

/** What came of bringing rows in. */
export interface ImportOutcome {
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
  const { fresh, differing, counted, same, lost } = await compareRows(act.tx, place.brand, place.source, rows);
  const { good, bad } = checkNew(place.channels, fresh);
  const changed = await checkChanges(act, place.channels, differing);
  return { fresh: good, changes: changed.changes, counted, same: same.length, bad: [...lost, ...bad, ...changed.bad] };
}

/** Brings in rows that were checked in the same transaction: a bounded number of statements, however many they are. */
export async function writeRows(
  act: Doing,
  { brand, channels, source, mapping, undo }: ImportPlace,
  { fresh, changes, counted, same, bad }: CheckedRows,
): Promise<ImportOutcome> {
  await writePosts(
    act,
    changes.map(({ write }) => write),
  );
  const made = await makePosts(act, brand, channels, fresh, mapping);
  await noteBroughtIn(act.tx, brand.id, source, made.keys);
  await noteImported(act, brand.id, undo, {
    postIds: made.keys.map(({ postId }) => postId),
    pieceIds: made.pieceIds,
  });
  const idOf = new Map(made.keys.map(({ key, postId }) => [key, postId]));
  await insertReadings(
    act.tx,
    [
      ...counted,
      ...fresh.flatMap(({ key, numbers }) =>
        numbers ? [{ postId: idOf.get(key)!, counts: { ...NOTHING_TOLD, ...numbers } }] : [],
      ),
    ].map(({ postId, counts }) => ({ ...counts, postId, at: act.now })),
  );
  const told = changes.flatMap(({ row, notes, write }) =>
    [...outcomeWords(outcomeOf(write)).map((words) => `“${row.title}”: ${words}`), ...notes].map((message) => ({
      line: row.line,
      message,
    })),
  );
  return {
    made: made.keys.length,
    changed: new Set([...changes, ...counted].map(({ row }) => row)).size,
    same,
    bad,
    notes: [...told, ...made.notes],
  };
}
