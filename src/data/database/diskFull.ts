import { statfs } from 'node:fs/promises';
import { databaseError, SQLSTATE } from './db';

/** Whether an error says that the disk is full, by errno(3) or PostgreSQL's code: no space left, or a quota used up. */
export const isDiskFull = (error: unknown): boolean =>
  databaseError(error)?.code === SQLSTATE.diskFull ||
  (error instanceof Error && 'code' in error && (error.code === 'ENOSPC' || error.code === 'EDQUOT'));

/** What people read when the disk is full. */
export const DISK_FULL = 'The disk that Bimlo keeps its data on is full. Make room on it';

/** Why nothing can be delivered at present, by the error a look at what is due ended with. */
export const troubleOf = (error: unknown): string =>
  isDiskFull(error)
    ? `${DISK_FULL}: until then nothing can be sent.`
    : 'Bimlo cannot read or write what is due, so nothing is sent at present. Its log says why.';

/** Bytes that have to be free for Bimlo to go on writing: the database takes its room in pieces of 16 MB. */
const LEAST_FREE_BYTES = 48_000_000;

/** Whether a folder's disk has no room left to go on with, as a sentence; null when it has. */
export async function lacksRoom(folder: string): Promise<string | null> {
  const { bavail, bsize } = await statfs(folder);
  return bavail * bsize < LEAST_FREE_BYTES ? `${DISK_FULL}: before long nothing can be saved or sent.` : null;
}
