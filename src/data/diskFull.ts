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
