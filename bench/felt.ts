import { chromium, type Page } from '@playwright/test';
import config from '../playwright.config';
import prepare from '../tests/support/prepare';
import { startServer } from '../tests/support/server';
import { figureLine, percentile, ratioLine, type Line } from './figures';

const ROUNDS = 9;
const WARM_UPS = 2;
const BRAND = '/fennel-moor';

/** Places of the rail, the shelf as the one that the others are held against. */
const PLACES = ['Desk', 'Ideas', 'Calendar', 'Pieces', 'Departures', 'Library'] as const;
const FLOOR = 'Shelf';
/** What a place may take where the shelf takes 55 ms. */
const PLACE_LIMIT = Math.round((150 / 55) * 100) / 100;

/** The application as it is felt: from the click to the first frame in which the result stands, on the demo’s data. */
export async function benchFelt(): Promise<Line[]> {
  prepare();
  const server = await startServer();
  const browser = await chromium.launch(config.use!.launchOptions);
  try {
    // What is measured is told to the page as text, which its policy would refuse to run.
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, bypassCSP: true });
    await page.addInitScript('globalThis.__name = (made) => made');
    await page.goto(`${server.url}${BRAND}/calendar?as=month`);
    await page.waitForLoadState('networkidle');
    return [...(await places(page)), ...(await calendar(page, server.url))];
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

async function calendar(page: Page, url: string): Promise<Line[]> {
  const of = async (query: string, click: string, isThere: string): Promise<number> => {
    const all: number[] = [];
    for (let round = -WARM_UPS; round < ROUNDS; round++) {
      await page.goto(`${url}${BRAND}/calendar?${query}`);
      await page.waitForLoadState('networkidle');
      await page.waitForTimeout(1_000);
      const ms = await clickToPainted(page, click, isThere);
      if (round >= 0) all.push(ms);
    }
    return percentile(all, 50);
  };
  const press = (name: string) =>
    `() => [...document.querySelectorAll('main button, main a')].find((one) => (one.getAttribute('aria-label') ?? one.textContent).includes(${JSON.stringify(name)})).click()`;
  const next = await of(
    'as=month&date=2026-11-01',
    press('Period after'),
    `() => document.querySelector('td[data-date="2026-12-16"]') !== null && document.querySelector('h1').textContent.includes('December')`,
  );
  const toLanes = await of('as=month', press('Lanes'), `() => document.querySelector('.lanes') !== null`);
  const toList = await of('as=month', press('List'), `() => document.querySelector('.list-row [data-post]') !== null`);
  return [
    figureLine('the next month, from the click to painted', next, 170, 'ms'),
    figureLine('switching to lanes', toLanes, 200, 'ms'),
    ratioLine('switching to the list, to switching to lanes', toList, toLanes, 1.5),
  ];
}
