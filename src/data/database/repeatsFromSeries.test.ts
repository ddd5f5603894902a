import { afterAll, beforeAll, expect, it } from 'vitest';
import { listRepeatPosts, listRunningRepeats } from '../repeats/repeats';
import { openDb, type Db } from './db';
import { migrate, pendingMigrations, readMigrations } from './migrate';

const id = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const [PERSON, BRAND, SHEET, CHANNEL, PIECE, SERIES, VIEW, CHANGE] = [1, 2, 3, 4, 5, 6, 7, 8].map(id);
const [OF_SERIES, FIRST, AGAIN, PLANNED, ALONE] = [11, 12, 13, 14, 15].map(id);

let db: Db;
beforeAll(async () => {
  db = await openDb('memory');
  const all = await pendingMigrations(db, await readMigrations());
  const at = all.findIndex(({ name }) => name === 'repeats');
  await migrate(db, all.slice(0, at));
  const post = (postId: string, date: string, more: Record<string, string>) => {
    const values = {
      ...{ id: `'${postId}'`, brand_id: `'${BRAND}'`, piece_id: `'${PIECE}'`, channel_id: `'${CHANNEL}'` },
      ...{ format: `'text'`, title: `'Andromeda'`, caption: `'A smudge.'`, stage: `'published'` },
      ...{ owner_id: `'${PERSON}'`, created_at: 'now()', created_by: `'${PERSON}'`, plan_date: `'${date}'` },
      ...{ plan_time: `'09:30'`, published_at: `'${date}T09:30Z'`, ...more },
    };
    return `insert into posts (${Object.keys(values).join(', ')}) values (${Object.values(values).join(', ')});`;
  };
  const evergreen = { lasting: `'evergreen'`, again_weeks: '26' };
  await db.script(`
    insert into people (id, slug, name, role) values ('${PERSON}', 'mana', 'Mana', 'manager');
    insert into brands (id, slug, name, zone) values ('${BRAND}', 'moor', 'Moor', 'UTC');
    insert into rule_sheets (id, slug, name, rules) values ('${SHEET}', 'line', 'Line', '{"formats": [{"format": "text"}]}');
    insert into channels (id, brand_id, rule_sheet_id, name, call_sign, color, account)
      values ('${CHANNEL}', '${BRAND}', '${SHEET}', 'Line', 'LI', '#3B6E7A', '@moor');
    insert into pieces (id, brand_id, title, owner_id, created_at, created_by)
      values ('${PIECE}', '${BRAND}', 'Andromeda', '${PERSON}', now(), '${PERSON}');
    insert into series (id, brand_id, piece_id, channel_id, name, format, recurrence, at_time, from_date, next_number, owner_id)
      values ('${SERIES}', '${BRAND}', '${PIECE}', '${CHANNEL}', 'Question', 'text', '{"kind": "weekly", "weekday": 5, "every": 1}',
        '10:00', '2026-01-02', 8, '${PERSON}');
    ${post(OF_SERIES!, '2026-11-20', { title: `'Question 7'`, series_id: `'${SERIES}'`, series_number: '7' })}
    ${post(FIRST!, '2026-01-06', evergreen)}
    ${post(AGAIN!, '2026-07-07', { ...evergreen, encore_of: `'${FIRST}'` })}
    ${post(PLANNED!, '2027-01-05', { stage: `'drafting'`, published_at: 'null', encore_of: `'${FIRST}'` })}
    ${post(ALONE!, '2026-02-06', { lasting: `'dated'` })}
    insert into saved_views (id, brand_id, owner_id, name, address)
      values ('${VIEW}', '${BRAND}', '${PERSON}', 'series', 'as=list&columns=title%2Cseries&words=serieses');
    insert into setting_versions (setting, key, version) values ('series', '${SERIES}', 3);
    insert into history (brand_id, at, subject, subject_id, deed) values ('${BRAND}', now(), 'series', '${SERIES}', 'started');
    insert into changes (id, brand_id, actor_id, at, label, items)
      values ('${CHANGE}', '${BRAND}', '${PERSON}', now(), 'Ended', '[{"subject": "series", "id": "${SERIES}"}]');
  `);
  await migrate(db, all.slice(at));
}, 60_000);
afterAll(() => db.close());

const one = async (sql: string) => (await db.rows(sql))[0];

it('a series goes on as what it was, with its version, its history and its column', async () => {
  const series = (await listRunningRepeats(db)).find(({ kind }) => kind === 'series');
  expect(series).toMatchObject({
    ...{ id: SERIES, name: 'Question', firstNumber: 7, nextNumber: 8, workDays: null },
    rule: { kind: 'weekly', weekday: 5, every: 1 },
  });
  expect((await listRepeatPosts(db, SERIES!)).map(({ number }) => number)).toEqual([7]);
  expect(await one('select setting, version from setting_versions')).toEqual({ setting: 'repeat', version: 3 });
  expect(await one('select subject from history')).toEqual({ subject: 'repeat' });
  expect(await one('select name, address from saved_views')).toEqual({
    name: 'series',
    address: 'as=list&columns=title%2Crepeat&words=serieses',
  });
  expect(await one('select items, final is not null as "isFinal" from changes')).toEqual({ items: [], isFinal: true });
});

it('what came again every so many weeks is a repeat of what is out and planned of it', async () => {
  const evergreen = (await listRunningRepeats(db)).find(({ kind }) => kind === 'evergreen')!;
  expect(evergreen).toMatchObject({
    ...{ name: 'Andromeda', format: 'text', time: '09:30', from: '2026-07-07', ahead: 1, nextNumber: 4 },
    ...{ lastRound: '2027-01-05', rule: { kind: 'weekly', weekday: 2, every: 26 } },
  });
  const posts = await listRepeatPosts(db, evergreen.id);
  expect(posts.map((post) => [post.number, post.id])).toEqual([
    [1, FIRST],
    [2, AGAIN],
    [3, PLANNED],
  ]);
  expect(await db.rows(`select id from posts where lasting <> ''`)).toEqual([{ id: ALONE }]);
});
