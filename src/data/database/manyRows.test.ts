import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { Db } from './db';
import { manyRows } from './manyRows';
import { openTestDb } from './testDb';

let db: Db;
beforeEach(async () => void (db = await openTestDb()));
afterEach(() => db.close());

interface Row {
  number: number;
  text: string | null;
  date: string;
  time: string;
  list: unknown[];
  isOdd: boolean;
}
const COLUMNS = {
  number: 'n',
  text: `case when n = 2 then null else 'line ' || n || E'\\n"quoted" \\\\ 星' end`,
  date: `date '2026-11-22' + n`,
  time: `to_char(time '14:30', 'HH24:MI')`,
  list: `jsonb_build_array(n, 'x')`,
  isOdd: 'n % 2 = 1',
};
const read = (count: number, order = 'n') =>
  manyRows<Row>(db, COLUMNS, `generate_series(1, $1::int) n order by ${order}`, [count]);

describe('rows by the hundred', () => {
  it.each([0, 1, 2, 700])('are as many as there are: %i', async (count) =>
    expect((await read(count)).map(({ number }) => number)).toEqual(Array.from({ length: count }, (_, at) => at + 1)),
  );

  it('hold every kind of value, and nothing where there is none', async () =>
    expect(await read(2)).toEqual([
      { number: 1, text: 'line 1\n"quoted" \\ 星', date: '2026-11-23', time: '14:30', list: [1, 'x'], isOdd: true },
      { number: 2, text: null, date: '2026-11-24', time: '14:30', list: [2, 'x'], isOdd: false },
    ]));

  it('keep the order they are read in', async () =>
    expect((await read(3, 'n desc')).map(({ number }) => number)).toEqual([3, 2, 1]));

  it('may be read from what is named before', async () => {
    const rows = await manyRows<{ twice: number }>(
      db,
      { twice: 'w.n * 2' },
      'wanted w order by w.n',
      [2],
      'with wanted as materialized (select n from generate_series(1, $1::int) n)',
    );
    expect(rows).toEqual([{ twice: 2 }, { twice: 4 }]);
  });
});
