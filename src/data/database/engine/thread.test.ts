import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { openThread } from './thread';

const begin = `import { parentPort } from 'node:worker_threads'; parentPort.postMessage({ ready: true });`;

it.each([
  ['breaks', `parentPort.on('message', () => { throw new Error('page lost'); });`, 'page lost'],
  ['ends', `parentPort.on('message', () => process.exit(0));`, 'The database’s thread has ended.'],
])(
  'a thread that %s is told once with the reason, and whoever waits or comes later learns it',
  async (_name, then, reason) => {
    const folder = await mkdtemp(join(tmpdir(), 'bimlo-thread-'));
    const program = join(folder, 'program.mjs');
    await writeFile(program, `${begin} ${then}`);
    const told: string[] = [];
    const engine = await openThread(folder, (why) => told.push(why.message), program);
    await expect(engine.exec('select 1')).rejects.toThrow(reason);
    await expect(engine.exec('select 1')).rejects.toThrow(reason);
    await expect.poll(() => told).toEqual([reason]);
    await rm(folder, { recursive: true });
  },
);
