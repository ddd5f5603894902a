import { createServer } from 'node:http';
import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { AddressInfo } from 'node:net';
import { chromium, type Browser, type Page } from '@playwright/test';
import { build } from 'esbuild';
import { compile } from 'sass';
import config from '../playwright.config';
import { figureLine, percentile, ratioLine, type Line } from './figures';

const ROUNDS = 7;
const WARM_UPS = 1;
const PAGES = ['ours', 'plain', 'generalA', 'generalB'] as const;
type PageName = (typeof PAGES)[number];

/**
 * Drawing and dragging in the browser: the lanes and the month against static tables with the same cells and text, and
 * the month against the month views of two general-purpose calendar components, all with the same posts.
 */
export async function benchArrangements(root: string): Promise<Line[]> {
  const site = await buildPages(join(root, 'pages'));
  const browser = await chromium.launch(config.use!.launchOptions);
  try {
    const lines: Line[] = [];
    lines.push(
      await againstTable(
        browser,
        site.url,
        'lanes',
        500,
        2,
        'lanes, 12 channels × 7 days, 500 posts, first paint, to a static table',
      ),
    );
    lines.push(
      await againstTable(
        browser,
        site.url,
        'month',
        2_000,
        3,
        'month with 2,000 posts, first paint, to a static table',
      ),
    );
    for (const posts of [500, 2_000]) lines.push(...(await againstOthers(browser, site.url, posts)));
    return lines;
  } finally {
    await browser.close();
    await site.close();
  }
}

async function buildPages(folder: string): Promise<{ url: string; close: () => Promise<void> }> {
  await mkdir(folder, { recursive: true });
  await build({
    entryPoints: PAGES.map((name) => `bench/browser/${name}.ts${name === 'plain' ? '' : 'x'}`),
    outdir: folder,
    bundle: true,
    minify: true,
    format: 'iife',
    jsx: 'automatic',
    define: { 'process.env.NODE_ENV': '"production"', 'process.env': '{}' },
    loader: { '.svg': 'dataurl', '.woff2': 'empty' },
    logLevel: 'error',
  });
  const { css } = compile('src/ui/styles/theme.scss', {
    loadPaths: ['node_modules'],
    quietDeps: true,
    silenceDeprecations: ['import', 'global-builtin', 'color-functions', 'if-function'],
  });
  await writeFile(join(folder, 'theme.css'), css);
  const server = createServer((request, response) => {
    const { pathname } = new URL(request.url!, 'http://localhost');
    const name = pathname.slice(1);
    if ((PAGES as readonly string[]).includes(name)) {
      const styles = name === 'ours' ? 'theme.css' : name === 'plain' ? '' : `${name}.css`;
      response.setHeader('content-type', 'text/html');
      response.end(
        `<!doctype html><meta charset="utf-8">${styles ? `<link rel="stylesheet" href="/${styles}">` : ''}<body><div id="root"></div><script src="/${name}.js"></script>`,
      );
      return;
    }
    void readFile(join(folder, name)).then(
      (content) => {
        response.setHeader('content-type', name.endsWith('.css') ? 'text/css' : 'text/javascript');
        response.end(content);
      },
      () => {
        response.statusCode = 404;
        response.end();
      },
    );
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return {
    url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    close: () => new Promise((resolve) => server.close(() => resolve())),
  };
}

async function openPage(browser: Browser, url: string, name: PageName, arrangement: string): Promise<Page> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  page.on('pageerror', (error) => console.error(`${name}: ${error.message}`));
  await page.goto(`${url}/${name}?arrangement=${arrangement}`);
  await page.waitForFunction(() => 'compared' in window);
  return page;
}

const firstPaint = (page: Page, posts: number): Promise<number> =>
  page.evaluate((count) => window.firstPaintMs(count), posts);

/** Medians of several rounds, the pages in turn, warm-ups left out. */
async function inTurn<K extends string>(
  names: readonly K[],
  measureOne: (name: K) => Promise<number>,
): Promise<Record<K, number>> {
  const measured = Object.fromEntries(names.map((name) => [name, [] as number[]])) as Record<K, number[]>;
  for (let round = -WARM_UPS; round < ROUNDS; round++)
    for (const name of names) {
      const value = await measureOne(name);
      if (round >= 0) measured[name].push(value);
    }
  return Object.fromEntries(names.map((name) => [name, percentile(measured[name], 50)])) as Record<K, number>;
}

async function againstTable(
  browser: Browser,
  url: string,
  arrangement: string,
  posts: number,
  limit: number,
  what: string,
): Promise<Line> {
  const pages = {
    ours: await openPage(browser, url, 'ours', arrangement),
    plain: await openPage(browser, url, 'plain', arrangement),
  };
  const { ours, plain } = await inTurn(['ours', 'plain'] as const, (name) => firstPaint(pages[name], posts));
  await pages.ours.close();
  await pages.plain.close();
  return ratioLine(what, ours, plain, limit);
}

const OTHERS = ['generalA', 'generalB'] as const;

/**
 * What the better of two general-purpose calendar components takes with its posts in memory: from navigation to a month
 * painted, and for the month after, in milliseconds.
 */
export async function betterOfOthers(root: string, posts: number): Promise<{ navigation: number; next: number }> {
  const site = await buildPages(join(root, 'pages'));
  const browser = await chromium.launch(config.use!.launchOptions);
  try {
    const pages = {} as Record<(typeof OTHERS)[number], Page>;
    const navigation = await inTurn(OTHERS, async (name) => {
      const start = performance.now();
      await pages[name]?.close();
      pages[name] = await openPage(browser, site.url, name, 'month');
      await firstPaint(pages[name], posts);
      return performance.now() - start;
    });
    const next = await inTurn(OTHERS, async (name) => {
      await firstPaint(pages[name], posts);
      return pages[name].evaluate(() => window.nextMonthMs());
    });
    const better = (of: Record<(typeof OTHERS)[number], number>) => Math.min(...OTHERS.map((name) => of[name]));
    return { navigation: better(navigation), next: better(next) };
  } finally {
    await browser.close();
    await site.close();
  }
}

async function againstOthers(browser: Browser, url: string, posts: number): Promise<Line[]> {
  const names = ['ours', ...OTHERS] as const;
  const pages = {} as Record<(typeof names)[number], Page>;
  for (const name of names) pages[name] = await openPage(browser, url, name, 'month');
  const paint = await inTurn(names, (name) => firstPaint(pages[name], posts));
  const next = await inTurn(names, async (name) => {
    await firstPaint(pages[name], posts);
    return pages[name].evaluate(() => window.nextMonthMs());
  });
  const dragTasks: number[] = [];
  const drop = await inTurn(names, async (name) => {
    await firstPaint(pages[name], posts);
    const { ms, longestTaskMs } = await dragOne(pages[name], posts);
    if (name === 'ours') dragTasks.push(longestTaskMs);
    return ms;
  });
  for (const name of names) await pages[name].close();
  const better = (of: Record<(typeof names)[number], number>) => Math.min(...OTHERS.map((name) => of[name]));
  const what = `month of ${posts.toLocaleString('en-GB')} posts`;
  return [
    ratioLine(`${what}, first paint, to the better of two general calendars`, paint.ours, better(paint), 0.6),
    ratioLine('… the next month', next.ours, better(next), 0.6),
    ratioLine('… drop to painted', drop.ours, better(drop), 0.6),
    ...(posts === 500
      ? [
          figureLine(
            '… longest task while dragging over 500 slips, worst of all drags',
            Math.max(0, ...dragTasks),
            50,
            'ms',
          ),
        ]
      : []),
  ];
}

/** Drags a post two columns on by the mouse. */
async function dragOne(page: Page, posts: number): Promise<{ ms: number; longestTaskMs: number }> {
  const [dragged, target] = ['post-0', 'post-2'];
  await page.evaluate(() => scrollTo(0, 0));
  const from = (await page.locator(`[data-post="${dragged}"]`).first().boundingBox())!;
  const to = (await page.locator(`[data-post="${target}"]`).first().boundingBox())!;
  await page.evaluate(([id, place]) => window.watchDrop(id!, place!), [dragged, target]);
  await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(from.x + from.width / 2 + 12, from.y + from.height / 2 + 4, { steps: 3 });
  await page.evaluate(() => void (window.longTasks.length = 0));
  // The others draw all posts anew at each step with 2,000 of them: more steps would only take longer.
  const steps = posts > 500 ? 3 : 12;
  await page.mouse.move(to.x + to.width * 3, to.y + 300, { steps });
  await page.mouse.move(to.x + to.width / 2, to.y + to.height / 2, { steps });
  const longestTaskMs = await page.evaluate(() => Math.max(0, ...window.longTasks));
  await page.mouse.up();
  const ms = await page.evaluate(async () => (await window.dropMs()) ?? NaN);
  if (Number.isNaN(ms)) throw new Error('the drop was not seen');
  return { ms, longestTaskMs };
}
