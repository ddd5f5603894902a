import { execFileSync } from 'node:child_process';
import { cpSync, mkdirSync, rmSync } from 'node:fs';
import { basename, join } from 'node:path';
import { openOnDisk } from '../../src/data/database/engine/onDisk.mjs';
import { EMPTY_TEMPLATE, NOW, startServer, TEMPLATE } from './server';

/** Makes the data folders that tests start copies of: one with the demo, and one in which nobody has begun. */
export default async function prepare(): Promise<void> {
  for (const folder of [TEMPLATE, EMPTY_TEMPLATE]) rmSync(folder, { recursive: true, force: true });
  execFileSync(process.execPath, ['--import', 'tsx', 'demo/prepare.ts'], {
    stdio: 'inherit',
    env: { ...process.env, BIMLO_DATA: TEMPLATE, BIMLO_NETWORK_STORE: `${TEMPLATE}/networks`, BIMLO_NOW: NOW },
  });
  mkdirSync(EMPTY_TEMPLATE);
  await Promise.all([TEMPLATE, EMPTY_TEMPLATE].map(settle));
}

/**
 * Lets happen in a data folder what a first start does by itself, from the database to the day's snapshot, so that no copy of it
 * has to. That it ran is forgotten: Bimlo tells a folder that ran elsewhere and keeps back what waits in it.
 */
async function settle(folder: string): Promise<void> {
  const server = await startServer({}, folder);
  await server.goTo(NOW);
  await server.terminate();
  rmSync(folder, { recursive: true });
  cpSync(server.data, folder, { recursive: true, filter: (path) => !basename(path).startsWith('ran-') });
  await server.end();
  const db = await openOnDisk(join(folder, 'db'));
  await db.query(`delete from folder_facts where key in ('run', 'last-seen')`);
  await db.close();
}
