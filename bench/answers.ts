import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { noteSetUp, takeFolder } from '@/data/folder/folder';
import { openFolderDb } from '@/runtime/bimlo';
import config from '../playwright.config';
import { startServer } from '../tests/support/server';
import { AS_PERSON, BRAND, fill } from './data';
import { compare, figureLine, percentile, ratioLine, type Line } from './figures';

const FEW = 5_000;
const LIST_ROWS = 10_000;
const SCROLL_MS = 4_000;

/** What is asked of the calendar: the same posts show, however many others there are. */
const ASKED = [
  ['lanes', 'as=lanes&date=2026-11-25'],
  ['month', 'as=month&date=2026-11-01'],
  ['day', 'as=day&date=2026-11-25'],
  ['stages', 'as=stages'],
  ['list', 'as=list&date=2026-11-28'],
  ['month by words', 'as=month&date=2026-11-01&words=football'],
] as const;

/** The server's answers with 100,000 posts (in `root/data`) against those with 5,000, and scrolling a list of 10,000 rows. */
export async function benchAnswers(root: string): Promise<Line[]> {
  await makeFolder(join(root, 'few'), FEW);
  const many = await startServer(AS_PERSON, join(root, 'data'));
  const few = await startServer(AS_PERSON, join(root, 'few'));
  const lines: Line[] = [];
  for (const [name, query] of ASKED) {
    const ask = (url: string) => async () =>
      (await fetch(`${url}/${BRAND}/calendar?${query}`, { redirect: 'error' })).text();
    const { workMs, floorMs } = await compare(ask(many.url), ask(few.url), { warmUps: 4, rounds: 21 });
    lines.push(ratioLine(`server answer, ${name}, with 100,000 posts, to that with 5,000`, workMs, floorMs, 1.5));
  }
  await many.end();
  await few.end();
  lines.push(await benchScrolling(root));
  return lines;
}

async function makeFolder(path: string, count: number, shown?: number): Promise<void> {
  const folder = await takeFolder(path);
  const db = await openFolderDb(folder, { now: () => '2026-11-23T12:00:00.000Z' });
  await fill(db, count, shown);
  await noteSetUp(folder);
  await db.close();
  await folder.release();
}

/** Frames while a list of 10,000 rows scrolls. */
export async function benchScrolling(root: string): Promise<Line> {
  const folder = join(root, 'long');
  await makeFolder(folder, LIST_ROWS, LIST_ROWS);
  const server = await startServer(AS_PERSON, folder);
  const browser = await chromium.launch(config.use!.launchOptions);
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${server.url}/${BRAND}/calendar?as=list&date=2026-11-25&group=none`);
  const list = page.getByRole('table', { name: 'Posts' });
  await list.waitFor();
  await page.waitForLoadState('networkidle');
  const rows = Number(await list.getAttribute('aria-rowcount')) - 1;
  if (rows !== LIST_ROWS) throw new Error(`the list has ${rows} rows`);
  // As text: what the loader adds to functions for their names does not exist in the page.
  const frames = await page.evaluate<number[]>(`new Promise((resolve) => {
    const element = document.querySelector('.list-rows');
    const deltas = [];
    const start = performance.now();
    let last = start;
    requestAnimationFrame(function step(now) {
      deltas.push(now - last);
      last = now;
      element.scrollTop += 90;
      if (now - start < ${SCROLL_MS}) requestAnimationFrame(step);
      else resolve(deltas.slice(1));
    });
  })`);
  await browser.close();
  await server.end();
  return figureLine('a list of 10,000 rows, frame while scrolling, p95', percentile(frames, 95), 32, 'ms');
}
