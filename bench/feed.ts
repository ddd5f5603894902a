import ical from 'ical-generator';
import ICAL from 'ical.js';
import { join } from 'node:path';
import { noteSetUp, takeFolder } from '@/data/folder/folder';
import { insertFeed } from '@/data/feeds/feeds';
import { hashOfKey, newKey } from '@/data/signIn/keys';
import { openFolderDb } from '@/runtime/bimlo';
import { feedEvents, readFeed } from '@/usecases/feeds/feedText';
import { fill } from './data';
import { compare, ratioLine, type Line } from './figures';

const ENTRIES = 5_000;
const NOW = '2026-11-23T12:00:00.000Z';

/** A feed of 5,000 entries, against the writing package's own time for the same events; another parser has to find all of them. */
export async function benchFeed(root: string): Promise<Line[]> {
  const folder = await takeFolder(join(root, 'feed'));
  const clock = { now: () => NOW };
  const db = await openFolderDb(folder, clock);
  const { brandId } = await fill(db, ENTRIES, ENTRIES);
  await noteSetUp(folder);
  const [{ id: personId } = { id: '' }] = await db.rows<{ id: string }>('select id from people');
  const key = newKey();
  const feed = { id: crypto.randomUUID(), personId, brandId, madeAt: NOW, usedAt: null };
  await insertFeed(db, { ...feed, keyHash: hashOfKey(key) });
  const text = (await readFeed({ db, clock }, key)) ?? '';
  const found = new ICAL.Component(ICAL.parse(text) as ConstructorParameters<typeof ICAL.Component>[0]);
  const count = found.getAllSubcomponents('vevent').length;
  if (count !== ENTRIES) throw new Error(`another parser finds ${count} of ${ENTRIES} entries`);
  const events = await feedEvents(db, feed, [brandId], NOW);
  const { workMs, floorMs } = await compare(
    () => readFeed({ db, clock }, key),
    () => ical({ events }).toString(),
    { warmUps: 2, rounds: 9 },
  );
  await db.close();
  await folder.release();
  return [ratioLine('a feed of 5,000 entries, to the package that writes it', workMs, floorMs, 3)];
}
