/**
 * What the server takes after much work: `npm run bench:memory [idle minutes]`. Prints its resident size, with that of the processes it started, after
 * each step, 30 seconds idle.
 */
import { execFileSync } from 'node:child_process';
import sharp from 'sharp';
import prepare from '../tests/support/prepare';
import { startServer } from '../tests/support/server';
import { brandIdOf, DUE, plant } from './planted';

const idleMinutes = Number(process.argv[2] ?? 60);
const IDLE_MS = 30_000;
const POSTS = 2_000;
const PICTURES = 100;
const WORDS = 30_000;
const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

await prepare();
const server = await startServer({ BIMLO_BENCH: '1' });
await server.kill();
const brandId = await brandIdOf(server);
await plant(server, POSTS);
await server.start();
const headers = { origin: server.url };

/** Megabytes of a process, and of those it started. */
async function measure(what: string, idleMs = IDLE_MS): Promise<void> {
  await wait(idleMs);
  const { residentBytes } = (await (await fetch(`${server.url}/bench/process`)).json()) as { residentBytes: number };
  const children = execFileSync('ps', ['-eo', 'rss=,args='], { encoding: 'utf8' })
    .split('\n')
    .filter((line) => line.includes('data/native/program.mjs'))
    .reduce((sum, line) => sum + Number(line.trim().split(' ')[0]) / 1_024, 0);
  console.log(`| ${what} | ${Math.round(residentBytes / 1_048_576)} MB | ${Math.round(children)} MB |`);
}

console.log('| after | server | its processes for native work |\n| --- | --- | --- |');
await measure('the start');
await server.goTo(DUE);
await measure(`${POSTS} posts sent`);
for (let n = 0; n < PICTURES; n++) {
  const noise = { type: 'gaussian', mean: 120, sigma: 40 } as const;
  const bytes = await sharp({ create: { width: 2_000 + n, height: 1_500, channels: 3, background: '#134e5e', noise } })
    .jpeg()
    .toBuffer();
  const response = await fetch(`${server.url}/api/library?brand=${brandId}`, {
    method: 'POST',
    headers: { ...headers, 'x-file-name': `${n}.jpg` },
    body: new Uint8Array(bytes),
  });
  if (!response.ok) throw new Error(await response.text());
}
await measure(`${PICTURES} pictures taken in`);
const made = await fetch(`${server.url}/api/pieces`, {
  method: 'POST',
  headers,
  body: JSON.stringify({ brandId, title: 'Long' }),
});
const { id, version } = (await made.json()) as { id: string; version: number };
const sentence = 'The rings of the planet are thin, and every fifteen years they seem to be gone for a while. ';
await fetch(`${server.url}/api/pieces/${id}/source`, {
  method: 'POST',
  headers: { ...headers, 'x-file-name': 'long.md', 'if-match': `"${version}"` },
  body: sentence.repeat(Math.round(WORDS / 18)),
});
await (await fetch(`${server.url}/api/pieces/${id}/extracts`)).text();
await measure(`${WORDS} words read and taken apart`);
await measure(`${idleMinutes} minutes idle`, idleMinutes * 60_000);
await server.end();
