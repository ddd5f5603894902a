import { openAsBlob } from 'node:fs';
import { inject } from 'vitest';
import { openDb, type Db } from './db';

/** A database in memory with the schema and nothing else, for one test. */
export async function openTestDb(): Promise<Db> {
  return openDb('memory', await openAsBlob(inject('templatePath')));
}
