/**
 * Makes a data folder hold the demo: seeds an empty one, dates an untouched one anew when its day has passed, leaves any
 * other alone. With `--reset` it begins afresh.
 *
 * Environment: BIMLO_DATA, BIMLO_NETWORK_STORE, BIMLO_NOW.
 */
import { gatherStatistics } from '@/data/database/statistics';
import { existsSync } from 'node:fs';
import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import { listBrands } from '@/data/brands/brands';
import { maybeFact } from '@/data/folder/facts';
import { takeFolder, type DataFolder } from '@/data/folder/folder';
import { existsDeedOfPerson } from '@/data/posts/history';
import { dataRoot, openFolderDb } from '@/runtime/bimlo';
import { clockFrom } from '@/runtime/clock';
import { endLeftOver } from '@/standins/network/leftOver';
import { openNetworkStore } from '@/standins/network/store';
import { DEMO_DAY, demoDay, seedDemo } from './seed';

const clock = clockFrom(process.env.BIMLO_NOW);
const networkFolder = process.env.BIMLO_NETWORK_STORE ?? join(dataRoot(), 'networks');

async function prepare(folder: DataFolder): Promise<void> {
  if (process.argv.includes('--reset')) await clear(folder);
  let db = await openFolderDb(folder, clock);
  const day = await maybeFact(db, DEMO_DAY);
  const isOutdated = day !== undefined && day !== demoDay(clock.now()) && !(await existsDeedOfPerson(db));
  if (isOutdated) {
    await db.close();
    await clear(folder);
    db = await openFolderDb(folder, clock);
  }
  const isEmpty = (await listBrands(db)).length === 0;
  if (isEmpty) {
    const networks = await openNetworkStore(networkFolder);
    await seedDemo(db, folder.media, networks, clock.now());
    await networks.close();
    await gatherStatistics(db);
    console.log(`Demo data for ${demoDay(clock.now())} is in ${folder.root}`);
  }
  await db.close();
}

async function clear(folder: DataFolder): Promise<void> {
  for (const path of [folder.db, join(folder.root, 'set-up-finished'), networkFolder])
    if (existsSync(path)) await rm(path, { recursive: true });
}

try {
  const folder = await takeFolder(dataRoot());
  if (process.env.BIMLO_NETWORK_URL) await endLeftOver(process.env.BIMLO_NETWORK_URL, networkFolder);
  await prepare(folder);
  await folder.release();
  process.exit(0);
} catch (error) {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
}
