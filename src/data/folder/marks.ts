import { open, readdir, readFile, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { number, object, string } from 'yup';
import { POSITION, type FoundMark, type RunMark } from '@/core/folder/restored';
import type { Queryable } from '../database/db';
import type { DataFolder } from './folder';
import { renameSynced } from './synced';

const NAME = /^ran-(\d+)-(\d+)\.json$/;
const nameOf = ({ run, beat }: Pick<RunMark, 'run' | 'beat'>): string => `ran-${run}-${beat}.json`;

/** What stands in a mark. */
const MARK = object({
  run: number().required().integer(),
  beat: number().required().integer(),
  position: string().required().matches(POSITION),
  atMs: number().required(),
  inode: string().required(),
});

/** The marks that lie in a folder: one, and more where another folder was put over it. One that cannot be read is none. */
export async function readMarks({ root }: Pick<DataFolder, 'root'>): Promise<FoundMark[]> {
  const names = (await readdir(root)).filter((name) => NAME.test(name));
  const found = await Promise.all(
    names.map(async (name) => {
      const path = join(root, name);
      const { ino, ctimeMs, birthtimeMs } = await stat(path);
      const mark = maybeMark(await readFile(path, 'utf8'));
      return mark ? [{ ...mark, foundInode: String(ino), changedAtMs: ctimeMs, bornAtMs: birthtimeMs }] : [];
    }),
  );
  return found.flat();
}

function maybeMark(text: string): RunMark | undefined {
  try {
    const mark: unknown = JSON.parse(text);
    return MARK.isValidSync(mark, { strict: true }) ? mark : undefined;
  } catch (error) {
    if (error instanceof SyntaxError) return undefined;
    throw error;
  }
}

/** Leaves a mark in a folder, on the disk before those that lay there go. What it says of the database has to be on the disk. */
export async function leaveMark({ root }: Pick<DataFolder, 'root'>, mark: Omit<RunMark, 'inode'>): Promise<void> {
  const path = join(root, nameOf(mark));
  const file = await open(`${path}.part`, 'w');
  try {
    const inode = String((await file.stat()).ino);
    await file.writeFile(JSON.stringify({ ...mark, inode } satisfies RunMark));
    await file.sync();
  } finally {
    await file.close();
  }
  await renameSynced(`${path}.part`, path);
  for (const name of await readdir(root))
    if (NAME.test(name) && name !== nameOf(mark)) await rm(join(root, name), { force: true });
}

/** How far the database's log is on the disk. */
export async function readPosition(db: Queryable): Promise<string> {
  const [row] = await db.rows<{ position: string }>('select pg_current_wal_flush_lsn()::text as position');
  return row!.position;
}
