import { afterAll, beforeAll, expect, it } from 'vitest';
import { openDb, type Db } from './db';
import { migrate, pendingMigrations, readMigrations } from './migrate';

const id = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const [PERSON, BRAND, SHEET, CHANNEL, PIECE, POST, VIEW] = [1, 2, 3, 4, 5, 6, 7].map(id);

let db: Db;
beforeAll(async () => {
  db = await openDb('memory');
  const all = await pendingMigrations(db, await readMigrations());
  const at = all.findIndex(({ name }) => name === 'words-of-the-trade');
  await migrate(db, all.slice(0, at));
  await db.script(`
    insert into people (id, slug, name, role) values ('${PERSON}', 'mana', 'Mana', 'manager');
    insert into brands (id, slug, name, zone) values ('${BRAND}', 'moor', 'Moor', 'UTC');
    insert into rule_sheets (id, slug, name, rules)
      values ('${SHEET}', 'my-board', 'My board', '{"about": "image board", "formats": [{"format": "wallImage"}]}');
    insert into channels (id, brand_id, rule_sheet_id, name, call_sign, color, account)
      values ('${CHANNEL}', '${BRAND}', '${SHEET}', 'Board', 'MB', '#3B6E7A', '@moor');
    insert into pieces (id, brand_id, title, owner_id, created_at, created_by)
      values ('${PIECE}', '${BRAND}', 'Rings', '${PERSON}', now(), '${PERSON}');
    insert into posts (id, brand_id, piece_id, channel_id, format, title, caption, stage, owner_id, created_at, created_by)
      values ('${POST}', '${BRAND}', '${PIECE}', '${CHANNEL}', 'wallImage', 'Rings', 'We are making a wallImage.', 'making',
        '${PERSON}', now(), '${PERSON}');
    insert into readings (id, brand_id, owner_id, name, address)
      values ('${VIEW}', '${BRAND}', '${PERSON}', 'making', 'as=list&stage=ready%2Cmaking%2Cscheduled&words=making+of&format=wallImage');
    insert into prep_sheets (brand_id, subject) values ('${BRAND}', 'wallImage');
    insert into prep_lines (brand_id, subject, position, title, work, lead, lead_in)
      values ('${BRAND}', 'wallImage', 0, 'Draw it', 'picture', 2, 'working');
  `);
  await migrate(db, all.slice(at));
}, 60_000);
afterAll(() => db.close());

const one = async (sql: string) => (await db.rows(sql))[0];

it('what was kept under the old words is found under the new ones, and what people typed stays', async () => {
  expect(await one('select stage, format, caption from posts')).toEqual({
    stage: 'production',
    format: 'boardPicture',
    caption: 'We are making a wallImage.',
  });
  expect(await one('select name, address from saved_views')).toEqual({
    name: 'making',
    address: 'as=list&stage=ready%2Cproduction%2Cscheduled&words=making+of&format=boardPicture',
  });
  expect(await one('select subject, title from prep_lines')).toEqual({ subject: 'boardPicture', title: 'Draw it' });
  expect(await one('select subject from prep_sheets')).toEqual({ subject: 'boardPicture' });
  expect(await one('select rules from rule_sheets')).toEqual({
    rules: { about: 'image board', formats: [{ format: 'boardPicture' }], kind: 'pictureBoard' },
  });
});
