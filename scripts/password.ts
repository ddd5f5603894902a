/** Sets somebody’s password while Bimlo is stopped: `npm run password -- <name>`. It is asked for, or read from a pipe. */
import { createInterface } from 'node:readline/promises';
import { Writable } from 'node:stream';
import { takeFolder } from '@/data/folder/folder';
import { clockFrom } from '@/runtime/clock';
import { dataRoot, openFolderDb } from '@/runtime/bimlo';
import { setPasswordOf } from '@/usecases/signIn/setPasswordOf';

/** Reads a line that is not shown while it is typed. */
async function readUnseen(question: string): Promise<string> {
  process.stderr.write(question);
  const nowhere = new Writable({ write: (_part, _encoding, done) => done() });
  const line = createInterface({ input: process.stdin, output: nowhere, terminal: process.stdin.isTTY });
  const typed = await new Promise<string>((resolve) => {
    line.once('line', resolve);
    line.once('close', () => resolve(''));
  });
  line.close();
  process.stderr.write('\n');
  return typed;
}

try {
  const name = process.argv.slice(2).join(' ').trim();
  if (name === '') throw new Error('Say whose: npm run password -- <name>');
  const clock = clockFrom(process.env.BIMLO_NOW);
  const folder = await takeFolder(dataRoot());
  try {
    const db = await openFolderDb(folder, clock);
    const set = await setPasswordOf({ db, clock }, name, () => readUnseen(`A new password for ${name}: `));
    await db.close();
    if (!set.ok) throw new Error(set.refusal.message);
    console.log(`${set.value.name} signs in as ${set.value.slug} with it, and is signed out everywhere.`);
  } finally {
    await folder.release();
  }
} catch (error) {
  console.error(error instanceof Error ? error.message : error);
  process.exitCode = 1;
}
