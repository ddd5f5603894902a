import { buffer } from 'node:stream/consumers';
import type { Page } from '@playwright/test';
import { layLine, type Line } from './support/line';
import { CALENDAR, expect, sheet, takenOver, test as base } from './support/test';

const test = base.extend<{ line: Line }>({
  line: async ({ server }, provide) => {
    const line = await layLine(server.url);
    await provide(line);
    line.end();
  },
});
test.use({ serviceWorkers: 'allow' });

async function openCalendar(page: Page, line: Line): Promise<void> {
  await page.goto(`${line.url}${CALENDAR}?as=month`);
  await takenOver(page);
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
}

test('without a connection the page stays and says so, what is asked for comes once there is one again, and a reload is answered', async ({
  page,
  line,
}) => {
  await openCalendar(page, line);
  const heading = page.getByRole('heading', { level: 1 });
  await expect(heading).toHaveText('November 2026');
  const bar = page.getByText('Bimlo cannot be reached.');
  await expect(bar).toBeHidden();
  await page.locator('.arrangement [data-post]').first().click();
  await expect(sheet(page)).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(sheet(page)).toBeHidden();

  // What is not asked for anew can be used: a post opens, and has its words as soon as there is a connection.
  line.cut();
  await page.locator('.arrangement [data-post]').nth(1).click();
  await expect(sheet(page)).toContainText('Opening…');
  await expect(bar).toBeVisible();
  line.mend();
  await expect(sheet(page).getByLabel('Working title')).toBeVisible();
  await expect(bar).toBeHidden();

  line.cut();
  await page.locator('.rail').getByRole('link', { name: 'Library' }).click();
  await expect(bar).toBeVisible();
  await expect(heading).toHaveText('November 2026');
  line.mend();
  await expect(page.getByRole('heading', { level: 1, name: 'Library' })).toBeVisible();
  await expect(bar).toBeHidden();

  // Seconds later it is too late: nobody is carried away by what they pressed before.
  line.cut();
  const shelf = page.locator('.rail').getByRole('link', { name: 'Shelf' });
  await shelf.click();
  await expect(bar).toBeVisible();
  await expect(page.getByText('The page you asked for was not opened')).toBeVisible();
  await shelf.click();
  line.mend();
  await expect(bar).toBeHidden();
  await page.waitForLoadState('networkidle');
  await expect(page.getByRole('heading', { level: 1, name: 'Library' })).toBeVisible();
  await shelf.click();
  await expect(page.getByRole('heading', { level: 1, name: 'Shelf' })).toBeVisible();
  await page.locator('.rail').getByRole('link', { name: 'Library' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Library' })).toBeVisible();

  line.cut();
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Bimlo cannot be reached' })).toBeVisible();
  line.mend();
  await expect(page.getByRole('heading', { level: 1, name: 'Library' })).toBeVisible();
});

test('an answer that breaks off in the middle is asked for again, and the page stays until it is there', async ({
  page,
  line,
}) => {
  await openCalendar(page, line);
  await page.evaluate(() => Object.assign(window, { isSamePage: true }));
  const broken: string[] = [];
  line.passThrough((asked, given, answer) => {
    const isToBreak = broken.length === 0 && asked.headers.rsc && asked.url!.startsWith('/fennel-moor/library');
    if (!isToBreak) return false;
    broken.push(asked.url!);
    void buffer(given).then((all) => answer.write(all.subarray(0, all.length - 50), () => answer.destroy()));
    return true;
  });
  await page.locator('.rail').getByRole('link', { name: 'Library' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Library' })).toBeVisible();
  expect(broken).toHaveLength(1);
  expect(await page.evaluate(() => 'isSamePage' in window)).toBe(true);
});
