/**
 * Hostile texts and pictures against the built application: `npm run bench:hostile`. Each is brought in while a page is asked for every
 * 50 ms; prints what was answered, after how long, the longest gap of those answers, and whether the piece can be opened afterwards. Ends
 * with 1 where an answer took longer than it may, a gap was longer than `MOST_GAP_MS`, or a piece cannot be opened.
 */
import { readFile } from 'node:fs/promises';
import sharp from 'sharp';
import prepare from '../tests/support/prepare';
import { startServer } from '../tests/support/server';
import { brandIdOf } from './planted';

const PING_MS = 50;
const MOST_GAP_MS = 300;
/** Milliseconds after which a text of 100 KB, and a picture, have to be answered: their limits, and what lies around them. */
const MOST = { text: 4_000, picture: 25_000 } as const;
const SIZE = 100_000;

const TOKENS = [
  ...[
    '*a ',
    '**a *b ',
    '_a ',
    '> ',
    '> a\n',
    '[',
    '[a](',
    '![',
    '<div>',
    '<',
    '`',
    '``a ',
    '- a\n  ',
    '- ',
    '1. ',
    '# ',
  ],
  ...[
    'a\n\n',
    '| a ',
    '|-',
    '~~a ',
    '&amp;',
    '\\',
    '[a]: b\n',
    '***',
    '===\n',
    '    ',
    ' ',
    '\t',
    'a',
    '<!-- ',
    '[^1]',
    'http://a.b ',
  ],
];
const repeated = (token: string) => token.repeat(Math.ceil(SIZE / token.length)).slice(0, SIZE);
const mixed = (seed: number) =>
  Array.from({ length: SIZE / 4 }, (_, at) => TOKENS[(at * 7 + seed * at * at) % TOKENS.length]!)
    .join('')
    .slice(0, SIZE);

const filters = (count: number) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="3000" height="3000"><filter id="f" x="0" y="0" width="1" height="1">${'<feTurbulence baseFrequency="0.9" numOctaves="200"/><feGaussianBlur stdDeviation="300"/>'.repeat(count)}</filter><rect width="3000" height="3000" filter="url(#f)"/></svg>`;
const uses = Array.from(
  { length: 12 },
  (_, level) => `<g id="g${level + 1}">${`<use href="#g${level}"/>`.repeat(10)}</g>`,
);

await prepare();
const server = await startServer({ BIMLO_LOG: 'silent' });
await server.kill();
const brandId = await brandIdOf(server);
await server.start();
const headers = { origin: server.url };
const rows: string[][] = [];
let failed = 0;

await text('an ordinary text, the first after the start', 'The rings of **the planet** are thin.', 'a.md');
// What a cold server takes is shown, and not judged here.
failed = 0;
for (const token of TOKENS) await text(`${JSON.stringify(token)} × ${SIZE / 1_000} KB`, repeated(token), 'a.md');
for (const seed of [1, 2, 3]) await text(`mixed ${seed}`, mixed(seed), 'a.md');
await text('20,000 nested <div>', `<html><body>${'<div>'.repeat(20_000)}rings`, 'a.html');
await text(
  '30,000 words',
  `${'The rings of **the planet** are thin, as the [log](https://a.example) says. '.repeat(2_300)}`,
  'a.md',
);
await picture('a filter that takes minutes, 1.2 KB', Buffer.from(filters(8)), 'a.svg');
await Promise.all(
  Array.from({ length: 6 }, (_, n) =>
    picture(`the same, six at once (${n + 1})`, Buffer.from(filters(8)), `a${n}.svg`),
  ),
);
await picture('50 filter effects', Buffer.from(filters(25)), 'b.svg');
await picture(
  '10^12 repeated parts',
  Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><g id="g0"><rect width="9" height="9"/></g>${uses.join('')}<use href="#g12"/></svg>`,
  ),
  'c.svg',
);
await picture(
  'a plain picture afterwards',
  await sharp({ create: { width: 800, height: 600, channels: 3, background: '#134e5e' } })
    .png()
    .toBuffer(),
  'd.png',
);
await picture('a video cut off', (await readFile('demo/videos/dome-tall.mp4')).subarray(0, -2_000), 'e.mp4');
await picture(
  'half a JPEG',
  (
    await sharp({
      create: {
        width: 2_000,
        height: 2_000,
        channels: 3,
        background: '#134e5e',
        noise: { type: 'gaussian', mean: 120, sigma: 40 },
      },
    })
      .jpeg()
      .toBuffer()
  ).subarray(0, 200_000),
  'f.jpg',
);
for (const address of [
  '/who?brand=%00',
  '/fennel-moor/calendar?q=%00',
  '/fennel-moor/pieces?q=%00',
  '/%00/calendar',
  `/standins/pictures/${'a'.repeat(64)}`,
])
  await address_(address);
await ended();
await server.end();

console.log(`\n| what | answered | after | longest gap of a ping | opens |\n| --- | --- | --- | --- | --- |`);
for (const row of rows) console.log(`| ${row.join(' | ')} |`);
console.log(`\n${rows.length} tried, ${failed} not as they should be`);
process.exit(failed > 0 ? 1 : 0);

/** Does something while a page is asked for every 50 ms. */
async function pinged<T>(work: () => Promise<T>): Promise<{ value: T; ms: number; gap: number }> {
  let [gap, isOver] = [0, false];
  const pinging = (async () => {
    while (!isOver) {
      const start = performance.now();
      await (await fetch(`${server.url}/icon.svg`)).arrayBuffer();
      gap = Math.max(gap, performance.now() - start);
      await new Promise((resolve) => setTimeout(resolve, PING_MS));
    }
  })();
  const start = performance.now();
  const value = await work();
  const ms = performance.now() - start;
  isOver = true;
  await pinging;
  return { value, ms, gap };
}

function note(what: string, answered: string, ms: number, gap: number, opens: string, isRight: boolean): void {
  if (!isRight) failed++;
  rows.push([
    what.replaceAll('|', '\\|').replaceAll('\n', '↵'),
    answered,
    `${Math.round(ms)} ms`,
    `${Math.round(gap)} ms`,
    opens,
  ]);
  console.log(rows.at(-1)!.join(' · '), isRight ? '' : '  <-- NOT AS IT SHOULD BE');
}

async function answerOf(response: Response): Promise<string> {
  const body = (await response.json().catch(() => ({}))) as { refusal?: { code: string } };
  return response.ok ? 'taken' : `${response.status} ${body.refusal?.code ?? ''}`.trim();
}

/** A new piece. */
async function piece(): Promise<{ id: string; version: number }> {
  const response = await fetch(`${server.url}/api/pieces`, {
    method: 'POST',
    headers,
    body: JSON.stringify({ brandId, title: 'Hostile' }),
  });
  if (!response.ok) throw new Error(await response.text());
  return (await response.json()) as { id: string; version: number };
}

async function text(what: string, source: string, name: string): Promise<void> {
  const [file, typed] = [await piece(), await piece()];
  const { value, ms, gap } = await pinged(async () =>
    answerOf(
      await fetch(`${server.url}/api/pieces/${file.id}/source`, {
        method: 'POST',
        headers: { ...headers, 'x-file-name': name, 'if-match': `"${file.version}"` },
        body: source,
      }),
    ),
  );
  // What is refused as a file may be typed: the piece has to open all the same.
  await fetch(`${server.url}/api/pieces/${typed.id}`, {
    method: 'PATCH',
    headers,
    body: JSON.stringify({ version: typed.version, sourceText: source }),
  });
  const opening = await pinged(async () => (await fetch(`${server.url}/fennel-moor/pieces/${typed.id}`)).status);
  const longest = Math.max(gap, opening.gap);
  const isRight = ms <= MOST.text && longest <= MOST_GAP_MS && opening.value === 200 && !value.startsWith('5');
  note(what, value, ms, longest, `${opening.value} in ${Math.round(opening.ms)} ms`, isRight);
}

async function picture(what: string, bytes: Buffer, name: string): Promise<void> {
  const { value, ms, gap } = await pinged(async () =>
    answerOf(
      await fetch(`${server.url}/api/library?brand=${brandId}`, {
        method: 'POST',
        headers: { ...headers, 'x-file-name': name, 'content-type': 'application/octet-stream' },
        body: new Uint8Array(bytes),
      }),
    ),
  );
  note(what, value, ms, gap, '', ms <= MOST.picture && gap <= MOST_GAP_MS && !/^5|^404/.test(value));
}

async function address_(address: string): Promise<void> {
  const { value, ms, gap } = await pinged(async () => (await fetch(`${server.url}${address}`)).status);
  note(address, String(value), ms, gap, '', value < 500);
}

/** SIGTERM while a drawing is drawn. */
async function ended(): Promise<void> {
  const drawing = fetch(`${server.url}/api/library?brand=${brandId}`, {
    method: 'POST',
    headers: { ...headers, 'x-file-name': 'z.svg' },
    body: filters(8),
  }).catch(() => undefined);
  await new Promise((resolve) => setTimeout(resolve, 1_000));
  const start = performance.now();
  await server.terminate();
  const ms = performance.now() - start;
  note('SIGTERM while a drawing is drawn', 'ended', ms, 0, '', ms <= 5_000);
  await drawing;
}
