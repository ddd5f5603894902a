/** Puts a snapshot in the database's place: `npm run restore -- <name>`; without a name it lists what there is. */
import { listRestorable, restoreSnapshot } from '@/data/folder/snapshots';
import { takeFolder } from '@/data/folder/folder';
import { dataRoot } from '@/runtime/bimlo';

try {
  const folder = await takeFolder(dataRoot(), { toRestore: true });
  const name = process.argv[2];
  if (name) {
    const { movedTo } = await restoreSnapshot(folder, name);
    console.log(`${name} is the database now.${movedTo ? ` What stood there is in ${movedTo}.` : ''}`);
  } else {
    const names = await listRestorable(folder);
    console.log(
      names.length > 0
        ? `What can be put in place, of ${folder.root}:\n  ${names.join('\n  ')}`
        : 'There is no snapshot yet.',
    );
  }
  await folder.release();
} catch (error) {
  console.error(error instanceof Error ? error.message : error);
  process.exitCode = 1;
}
