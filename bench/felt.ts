import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import config from '../playwright.config';
import prepare from '../tests/support/prepare';
import { startServer, type TestServer } from '../tests/support/server';
import { betterOfOthers } from './arrangements';
import { AS_PERSON, BRAND } from './data';
import { figureLine, percentile, ratioLine, type Line } from './figures';

const ROUNDS = 9;
const WARM_UPS = 2;
const DEMO = '/fennel-moor';
/** Posts of the full month. */
const MONTH = 700;
/** How long a page is left alone before it is measured, in milliseconds: what it fetches ahead is there by then. */
const REST_MS = 1_000;

/** Places of the rail, the shelf as the one that the others are held against. */
const PLACES = ['Desk', 'Ideas', 'Calendar', 'Pieces', 'Departures', 'Library'] as const;
const FLOOR = 'Shelf';
/** What a place may take where the shelf takes 55 ms. */
const PLACE_LIMIT = Math.round((150 / 55) * 100) / 100;

/** The application as it is felt: from the click to the first frame in which the result stands, on the demo’s data. */
export async function benchFelt(root: string): Promise<Line[]> {
  await prepare();
  const lines = await on(await startServer(), async (page, url) => {
    await page.goto(`${url}${DEMO}/calendar?as=month`);
    await page.waitForLoadState('networkidle');
    return [...(await places(page)), ...(await switching(page, `${url}${DEMO}/calendar`))];
  });
  const others = await betterOfOthers(root, MONTH);
  const month = await on(await startServer({ ...AS_PERSON }, join(root, 'data')), (page, url) =>
    fullMonth(page, `${url}/${BRAND}/calendar`, others),
  );
  return [...lines, ...month];
}

/** Runs something on a page of a server’s, and ends both. */
async function on(server: TestServer, work: (page: Page, url: string) => Promise<Line[]>): Promise<Line[]> {
  const browser = await chromium.launch(config.use!.launchOptions);
  try {
    // What is measured is told to the page as text, which its policy would refuse to run.
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, bypassCSP: true });
    await page.addInitScript('globalThis.__name = (made) => made');
    return await work(page, server.url);
  } finally {
    await browser.close();
    await server.end();
  }
}

/** Milliseconds from a click to the first painted frame in which `isThere` holds. Both are texts of functions run in the page. */
const clickToPainted = (page: Page, click: string, isThere: string): Promise<number> =>
  page.evaluate(
    ([press, holds]) =>
      new Promise<number>((resolve) => {
        const isDone = (0, eval)(holds!) as () => boolean;
        const start = performance.now();
        (0, eval)(press!)();
        const look = () =>
          requestAnimationFrame(() => {
            const channel = new MessageChannel();
            channel.port1.onmessage = () => (isDone() ? resolve(performance.now() - start) : look());
            channel.port2.postMessage(null);
          });
        look();
      }),
    [click, isThere],
  );

const toPlace = (page: Page, label: string): Promise<number> =>
  clickToPainted(
    page,
    `() => [...document.querySelectorAll('.rail a')].find((a) => a.textContent === ${JSON.stringify(label)}).click()`,
    `() => document.querySelector('.rail [aria-current="page"]')?.textContent === ${JSON.stringify(label)} && document.querySelector('main h1') !== null`,
  );

async function places(page: Page): Promise<Line[]> {
  const measured = new Map<string, number[]>();
  for (let round = -WARM_UPS; round < ROUNDS; round++)
    for (const label of [...PLACES, FLOOR]) {
      const ms = await toPlace(page, label);
      await page.waitForLoadState('networkidle');
      await page.waitForTimeout(150);
      if (round >= 0) measured.set(label, [...(measured.get(label) ?? []), ms]);
    }
  const floor = percentile(measured.get(FLOOR)!, 50);
  return PLACES.map((label) =>
    ratioLine(
      `${label}, from the click in the rail to painted, to the shelf`,
      percentile(measured.get(label)!, 50),
      floor,
      PLACE_LIMIT,
    ),
  );
}

/** Milliseconds from a click to painted on the calendar at an address, opened anew each time and left until it is at rest; the median. */
async function fromRest(page: Page, address: string, click: string, isThere: string): Promise<number> {
  const all: number[] = [];
  for (let round = -WARM_UPS; round < ROUNDS; round++) {
    await page.goto(address);
    await page.waitForLoadState('networkidle');
    await page.waitForTimeout(REST_MS);
    const ms = await clickToPainted(page, click, isThere);
    if (round >= 0) all.push(ms);
  }
  return percentile(all, 50);
}

const press = (name: string) =>
  `() => [...document.querySelectorAll('main button, main a')].find((one) => (one.getAttribute('aria-label') ?? one.textContent).includes(${JSON.stringify(name)})).click()`;

async function switching(page: Page, calendar: string): Promise<Line[]> {
  const month = `${calendar}?as=month`;
  const toLanes = await fromRest(page, month, press('Lanes'), `() => document.querySelector('.lanes') !== null`);
  const toList = await fromRest(
    page,
    month,
    press('List'),
    `() => document.querySelector('.list-row [data-post]') !== null`,
  );
  return [
    figureLine('switching from the month to lanes', toLanes, 200, 'ms'),
    ratioLine('switching from the month to the list, to switching to lanes', toList, toLanes, 1.5),
    figureLine('a frame while the list is scrolled, p95', await listFrames(page, `${calendar}?as=list`), 20, 'ms'),
  ];
}

/** The 95th percentile of the times between frames while the list is scrolled from its end to its beginning, in milliseconds. */
async function listFrames(page: Page, address: string): Promise<number> {
  await page.goto(address);
  await page.waitForLoadState('networkidle');
  await page.waitForTimeout(REST_MS);
  const frames = await page.evaluate(
    () =>
      new Promise<number[]>((resolve) => {
        const list = document.querySelector('.list-rows')!;
        list.scrollTop = list.scrollHeight;
        const times: number[] = [];
        let last = 0;
        const frame = (now: number) => {
          if (last > 0) times.push(now - last);
          last = now;
          list.scrollTop -= 40;
          if (list.scrollTop > 0 && times.length < 240) requestAnimationFrame(frame);
          else resolve(times);
        };
        requestAnimationFrame(frame);
      }),
  );
  return percentile(frames, 95);
}

/** A full month of the whole application against calendar components that have their posts in memory. */
async function fullMonth(page: Page, calendar: string, others: { navigation: number; next: number }): Promise<Line[]> {
  const address = `${calendar}?as=month&date=2026-11-01`;
  const navigations: number[] = [];
  for (let round = -WARM_UPS; round < ROUNDS; round++) {
    await page.goto('about:blank');
    const start = performance.now();
    await page.goto(address, { waitUntil: 'commit' });
    await page.waitForFunction(() => document.querySelector('td[data-date="2026-11-16"] [data-post]') !== null);
    if (round >= 0) navigations.push(performance.now() - start);
    await page.waitForLoadState('networkidle');
  }
  const next = await fromRest(
    page,
    address,
    press('Period after'),
    `() => document.querySelector('td[data-date="2026-12-16"]') !== null && document.querySelector('h1').textContent.includes('December')`,
  );
  const what = `a month of ${MONTH} posts in the whole application, to the better of two components with theirs in memory`;
  return [
    ratioLine(`${what}, from navigation to painted`, percentile(navigations, 50), others.navigation, 1.3),
    ratioLine('… the next month', next, others.next, 1),
  ];
}
