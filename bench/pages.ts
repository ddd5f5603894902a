import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { chromium, type Page } from '@playwright/test';
import config from '../playwright.config';
import { startServer } from '../tests/support/server';
import { AS_PERSON, BRAND } from './data';
import { figureLine, percentile, ratioLine, timed, type Line } from './figures';

const REQUESTS = 60;
const KEYSTROKES = 200;
const IDLE_MS = 30_000;

/** The calendar page with 700 slips of 100,000 posts: its server answer, its scripts, typing beside it, and memory. */
export async function benchPages(root: string): Promise<Line[]> {
  const server = await startServer({ ...AS_PERSON, BIMLO_BENCH: '1' }, join(root, 'data'));
  const process = async () =>
    (await (await fetch(`${server.url}/bench/process`)).json()) as { residentBytes: number; delayP99Ms: number };
  const read = (path: string) => async () =>
    (await fetch(`${server.url}/${BRAND}/${path}`, { redirect: 'error' })).text();
  const [page, constant] = [read('calendar?as=month&date=2026-11-01'), read('bench?date=2026-11-01')];
  for (let n = 0; n < 8; n++) {
    await page();
    await constant();
  }
  const pageMs: number[] = [];
  const constantMs: number[] = [];
  for (let n = 0; n < REQUESTS; n++) {
    pageMs.push(await timed(page));
    constantMs.push(await timed(constant));
  }
  // The difference of the two is what reading and judging 700 posts adds.
  await process();
  for (let n = 0; n < REQUESTS; n++) await constant();
  const constantDelay = (await process()).delayP99Ms;
  for (let n = 0; n < REQUESTS; n++) await page();
  const pageDelay = (await process()).delayP99Ms;
  const browser = await chromium.launch(config.use!.launchOptions);
  const { scriptBytes, keystrokesMs } = await inBrowser(
    await browser.newPage(),
    `${server.url}/${BRAND}/calendar?as=month&date=2026-11-01`,
  );
  await browser.close();
  await wait(IDLE_MS);
  const { residentBytes } = await process();
  await server.end();
  return [
    ratioLine(
      'calendar page with 700 slips, p95, to the same page from a constant',
      percentile(pageMs, 95),
      percentile(constantMs, 95),
      1.5,
    ),
    figureLine('first-load JavaScript of the calendar', scriptBytes / 1000, 300, 'kB'),
    figureLine('a keystroke in the sheet beside 700 slips, p95', percentile(keystrokesMs, 95), 16, 'ms'),
    figureLine('event-loop delay under page requests one by one, p99', pageDelay, 50, 'ms'),
    figureLine('… of the page from a constant, which reads no posts', constantDelay, 50, 'ms'),
    figureLine('resident memory with 100,000 posts, idle, snapshot taken', residentBytes / 1e6, 700, 'MB'),
  ];
}

async function inBrowser(page: Page, url: string): Promise<{ scriptBytes: number; keystrokesMs: number[] }> {
  const session = await page.context().newCDPSession(page);
  await session.send('Network.enable');
  const scripts = new Set<string>();
  let scriptBytes = 0;
  let isLoaded = false;
  session.on('Network.responseReceived', ({ requestId, type }) => {
    if (type === 'Script' && !isLoaded) scripts.add(requestId);
  });
  session.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
    if (scripts.has(requestId)) scriptBytes += encodedDataLength;
  });
  await page.goto(url, { waitUntil: 'load' });
  isLoaded = true;
  await page.waitForLoadState('networkidle');
  const firstLoad = scriptBytes;
  // The browser has taken the page over once the spoken announcements of dragging exist.
  await page.locator('[id^="DndLiveRegion"]').first().waitFor({ state: 'attached' });
  await page.locator('td [data-post]').first().click();
  const field = page.getByRole('textbox', { name: /Caption/ });
  await field.waitFor();
  const keystrokesMs = await field.evaluate((element, count) => {
    const area = element as HTMLTextAreaElement;
    const set = Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, 'value')!.set!;
    return Array.from({ length: count }, (_, n) => {
      const start = performance.now();
      set.call(area, `${area.value}${'abc 星🌠'[n % 5]}`);
      area.dispatchEvent(new InputEvent('input', { bubbles: true }));
      // Layout belongs to the work.
      void area.offsetHeight;
      return performance.now() - start;
    });
  }, KEYSTROKES);
  return { scriptBytes: firstLoad, keystrokesMs };
}
