import { expect, it } from 'vitest';
import { openTestDb } from '@/data/database/testDb';
import { loggedError } from './log';

it('a logged error of the database says where it was, and holds none of people’s words', async () => {
  const db = await openTestDb();
  await db.run(`insert into folder_facts values ('Secret words', 'x')`);
  for (const [sql, parameters] of [
    [`insert into folder_facts values ($1, 'y')`, ['Secret words']],
    ['select $1::uuid', ['Secret words']],
    ['select $1::jsonb', ['{"Secret words"']],
  ] as const) {
    const error = await db.run(sql, parameters).then(
      () => null,
      (caught: unknown) => caught,
    );
    const logged = JSON.stringify(loggedError(error));
    expect(logged).toMatch(/"code":"\w{5}"/);
    expect(logged).not.toContain('Secret words');
  }
  await db.close();
});

it('any other error is logged with its message', () =>
  expect(loggedError(new Error('no room'))).toMatchObject({ message: 'no room' }));
