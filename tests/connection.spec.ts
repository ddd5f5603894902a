import { once } from 'node:events';
import { createServer, request } from 'node:http';
import type { AddressInfo } from 'node:net';
import { buffer } from 'node:stream/consumers';
import { CALENDAR, expect, openCalendar, sheet, takenOver, test } from './support/test';

test.use({ serverOf: 'connection', serviceWorkers: 'allow' });

test('without a connection the page stays and says so, what is asked for comes once there is one again, and a reload is answered', async ({
  page,
  server,
}) => {
  await openCalendar(page, '?as=month');
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  const heading = page.getByRole('heading', { level: 1 });
  await expect(heading).toHaveText('November 2026');
  const bar = page.getByText('Bimlo cannot be reached.');
  await expect(bar).toBeHidden();
  await page.locator('.arrangement [data-post]').first().click();
  await expect(sheet(page)).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(sheet(page)).toBeHidden();

  // What is not asked for anew can be used: a post opens, and has its words as soon as there is a connection.
  await server.kill();
  await page.locator('.arrangement [data-post]').nth(1).click();
  await expect(sheet(page)).toContainText('Opening…');
  await expect(bar).toBeVisible();
  await server.start();
  await expect(sheet(page).getByLabel('Working title')).toBeVisible({ timeout: 30_000 });
  await expect(bar).toBeHidden();

  await server.kill();
  await page.locator('.rail').getByRole('link', { name: 'Library' }).click();
  await expect(bar).toBeVisible();
  await expect(heading).toHaveText('November 2026');
  await server.start();
  await expect(page.getByRole('heading', { level: 1, name: 'Library' })).toBeVisible({ timeout: 30_000 });
  await expect(bar).toBeHidden();

  // Seconds later it is too late: nobody is carried away by what they pressed before.
  await server.kill();
  const shelf = page.locator('.rail').getByRole('link', { name: 'Shelf' });
  await shelf.click();
  await expect(bar).toBeVisible();
  await expect(page.getByText('The page you asked for was not opened')).toBeVisible({ timeout: 20_000 });
  await shelf.click();
  await server.start();
  await expect(bar).toBeHidden({ timeout: 30_000 });
  await page.waitForLoadState('networkidle');
  await expect(page.getByRole('heading', { level: 1, name: 'Library' })).toBeVisible();
  await shelf.click();
  await expect(page.getByRole('heading', { level: 1, name: 'Shelf' })).toBeVisible();
  await page.locator('.rail').getByRole('link', { name: 'Library' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Library' })).toBeVisible();

  await server.kill();
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Bimlo cannot be reached' })).toBeVisible();
  await server.start();
  await expect(page.getByRole('heading', { level: 1, name: 'Library' })).toBeVisible({ timeout: 30_000 });
});

test('an answer that breaks off in the middle is asked for again, and the page stays until it is there', async ({
  page,
  server,
}) => {
  const broken: string[] = [];
  let breakAt: string | null = null;
  const line = createServer((asked, answer) => {
    const breaks = breakAt !== null && asked.headers.rsc !== undefined && asked.url!.startsWith(breakAt);
    const headers = { ...asked.headers, 'accept-encoding': 'identity' };
    const onward = request(`${server.url}${asked.url}`, { method: asked.method, headers }, (given) => {
      answer.writeHead(given.statusCode!, given.headers);
      if (!breaks) return void given.pipe(answer);
      breakAt = null;
      broken.push(asked.url!);
      void buffer(given).then((all) => answer.write(all.subarray(0, all.length - 50), () => answer.destroy()));
    });
    onward.on('error', () => answer.destroy());
    asked.pipe(onward);
  });
  await once(line.listen(0, '127.0.0.1'), 'listening');
  try {
    const { port } = line.address() as AddressInfo;
    await page.goto(`http://127.0.0.1:${port}${CALENDAR}`);
    await takenOver(page);
    await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
    await page.evaluate(() => Object.assign(window, { isSamePage: true }));
    breakAt = '/fennel-moor/library';
    await page.locator('.rail').getByRole('link', { name: 'Library' }).click();
    await expect(page.getByRole('heading', { level: 1, name: 'Library' })).toBeVisible({ timeout: 30_000 });
    expect(broken).toHaveLength(1);
    expect(await page.evaluate(() => 'isSamePage' in window)).toBe(true);
  } finally {
    line.closeAllConnections();
    line.close();
  }
});
