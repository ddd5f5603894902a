/** By what a data folder is seen to be older than what ran last on it. */
export const SIGNS = ['said', 'older', 'copied', 'unmarked', 'networks'] as const;
export type Sign = (typeof SIGNS)[number];

/** What each sign says, to come after “Bimlo saw this because …”. */
export const SIGN_WORDS: Record<Sign, string> = {
  said: 'a snapshot was put in place',
  older: 'the database is older than what ran last in this folder',
  copied: 'the data folder was copied to its place',
  unmarked: 'the database came without the rest of its data folder',
  networks: 'a network holds posts that the database does not know',
};

/** A mark that a run leaves in its folder, anew every few minutes: how far its database had got. */
export interface RunMark {
  /** The number of the start. */
  run: number;
  /** How often this run has left it. */
  beat: number;
  /** How far the database's log was on the disk, as PostgreSQL writes it: `0/16B3748`. */
  position: string;
  /** When it was written, by the system's clock in milliseconds. */
  atMs: number;
  /** The number that the file system gave the mark's file. */
  inode: string;
}

/** A mark as it is found: what stands in it, and what the file system says of it. */
export interface FoundMark extends RunMark {
  foundInode: string;
  /** When the file system last changed what it knows of the file, in milliseconds. */
  changedAtMs: number;
  /** When it made the file, in milliseconds; some file systems give the last change for it. */
  bornAtMs: number;
}

/**
 * What is known of a folder when it is opened.
 *
 * @internal
 */
export interface FolderAge {
  /** Of the database: the number of its last start, null before the first, and how far its log goes. */
  db: { run: number | null; position: string };
  marks: readonly FoundMark[];
  /** Whether a restore left word that it put something in place. */
  isSaid: boolean;
}

/** A file that was copied is changed, for the file system, this long after it was written, or more. */
const COPIED_AFTER_MS = 60_000;

/**
 * By what a folder is seen to be older than what ran last on it, or to be a copy; none where it is what ran last. A copy put over a
 * folder leaves the newer marks that stood there; one put into an empty place has files of other numbers, changed when they
 * were copied. A change alone is said of folders that nobody copied, whose owner was set anew; another number alone where a file
 * system numbers files anew at each mount, and a copy may get a number that has become free. A folder whose disk as a whole was set back shows none of this: there the networks tell.
 */
export function signsOf({ db, marks, isSaid }: FolderAge): Sign[] {
  const signs: Sign[] = isSaid ? ['said'] : [];
  if (db.run === null) return signs;
  const newest = newestOf(marks);
  if (!newest) return [...signs, 'unmarked'];
  if (newest.run > db.run || positionOf(newest.position) > positionOf(db.position)) signs.push('older');
  if (isCopied(newest)) signs.push('copied');
  return signs;
}

function isCopied({ atMs, changedAtMs, bornAtMs, inode, foundInode }: FoundMark): boolean {
  const isLater = (ms: number) => Math.abs(ms - atMs) > COPIED_AFTER_MS;
  const isBornLater = bornAtMs !== changedAtMs && bornAtMs > 0 && isLater(bornAtMs);
  return isLater(changedAtMs) && (inode !== foundInode || isBornLater);
}

/** The mark that was left last. */
const newestOf = <M extends RunMark>(marks: readonly M[]): M | undefined =>
  [...marks].sort((a, b) => b.run - a.run || b.beat - a.beat)[0];

/** A place in PostgreSQL's log as it writes it: two halves of hexadecimal digits, the higher first (pg_lsn, PostgreSQL documentation 8.20). */
export const POSITION = /^([0-9A-F]{1,8})\/([0-9A-F]{1,8})$/i;

/**
 * A place in PostgreSQL's log as a number. @throws RangeError where it is none
 *
 * @internal
 */
export function positionOf(position: string): bigint {
  const found = POSITION.exec(position);
  if (!found) throw new RangeError(`no place in a log: ${position}`);
  return (BigInt(`0x${found[1]}`) << 32n) + BigInt(`0x${found[2]}`);
}
