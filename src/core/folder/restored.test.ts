import { describe, expect, it } from 'vitest';
import { positionOf, signsOf, type FolderAge, type FoundMark } from './restored';

const mark = (change: Partial<FoundMark> = {}): FoundMark => ({
  ...{ run: 9, beat: 4, position: '0/200', atMs: 1_000_000, inode: '7', foundInode: '7', changedAtMs: 1_000_010 },
  bornAtMs: 1_000_000,
  ...change,
});
const COPIED = { foundInode: '8', changedAtMs: 9_000_000 };
const age = (change: Partial<FolderAge> = {}): FolderAge => ({
  ...{ db: { run: 9, position: '0/210' }, marks: [mark()], isSaid: false },
  ...change,
});

describe('a folder', () => {
  it.each([
    ['that ran last', {}, []],
    ['before its first start', { db: { run: null, position: '0/1' }, marks: [] }, []],
    ['whose run ended between counting and marking', { db: { run: 10, position: '0/220' } }, []],
    ['with a restore’s word', { isSaid: true }, ['said']],
    ['with a database of an earlier run', { db: { run: 8, position: '0/210' } }, ['older']],
    ['with a database of an earlier moment of the same run', { db: { run: 9, position: '0/1FF' } }, ['older']],
    ['with a database whose log is over in its low half', { db: { run: 9, position: '1/0' } }, []],
    [
      'over which an older copy was put',
      { db: { run: 7, position: '0/90' }, marks: [mark(), mark({ run: 7, ...COPIED })] },
      ['older'],
    ],
    [
      'over which an older copy of the same run was put',
      { db: { run: 9, position: '0/90' }, marks: [mark({ beat: 2, position: '0/80' }), mark()] },
      ['older'],
    ],
    ['that was copied to an empty place', { marks: [mark(COPIED)] }, ['copied']],
    [
      'whose copy got a number that was free',
      { marks: [mark({ changedAtMs: 9_000_010, bornAtMs: 9_000_000 })] },
      ['copied'],
    ],
    [
      'whose file system knows no birth, its owner set anew',
      { marks: [mark({ changedAtMs: 9_000_000, bornAtMs: 9_000_000 })] },
      [],
    ],
    ['whose owner was set anew', { marks: [mark({ changedAtMs: 9_000_000 })] }, []],
    ['whose file system numbers files anew', { marks: [mark({ foundInode: '8' })] }, []],
    ['whose log goes as far as its mark', { db: { run: 9, position: '0/200' } }, []],
    ['that was copied within the minute', { marks: [mark({ foundInode: '8', changedAtMs: 1_060_000 })] }, []],
    ['that was copied after a minute', { marks: [mark({ foundInode: '8', changedAtMs: 1_060_001 })] }, ['copied']],
    [
      'whose file system gives no birth at all, its owner set anew',
      { marks: [mark({ changedAtMs: 9_000_000, bornAtMs: 0 })] },
      [],
    ],
    ['with nothing but a database', { marks: [] }, ['unmarked']],
  ] as const)('%s', (_name, change, signs) => expect(signsOf(age(change as Partial<FolderAge>))).toEqual(signs));
});

it('reads a place in the log, and no other text', () => {
  expect(positionOf('12345678/0')).toBe(0x12345678n << 32n);
  expect([positionOf('0/16B3748'), positionOf('A/0'), positionOf('1/0') > positionOf('0/FFFFFFFF')]).toEqual([
    23_803_720n,
    42_949_672_960n,
    true,
  ]);
  for (const text of ['', '0/', '0/G', '0/1/2', '123', '/1'])
    expect(() => positionOf(text)).toThrow(`no place in a log: ${text}`);
});
