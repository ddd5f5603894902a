import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { TestProject } from 'vitest/node';
import { bundleThreads } from '../../../scripts/lib/bundles.mjs';
import { openDb } from './db';
import { migrate, pendingMigrations, readMigrations } from './migrate';

declare module 'vitest' {
  interface ProvidedContext {
    /** Path of a database's content with the schema in it, which tests open copies of. */
    templatePath: string;
  }
}

/** Where threads and processes that tests start find what they run: inside the project, where packages are found. */
const BUNDLES = 'node_modules/.cache/bimlo-tests';

/**
 * Makes what takes seconds once for all tests: a migrated database, since the first boot takes long and a copy does not, and the
 * bundles of what threads and processes run.
 */
export default async function makeTemplate(project: TestProject): Promise<() => Promise<void>> {
  await bundleThreads(BUNDLES);
  process.env.BIMLO_BUNDLES = BUNDLES;
  const folder = await mkdtemp(join(tmpdir(), 'bimlo-test-'));
  const path = join(folder, 'template.tar');
  const db = await openDb('memory');
  await migrate(db, await pendingMigrations(db, await readMigrations()));
  await writeFile(path, Buffer.from(await (await db.dump()).arrayBuffer()));
  await db.close();
  project.provide('templatePath', path);
  return () => rm(folder, { recursive: true });
}
