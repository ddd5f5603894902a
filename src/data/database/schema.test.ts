import { afterAll, beforeAll, expect, it } from 'vitest';
import type { Db } from './db';
import { openTestDb } from './testDb';

let db: Db;
beforeAll(async () => void (db = await openTestDb()));
afterAll(() => db.close());

/** All tables with their columns, rules, indexes and triggers, and the functions, as PostgreSQL describes them. */
async function presentSchema(): Promise<string> {
  const columns = await db.rows<{ table: string; line: string }>(
    `select c.relname as "table", a.attname || ' ' || format_type(a.atttypid, a.atttypmod)
       || case when a.attnotnull then ' not null' else '' end
       || case when a.attidentity <> '' then ' generated always as identity' else '' end
       || case when a.attgenerated <> '' then ' generated always as (' || pg_get_expr(d.adbin, d.adrelid) || ') stored'
            when d.adbin is not null then ' default ' || pg_get_expr(d.adbin, d.adrelid) else '' end as line
     from pg_class c join pg_attribute a on a.attrelid = c.oid and a.attnum > 0 and not a.attisdropped
       left join pg_attrdef d on d.adrelid = c.oid and d.adnum = a.attnum
     where c.relnamespace = 'public'::regnamespace and c.relkind = 'r' order by c.relname, a.attnum`,
  );
  const rules = await db.rows<{ table: string; line: string }>(
    `select c.relname as "table", 'constraint ' || r.conname || ' ' || pg_get_constraintdef(r.oid) as line
     from pg_constraint r join pg_class c on c.oid = r.conrelid
     where r.connamespace = 'public'::regnamespace and r.contype <> 'n' order by c.relname, r.contype desc, r.conname`,
  );
  const indexes = await db.rows<{ table: string; line: string }>(
    `select tablename as "table", indexdef || ';' as line from pg_indexes
     where schemaname = 'public' and indexname not in (select conname from pg_constraint) order by tablename, indexname`,
  );
  const triggers = await db.rows<{ table: string; line: string }>(
    `select c.relname as "table", pg_get_triggerdef(t.oid) || ';' as line from pg_trigger t join pg_class c on c.oid = t.tgrelid
     where c.relnamespace = 'public'::regnamespace and not t.tgisinternal order by c.relname, t.tgname`,
  );
  const functions = await db.rows<{ line: string }>(
    `select pg_get_functiondef(oid) as line from pg_proc
     where pronamespace = 'public'::regnamespace and prokind = 'f' order by proname`,
  );
  const of = (list: { table: string; line: string }[], table: string) =>
    list.filter((one) => one.table === table).map(({ line }) => line);
  const tables = [...new Set(columns.map(({ table }) => table))].map((table) => {
    const inside = [...of(columns, table), ...of(rules, table)].map((line) => `  ${line}`).join(',\n');
    return [`create table ${table} (\n${inside}\n);`, ...of(indexes, table), ...of(triggers, table)].join('\n');
  });
  return [...tables, ...functions.map(({ line }) => `${line.trim()};`)].join('\n\n');
}

// Generated: `npx vitest run src/data/database/schema.test.ts -u` writes it anew after a migration.
it('the present schema stands in one file', async () => {
  const head = '-- The present schema, as all migrations together make it. Generated; not run by anything.\n\n';
  await expect(`${head}${await presentSchema()}\n`).toMatchFileSnapshot('../schema.sql');
});
