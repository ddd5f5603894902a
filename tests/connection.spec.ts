import { expect, openCalendar, sheet, test } from './support/test';

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

  // What is on its way when the server goes breaks off in the middle, which is another matter.
  await page.waitForLoadState('networkidle');
  await server.kill();
  await page.locator('.rail').getByRole('link', { name: 'Library' }).click();
  await expect(bar).toBeVisible();
  await expect(heading).toHaveText('November 2026');
  await server.start();
  await expect(page.getByRole('heading', { level: 1, name: 'Library' })).toBeVisible({ timeout: 30_000 });
  await expect(bar).toBeHidden();

  await server.kill();
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Bimlo cannot be reached' })).toBeVisible();
  await server.start();
  await expect(page.getByRole('heading', { level: 1, name: 'Library' })).toBeVisible({ timeout: 30_000 });
});
