import { createHash } from 'node:crypto';
import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Db } from './db';

/** A numbered step of the schema. */
interface Migration {
  number: number;
  name: string;
  sql: string;
  /** SHA-256 of `sql`, hex. */
  checksum: string;
}

/**
 * The database and the migrations on disk do not belong together.
 *
 * @internal
 */
export class MigrationError extends Error {}

const FOLDER = join(/* turbopackIgnore: true */ process.cwd(), 'src/data/migrations');

/** Reads the migrations from their folder, in order. A gap or a doubled number is an error. */
export async function readMigrations(folder = FOLDER): Promise<Migration[]> {
  const files = (await readdir(/* turbopackIgnore: true */ folder)).filter((file) => file.endsWith('.sql')).sort();
  return Promise.all(
    files.map(async (file, index) => {
      const number = Number(/^(\d{3})-/.exec(file)?.[1]);
      if (number !== index + 1) throw new MigrationError(`${file}: expected number ${index + 1}`);
      const sql = await readFile(join(/* turbopackIgnore: true */ folder, file), 'utf8');
      return { number, name: file.slice(4, -4), sql, checksum: createHash('sha256').update(sql).digest('hex') };
    }),
  );
}

/** The migrations a database still lacks. A changed or unknown one that it has is refused. */
export async function pendingMigrations(db: Db, migrations: Migration[]): Promise<Migration[]> {
  await db.run(`create table if not exists schema_history (
    number integer primary key, name text not null, checksum text not null, applied_at timestamptz not null default now()
  )`);
  const applied = await db.rows<{ number: number; checksum: string }>(
    'select number, checksum from schema_history order by number',
  );
  for (const row of applied) {
    const known = migrations[row.number - 1];
    if (!known)
      throw new MigrationError(
        `This data folder was written by a newer Bimlo (its schema is at ${applied.at(-1)!.number}, this one knows ${migrations.length}). Start the newer one.`,
      );
    if (known.checksum !== row.checksum)
      throw new MigrationError(
        `Migration ${row.number} (${known.name}) was changed after it ran on this data folder. Put the old text back and add a new migration.`,
      );
  }
  return migrations.slice(applied.length);
}

/**
 * The database opens, but what lies in it cannot be read.
 *
 * @internal
 */
export class UnreadableDbError extends Error {
  constructor(table: string, cause: unknown) {
    super(
      `The table ${table} of the database cannot be read. Put a snapshot in its place: “npm run restore” lists them.`,
      { cause },
    );
  }
}

/** Reads a row of every table, so that a damaged database is known at the start and not in the middle of a day. */
export async function checkReadable(db: Db): Promise<void> {
  const tables = await db.rows<{ name: string }>(
    `select quote_ident(tablename) as name from pg_tables where schemaname = 'public' order by tablename`,
  );
  for (const { name } of tables)
    await db.rows(`select * from ${name} limit 1`).catch((error: unknown) => {
      throw new UnreadableDbError(name, error);
    });
}

/** Applies migrations, each with its row of history in one transaction. */
export async function migrate(db: Db, pending: Migration[]): Promise<void> {
  for (const { number, name, sql, checksum } of pending) {
    await db.transaction(async (tx) => {
      await tx.run('insert into schema_history (number, name, checksum) values ($1, $2, $3)', [number, name, checksum]);
      for (const statement of statementsOf(sql)) await tx.run(statement);
    });
  }
}

/** The statements of a script. In ours a semicolon inside a statement stands only between `$$`. */
function statementsOf(sql: string): string[] {
  const bare = sql
    .split('\n')
    .filter((line) => !line.trimStart().startsWith('--'))
    .join('\n');
  return (bare.match(/(?:\$\$[\s\S]*?\$\$|[^;])+/g) ?? [])
    .map((statement) => statement.trim())
    .filter((statement) => statement !== '');
}
