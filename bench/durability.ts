import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PGlite } from '@electric-sql/pglite';
import { openOnDisk } from '@/data/database/engine/onDisk.mjs';
import { compare, ratioLine, type Line } from './figures';

const WRITES = 50;

/** What it costs that every write is on the disk before it is answered, against the database as it comes. */
export async function benchDurability(): Promise<Line[]> {
  const root = mkdtempSync(join(tmpdir(), 'bimlo-durable-'));
  const synced = await openOnDisk(join(root, 'synced'));
  const asItComes = await PGlite.create(join(root, 'as-it-comes'));
  for (const lite of [synced, asItComes]) await lite.exec('create table said (word text)');
  const writing = (lite: PGlite) => async () => {
    for (let n = 0; n < WRITES; n++) await lite.query('insert into said values ($1)', ['yes']);
  };
  const { workMs, floorMs } = await compare(writing(synced), writing(asItComes));
  await Promise.all([synced.close(), asItComes.close()]);
  rmSync(root, { recursive: true });
  return [ratioLine(`${WRITES} writes, each on the disk before it is answered, against none`, workMs, floorMs, 4)];
}
