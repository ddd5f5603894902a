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

/**
 * Ends made-up networks that outlived the Bimlo which started them. The folder is ours alone by now, so nobody uses them.
 */
async function endLeftOverNetworks(): Promise<void> {
  const url = process.env.BIMLO_NETWORK_URL;
  if (!url) return;
  try {
    const found = (await (await fetch(url)).json()) as { storeFolder?: string };
    if (found.storeFolder !== networkFolder) return;
    await fetch(`${url}/stop`, { method: 'POST' });
    console.log('Ended the made-up networks of an earlier start.');
  } catch (error) {
    // fetch throws a TypeError when nothing listens, which is how it should be; JSON of another program is a SyntaxError.
    if (!(error instanceof TypeError || error instanceof SyntaxError)) throw error;
  }
}

async function clear(folder: DataFolder): Promise<void> {
  for (const path of [folder.db, join(folder.root, 'set-up-finished'), networkFolder])
    if (existsSync(path)) await rm(path, { recursive: true });
}

try {
  const folder = await takeFolder(dataRoot());
  await endLeftOverNetworks();
  await prepare(folder);
  await folder.release();
  process.exit(0);
} catch (error) {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
}
