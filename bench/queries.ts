import { join } from 'node:path';
import { NO_FILTER } from '@/core/calendar/filter';
import { listPostLines, listPostsBetween } from '@/data/posts/postLines';
import { noteSetUp, takeFolder } from '@/data/folder/folder';
import { openFolderDb } from '@/runtime/bimlo';
import { fill, POSTS_OF_MONTH } from './data';
import { compare, ratioLine, type Line } from './figures';

/** Reading a month of 700 posts out of 100,000, against reading the same rows by primary key. Leaves the folder filled. */
export async function benchQueries(root: string): Promise<Line[]> {
  const folder = await takeFolder(join(root, 'data'));
  const db = await openFolderDb(folder, { now: () => '2026-11-23T12:00:00.000Z' });
  const { brandId } = await fill(db);
  await noteSetUp(folder);
  const scope = { brandIds: [brandId], filter: NO_FILTER, today: '2026-11-23' };
  const month = () => listPostsBetween(db, scope, '2026-10-26', '2026-12-06');
  const ids = (await month()).map((post) => post.id);
  if (ids.length !== POSTS_OF_MONTH) throw new Error(`the month holds ${ids.length} posts`);
  const lines = await compare(month, () => listPostLines(db, ids));
  const bare = await compare(month, () => db.rows('select * from posts where id = any($1::uuid[])', [ids]));
  await db.close();
  await folder.release();
  return [
    ratioLine(
      'a month of 700 out of 100,000, to the same rows with pictures and delivery by key',
      lines.workMs,
      lines.floorMs,
      2,
    ),
    ratioLine('… to the bare post rows by key', bare.workMs, bare.floorMs, 2),
  ];
}
