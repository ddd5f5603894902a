import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { TestProject } from 'vitest/node';
import { openDb } from './db';
import { migrate, pendingMigrations, readMigrations } from './migrate';

declare module 'vitest' {
  interface ProvidedContext {
    /** Path of a database's content with the schema in it, which tests open copies of. */
    templatePath: string;
  }
}

/** Makes one migrated database for all tests, since the first boot takes seconds and a copy does not. */
export default async function makeTemplate(project: TestProject): Promise<() => Promise<void>> {
  const folder = await mkdtemp(join(tmpdir(), 'bimlo-test-'));
  const path = join(folder, 'template.tar');
  const db = await openDb('memory');
  await migrate(db, await pendingMigrations(db, await readMigrations()));
  await writeFile(path, Buffer.from(await (await db.dump()).arrayBuffer()));
  await db.close();
  project.provide('templatePath', path);
  return () => rm(folder, { recursive: true });
}
