import { randomUUID } from 'node:crypto';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import sharp from 'sharp';
import { composeTexts } from '@/core/captions/compose';
import { countText } from '@/core/captions/count';
import { AS_IT_IS } from '@/core/media/fit';
import { blocksOf, type PostContent } from '@/core/posts/readiness';
import { wantsOf } from '@/core/posts/wants';
import { countBack } from '@/core/prep/countBack';
import { workedOn } from '@/core/prep/workdays';
import { BLANK_STEP } from '@/core/prep/step';
import { fieldsOf, type RuleSheet } from '@/core/rulesheets/types';
import { SHIPPED_RULE_SHEETS } from '@/core/rulesheets/shipped';
import { addDays } from '@/core/time/days';
import { openFolderDb } from '@/runtime/bimlo';
import { noteSetUp, takeFolder } from '@/data/folder/folder';
import { takeMedia } from '@/data/media/mediaFiles';
import { insertSteps } from '@/data/prep/steps';
import config from '../playwright.config';
import { startServer } from '../tests/support/server';
import { AS_PERSON, BRAND, fill } from './data';
import { compare, figureLine, percentile, ratioLine, type Line } from './figures';

const POSTS = 1_000;
const STEPS = 10_000;
const PICTURES = 100;
const SIBLINGS = 8;
const KEYSTROKES = 200;
/** A picture of 12 megapixels. */
const [WIDE, HIGH] = [4_000, 3_000];

/** Sums and screens of making: readiness, counting back, taking pictures in, writing side by side, the Desk. */
export async function benchMaking(root: string): Promise<Line[]> {
  return [await benchReadiness(), await benchCountingBack(), ...(await benchPictures()), ...(await benchScreens(root))];
}

async function benchReadiness(): Promise<Line> {
  const posts = Array.from({ length: POSTS }, (_, index): [PostContent, RuleSheet] => {
    const sheet = SHIPPED_RULE_SHEETS[index % SHIPPED_RULE_SHEETS.length]!;
    const picture = { id: `${index}`, mime: 'image/jpeg', bytes: 400_000, width: 1_080, height: 1_350, ...AS_IT_IS };
    const caption = `Saturn’s rings are thin 🌠, number ${index}. If you scale them to a football pitch, they are thinner than the paint of the lines. `;
    return [
      {
        headline: 'A headline',
        caption: caption.repeat(1 + (index % 4)),
        hashtags: '#NightSky #Rings',
        link: 'https://fennelmoor.example/rings',
        format: sheet.formats[index % sheet.formats.length]!.format,
        pictures: [picture],
        parts: [],
      },
      sheet,
    ];
  });
  let found = 0;
  const { workMs, floorMs } = await compare(
    () => {
      for (const [post, sheet] of posts)
        found +=
          blocksOf(post, sheet).length +
          wantsOf(
            {
              pictures: [{ alt: '', mime: 'image/jpeg' }],
              neededSteps: [{ id: 'a', title: 'Edit' }],
              signOff: 'missing',
              unread: 0,
            },
            [],
          ).length;
    },
    () => {
      for (const [post, sheet] of posts) {
        const rules = fieldsOf(sheet, post.format);
        composeTexts(post, sheet, post.format).forEach(({ text }, index) => (found += countText(text, rules[index]!)));
      }
    },
  );
  if (found === 0) throw new Error('nothing was judged');
  return ratioLine(`readiness of ${POSTS} posts, to counting their texts`, workMs, floorMs, 3);
}

async function benchCountingBack(): Promise<Line> {
  const steps = Array.from({ length: STEPS }, (_, index) => ({
    ...BLANK_STEP,
    lead: (STEPS - index) % 60,
    leadIn: index % 2 === 0 ? ('working' as const) : ('calendar' as const),
    pinned: index % 97 === 0 ? addDays('2026-11-27', -(index % 30)) : null,
    doneOn: null,
  }));
  const isWorked = workedOn({ weekdays: [1, 2, 3, 4, 5], daysOff: [{ from: '2026-11-10', to: '2026-11-12' }] });
  let last = '';
  const { workMs, floorMs } = await compare(
    () => (last = countBack('2026-11-27', steps, () => isWorked).at(-1)!),
    () => (last = String([...steps].sort((a, b) => a.lead - b.lead)[0]!.lead)),
  );
  if (last === '') throw new Error('nothing was counted');
  return ratioLine(`counting back ${STEPS} steps, to sorting them by their leads`, workMs, floorMs, 10);
}

/** Pictures of 12 megapixels, each another, taken in one after the other; the floor is sharp making the same thumbnails. */
async function benchPictures(): Promise<Line[]> {
  const folder = await mkdtemp(join(tmpdir(), 'bimlo-bench-media-'));
  const base = await sharp({
    create: {
      width: WIDE,
      height: HIGH,
      channels: 3,
      background: '#134e5e',
      noise: { type: 'gaussian', mean: 120, sigma: 12 },
    },
  })
    .jpeg({ quality: 82 })
    .toBuffer();
  // A JPEG with something behind its end is another file of the same picture.
  const pictures = Array.from({ length: PICTURES }, (_, index) => Buffer.concat([base, Buffer.from(`${index}`)]));
  const idleBytes = process.memoryUsage.rss();
  let mostBytes = idleBytes;
  const watch = setInterval(() => (mostBytes = Math.max(mostBytes, process.memoryUsage.rss())), 20);
  let round = 0;
  const { workMs, floorMs } = await compare(
    async () => {
      const into = await mkdtemp(join(folder, `round-${round++}-`));
      for (const bytes of pictures) {
        const taken = await takeMedia(into, streamOf(bytes), 'bench.jpg');
        if (!taken.ok) throw new Error(taken.refusal.message);
      }
      await rm(into, { recursive: true });
    },
    async () => {
      for (const bytes of pictures) {
        const path = join(folder, 'floor.jpg');
        await writeFile(path, bytes);
        await sharp(path).autoOrient().resize(192, 192, { fit: 'cover' }).webp({ quality: 78 }).toBuffer();
      }
    },
    { warmUps: 1, rounds: 7 },
  );
  clearInterval(watch);
  await rm(folder, { recursive: true });
  return [
    ratioLine(
      `${PICTURES} pictures of 12 megapixels taken in, to sharp’s own time for the thumbnails`,
      workMs,
      floorMs,
      1.3,
    ),
    figureLine('… memory above idle', (mostBytes - idleBytes) / 1e6, 400, 'MB'),
  ];
}

/** Bytes as a browser sends them: in chunks of 64 kB. */
const streamOf = (bytes: Buffer): ReadableStream<Uint8Array> => {
  let at = 0;
  return new ReadableStream({
    pull(controller) {
      if (at >= bytes.length) return controller.close();
      controller.enqueue(new Uint8Array(bytes.subarray(at, (at += 65_536))));
    },
  });
};

async function benchScreens(root: string): Promise<Line[]> {
  const [few, many] = [join(root, 'desk-few'), join(root, 'desk-many')];
  const pieceId = await makeDesk(few, 50);
  await makeDesk(many, 2_000);
  const [fewServer, manyServer] = [await startServer(AS_PERSON, few), await startServer(AS_PERSON, many)];
  const ask = (url: string) => async () => (await fetch(`${url}/${BRAND}/desk`, { redirect: 'error' })).text();
  const { workMs, floorMs } = await compare(ask(manyServer.url), ask(fewServer.url), { warmUps: 4, rounds: 21 });
  const keystrokesMs = await typeBesideSiblings(`${fewServer.url}/${BRAND}/pieces/${pieceId}/words`);
  await fewServer.end();
  await manyServer.end();
  return [
    ratioLine('Desk of a person with 2,000 open steps, to that with 50', workMs, floorMs, 2),
    figureLine(`a keystroke beside ${SIBLINGS - 1} siblings, p95`, percentile(keystrokesMs, 95), 16, 'ms'),
  ];
}

/** A folder with a piece of eight posts and that many open steps of one person, over the 200 days from 20 days ago. @returns the piece's id */
async function makeDesk(path: string, steps: number): Promise<string> {
  const folder = await takeFolder(path);
  const db = await openFolderDb(folder, { now: () => '2026-11-23T12:00:00.000Z' });
  const { brandId } = await fill(db, SIBLINGS, SIBLINGS);
  const posts = await db.rows<{ id: string; pieceId: string; ownerId: string }>(
    'select id, piece_id as "pieceId", owner_id as "ownerId" from posts order by id',
  );
  const { pieceId, ownerId } = posts[0]!;
  await insertSteps(
    db,
    Array.from({ length: steps }, (_, index) => ({
      ...BLANK_STEP,
      id: randomUUID(),
      brandId,
      postId: posts[index % posts.length]!.id,
      pieceId: null,
      position: index,
      title: `Step ${index}`,
      ownerId,
      minutes: 20,
      pinned: null,
      day: addDays('2026-11-03', Math.floor((index * 200) / steps)),
      plannedOn: '2026-11-01',
      doneAt: null,
      doneOn: null,
      doneBy: null,
    })),
  );
  await db.script('analyze');
  await noteSetUp(folder);
  await db.close();
  await folder.release();
  return pieceId;
}

async function typeBesideSiblings(url: string): Promise<number[]> {
  const browser = await chromium.launch(config.use!.launchOptions);
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(url, { waitUntil: 'networkidle' });
  const columns = page.locator('.sibling');
  if ((await columns.count()) !== SIBLINGS) throw new Error(`${await columns.count()} siblings stand side by side`);
  const keystrokesMs = await columns
    .first()
    .getByRole('textbox', { name: 'Caption' })
    .evaluate((element, count) => {
      const area = element as HTMLTextAreaElement;
      const set = Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, 'value')!.set!;
      return Array.from({ length: count }, (_, n) => {
        const start = performance.now();
        set.call(area, `${area.value}${'rings '[n % 6]}`);
        area.dispatchEvent(new Event('input', { bubbles: true }));
        // Asking for the height makes the browser lay out what changed.
        void area.offsetHeight;
        return performance.now() - start;
      });
    }, KEYSTROKES);
  await browser.close();
  return keystrokesMs;
}
