import { CALENDAR, api, expect, openCalendar, test } from './support/test';
import { startServer } from './support/server';

interface Slip {
  id: string;
  version: number;
}

/** Plans, writes and schedules posts on Pithline for one minute, as the pages do. @returns their ids */
async function scheduleMany(
  page: import('@playwright/test').Page,
  count: number,
  date: string,
  time: string,
): Promise<string[]> {
  await openCalendar(page);
  return page.evaluate(
    async ({ count, date, time }) => {
      const call = async (method: string, path: string, body?: object) => {
        const response = await fetch(path, { method, ...(body ? { body: JSON.stringify(body) } : {}) });
        if (!response.ok) throw new Error(await response.text());
        return response.json();
      };
      const first = document.querySelector('[data-post]')!.getAttribute('data-post')!;
      const { pieceId } = await call('GET', `/api/posts/${first}`);
      const pithline = [...document.querySelectorAll('td [data-post]')].find((slip) =>
        slip.textContent?.startsWith('PL'),
      )!;
      const { channelId } = await call('GET', `/api/posts/${pithline.getAttribute('data-post')}`);
      const ids: string[] = [];
      for (let n = 0; n < count; n++) {
        const { slips } = (await call('POST', `/api/pieces/${pieceId}/plan`, {
          channelIds: [channelId],
          date,
          time,
        })) as { slips: Slip[] };
        const { id, version } = slips[0]!;
        await call('PATCH', `/api/posts/${id}`, { version, caption: `Departure ${n}` });
        await call('POST', `/api/posts/${id}/deeds`, { deed: 'schedule', version: version + 1 });
        ids.push(id);
      }
      return ids;
    },
    { count, date, time },
  );
}

const stagesOf = (page: import('@playwright/test').Page, ids: string[]) =>
  Promise.all(ids.map(async (id) => (await api<{ stage: string }>(page, 'GET', `/api/posts/${id}`)).body.stage));

test('killed three times in the middle of fifty deliveries, all fifty leave and none twice', async ({
  page,
  server,
}) => {
  const ids = await scheduleMany(page, 50, '2026-11-24', '03:30');
  const before = (await server.counts()).accepted.pithline!;
  await server.faults({ slowMs: 250 });
  await server.goTo('2026-11-24T03:30:00.000Z', { wait: false });
  for (let kills = 1; kills <= 3; kills++) {
    await expect
      .poll(async () => (await server.counts()).accepted.pithline! - before, { intervals: [20] })
      .toBeGreaterThan(kills * 8);
    await server.kill();
    await server.start();
    await fetch(`${server.url}${CALENDAR}`);
  }
  await expect.poll(async () => (await server.counts()).accepted.pithline! - before, { timeout: 60_000 }).toBe(50);
  await openCalendar(page);
  await expect.poll(() => stagesOf(page, ids), { timeout: 60_000 }).toEqual(ids.map(() => 'published'));
  expect((await server.counts()).accepted.pithline! - before).toBe(50);
  await server.faults({ slowMs: 0 });
});

test('departures shows a refusal with the network’s words, and trying again sends it', async ({ page, server }) => {
  const [id] = await scheduleMany(page, 1, '2026-11-24', '12:00');
  await server.faults({ refuse: 1 });
  await server.goTo('2026-11-24T12:00:00.000Z');
  await page.goto('/fennel-moor/departures');
  const row = page.locator(`[data-departure="${id}"]`);
  await expect(row).toContainText('failed · this account may not post that');
  await server.faults({ refuse: 0 });
  await row.getByRole('button', { name: /Try again/ }).click();
  await expect(row).toHaveAttribute('data-fitness', 'out');
});

test('a by-hand post is handed over at its time and confirmed with its address', async ({ page, context, server }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write'], { origin: server.url });
  await server.goTo('2026-11-26T12:00:00.000Z');
  await page.goto('/fennel-moor/departures');
  await page
    .getByRole('row', { name: /come up/ })
    .getByRole('button', { name: 'post it by hand now' })
    .click();
  const handOver = page.getByRole('region', { name: /^Post by hand/ });
  await handOver.getByRole('button', { name: 'Copy the caption' }).click();
  await expect(page.getByText('Caption copied.')).toBeVisible();
  expect(await page.evaluate(() => navigator.clipboard.readText())).toContain('say hello');
  await handOver.getByRole('button', { name: 'Copy its alt text' }).click();
  await expect(page.getByText('Alt text copied.')).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    handOver.getByRole('link', { name: /Save the picture/ }).click(),
  ]);
  expect(download.suggestedFilename()).toMatch(/\.jpg$/);
  await expect(handOver.getByRole('link', { name: /The original/ })).toHaveAttribute('href', /[?]save$/);
  await handOver.getByLabel('Its address, once it is published').fill('not an address');
  await handOver.getByRole('button', { name: 'Mark as published' }).click();
  await expect(page.getByText('Give the address of the published post')).toBeVisible();
  await handOver.getByLabel('Its address, once it is published').fill('https://homestoop.example/p/77');
  await handOver.getByRole('button', { name: 'Mark as published' }).click();
  await expect(page.getByRole('row', { name: /come up/ }).first()).toContainText('published');
});

test('a post missed by hours is held and asked about, not sent', async ({ page, server }) => {
  const [id] = await scheduleMany(page, 1, '2026-11-27', '02:00');
  const before = (await server.counts()).accepted.pithline;
  await server.goTo('2026-11-27T05:00:00.000Z');
  await page.goto('/fennel-moor/departures');
  const row = page.locator(`[data-departure="${id}"]`);
  await expect(row).toContainText('on hold');
  expect((await server.counts()).accepted.pithline).toBe(before);
  await row.getByRole('button', { name: /Send it now/ }).click();
  await expect(row).toHaveAttribute('data-fitness', 'out');
});

test('a second start on the same data folder is refused; after a crash the next is not', async ({ server }) => {
  await fetch(`${server.url}${CALENDAR}`);
  const second = startSecond(server.data);
  await expect(second).rejects.toThrow(/is running on .* already/);
  await server.kill();
  await server.start();
  expect((await fetch(`${server.url}${CALENDAR}`)).status).toBe(200);
});

/** Prepares the demo on a folder that is in use, as a second start does first. */
async function startSecond(data: string): Promise<void> {
  const { execFile } = await import('node:child_process');
  await new Promise<void>((resolve, reject) =>
    execFile(
      process.execPath,
      ['--import', 'tsx', 'demo/prepare.ts'],
      { env: { ...process.env, BIMLO_DATA: data } },
      (error, _out, errors) => (error ? reject(new Error(errors)) : resolve()),
    ),
  );
}

test('one database is open for pages, route handlers and the worker', async () => {
  const server = await startServer({ BIMLO_LOG: 'info' });
  // PGlite has one folder open once: a second opening in the process would be refused by the folder's lock and answer 500.
  const answers = await Promise.all(
    [
      CALENDAR,
      '/fennel-moor/departures',
      '/fennel-moor/ideas',
      '/standins/glassrow',
      '/api/posts/00000000-0000-0000-0000-000000000000',
    ].map(async (path) => (await fetch(`${server.url}${path}`)).status),
  );
  await server.end();
  expect(answers).toEqual([200, 200, 200, 200, 404]);
});
