/** How long a clip takes to be cut, against the library's bare conversion of the same stretch in the same run: `npm run bench:clips`. */
import { writeFileSync } from 'node:fs';
import { chromium } from '@playwright/test';
import { build } from 'esbuild';
import config from '../playwright.config';

/** Seconds of the recording, and of the clips cut out of it. */
const RECORDING_S = 2_520;
const CLIPS_S = [60, 2_400];
/** What a cut may take, in times of the bare conversion. */
const MOST = 2;

const seconds = Number(process.argv[2] ?? RECORDING_S);
const { outputFiles } = await build({
  ...{ entryPoints: ['bench/browser/clips.ts'], bundle: true, write: false, format: 'esm', target: 'es2022' },
  tsconfig: 'tsconfig.json',
  logLevel: 'error',
});
const browser = await chromium.launch(config.use!.launchOptions);
const page = await browser.newPage();
// Only a page that is secure may encode.
await page.route('http://127.0.0.1:1/', (route) =>
  route.fulfill({ contentType: 'text/html', body: '<title>clips</title>' }),
);
await page.goto('http://127.0.0.1:1/');
await page.addScriptTag({ content: outputFiles[0]!.text, type: 'module' });
await page.waitForFunction('window.clips');
const timed = (code: string) =>
  page.evaluate(async (text) => {
    const began = performance.now();
    const made = (await (0, eval)(text)) as ArrayBuffer | Blob;
    const bytes = made instanceof Blob ? made.size : made.byteLength;
    return { ms: performance.now() - began, bytes };
  }, code);

const recorded = await timed(`clips.record(${seconds}).then((made) => (window.made = made))`);
console.log(
  `a recording of ${seconds} s, ${Math.round(recorded.bytes / 1e6)} MB, made in ${Math.round(recorded.ms / 1e3)} s`,
);
if (process.argv[3]) {
  const bytes = await page.evaluate(`made.arrayBuffer().then((b) => Array.from(new Uint8Array(b)))`);
  writeFileSync(process.argv[3], Buffer.from(bytes as number[]));
}
let isBroken = false;
for (const length of CLIPS_S.filter((one) => one < seconds)) {
  const [from, to] = [40_000, 40_000 + length * 1_000];
  const bare = await timed(`clips.convert(made, ${from}, ${to})`);
  const cut = await timed(`clips.cut(made, ${from}, ${to})`);
  const ratio = cut.ms / bare.ms;
  isBroken ||= ratio > MOST;
  console.log(
    `a clip of ${length} s: cut in ${(cut.ms / 1e3).toFixed(1)} s, bare conversion ${(bare.ms / 1e3).toFixed(1)} s: ${ratio.toFixed(2)} times (at most ${MOST})`,
  );
}
await browser.close();
process.exit(isBroken ? 1 : 0);
