import { SHIPPED_RULE_SHEETS } from '../src/core/rulesheets/shipped';
import { api, carry, day, expect, fillDate, openCalendar, saved, sheet, test } from './support/test';

test('a piece is edited in place, planned, and leads to its posts and back', async ({ page }) => {
  await page.goto('/fennel-moor/ideas');
  await page.getByRole('link', { name: 'Names on the door' }).click();
  await page.getByLabel('Note').fill('Four rooms, four names.');
  await page.getByLabel('Link').fill('no link');
  await page.getByLabel('Source text').click();
  await expect(page.getByText('A link begins with http:// or https://')).toBeVisible();
  await page.getByLabel('Link').fill('https://fennelmoor.example/names');
  await page.getByLabel('Title').fill('Names on four doors');
  await page.getByLabel('Note').click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Names on four doors');
  await page.getByLabel('Tallclip').check();
  await page.reload();
  await expect(page.getByLabel('Note')).toHaveValue('Four rooms, four names.');
  await expect(page.getByLabel('Link')).toHaveValue('https://fennelmoor.example/names');
  await expect(page.getByLabel('Tallclip')).toBeChecked();

  await page.getByRole('button', { name: 'Plan on a date…' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByLabel('Tallclip')).toBeChecked();
  await fillDate(dialog.getByRole('group', { name: 'Date' }), '2026-12-08');
  await dialog.getByLabel(/^Time/).fill('1830');
  await dialog.getByRole('button', { name: 'Plan 1 post for Tue 8 Dec 18:30' }).click();
  const made = page.locator('[data-post]', { hasText: 'Names on four doors' });
  await expect(made).toContainText('Tue 8 Dec 18:30');
  await expect(page.getByLabel('Tallclip')).not.toBeChecked();
  await made.getByRole('link').click();
  await expect(sheet(page).getByRole('link', { name: 'Names on four doors' })).toBeVisible();
  await sheet(page).getByRole('link', { name: 'Names on four doors' }).click();
  await expect(page.getByLabel('Source text')).toBeVisible();
});

test('what is typed on a piece while the server is gone survives a reload and is saved when it is back', async ({
  page,
  server,
}) => {
  await page.goto('/fennel-moor/pieces');
  await page.getByRole('link', { name: 'Ring plane crossing' }).first().click();
  const about = () => page.getByText('Title, note and link').click();
  await about();
  const note = page.getByLabel('Note');
  await expect(note).toHaveValue(/Four short posts/);
  await server.kill();
  await note.fill('Five short posts, one a day.');
  await expect(page.getByText('It is kept here and tried again.')).toBeVisible();
  await server.start();
  await page.reload();
  await about();
  await expect(note).toHaveValue('Five short posts, one a day.');
  await expect
    .poll(() => page.evaluate(() => Object.keys(localStorage).filter((key) => key.includes('.typed.')).length))
    .toBe(0);
  await page.reload();
  await about();
  await expect(note).toHaveValue('Five short posts, one a day.');
});

test('an idea with suggested channels is planned by one drop, and the plan undone', async ({ page }) => {
  await openCalendar(page);
  const idea = page.locator('[data-piece]', { hasText: 'Thermos, hat, red torch' });
  await carry(page, idea.getByRole('button', { name: /^Thermos/ }), day(page, '2026-11-24'));
  await page.mouse.up();
  const slips = day(page, '2026-11-24').locator('[data-post]', { hasText: 'Thermos' });
  await expect(slips).toHaveCount(2);
  await expect(idea).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(slips).toHaveCount(0);
  await expect(idea).toBeVisible();
});

test('a post is made in place with n, published now, and stands on its network’s page', async ({ page }) => {
  await openCalendar(page);
  await page.keyboard.press('n');
  await page.getByLabel('Working title').fill('Clear at last');
  await page.keyboard.press('Enter');
  await page.getByRole('dialog').getByLabel('Benchfeed').check();
  await page.getByRole('button', { name: /^Plan for Mon 23 Nov/ }).click();
  await expect(sheet(page).getByRole('button', { name: 'Publish now' })).toBeDisabled();
  await sheet(page).getByRole('textbox', { name: 'Caption' }).fill('Clear since noon. The dome opens at eight.');
  await saved(page);
  await sheet(page).getByRole('button', { name: 'Publish now' }).click();
  await expect(sheet(page).getByText(/^Published /)).toBeVisible();
  const address = await sheet(page).getByRole('link', { name: 'See it on Benchfeed' }).getAttribute('href');
  await page.goto(address!);
  await expect(page.getByRole('article')).toContainText('Clear since noon.');
});

test('a post that is out already is told its address, and archived', async ({ page }) => {
  await openCalendar(page, `?date=2026-12-01`);
  const slip = day(page, '2026-12-01').locator('[data-post]').first();
  const id = (await slip.getAttribute('data-post'))!;
  await slip.click();
  await sheet(page).getByRole('button', { name: 'Mark as published…' }).click();
  await sheet(page).getByLabel('Its address, once it is published').fill('https://benchfeed.example/p/1');
  await sheet(page).getByRole('button', { name: 'Mark as published', exact: true }).click();
  await expect(sheet(page).getByText(/^Published /)).toBeVisible();
  expect((await api<{ date: string; address: string }>(page, 'GET', `/api/posts/${id}`)).body).toMatchObject({
    stage: 'published',
    date: '2026-11-23',
    address: 'https://benchfeed.example/p/1',
  });
  await sheet(page).getByRole('button', { name: 'Archive' }).click();
  await expect(page.locator(`[data-post="${id}"]`)).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await openCalendar(page);
  await expect(page.locator(`[data-post="${id}"]`)).toHaveCount(1);
});

test('a move while the server is gone stays marked and is tried until it is back', async ({ page, server }) => {
  await openCalendar(page);
  const slip = day(page, '2026-11-28').locator('[data-post]', { hasText: 'TC' });
  const id = (await slip.getAttribute('data-post'))!;
  await server.kill();
  await carry(page, slip, day(page, '2026-11-24'));
  await page.mouse.up();
  const moved = day(page, '2026-11-24').locator(`[data-post="${id}"]`);
  await expect(moved).toHaveClass(/is-unsaved/);
  await server.start();
  await expect(moved).not.toHaveClass(/is-unsaved/);
  expect((await api<{ date: string }>(page, 'GET', `/api/posts/${id}`)).body.date).toBe('2026-11-24');
});

test('a date is written in the order of the reader, and chosen in a month that opens in its dialog', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ locale: 'de-DE', baseURL });
  const page = await context.newPage();
  await openCalendar(page, '?as=lanes&date=2026-12-09');
  await page.keyboard.press('n');
  const dialog = page.getByRole('dialog', { name: /New post/ });
  const field = dialog.getByRole('group', { name: 'Date' });
  await expect(field.getByRole('spinbutton').first()).toHaveText(/^\d\d$/);
  expect((await field.innerText()).replaceAll(/\s/g, '')).toMatch(/^\d\d\.\d\d\.2026$/);
  await field.getByRole('button').click();
  const month = page.getByRole('grid');
  await expect(month.getByRole('columnheader', { includeHidden: true }).first()).toHaveText('Mo');
  await month.getByRole('button', { name: /30\. November/ }).click();
  await expect(month).toBeHidden();
  await expect(dialog.getByRole('button', { name: /Mon 30 Nov/ })).toBeVisible();
  await context.close();
});

test('format and owner are changed in place, and a day with its time', async ({ page }) => {
  await openCalendar(page, `?date=2026-12-09`);
  await day(page, '2026-12-09').locator('[data-post]', { hasText: 'GR' }).click();
  await sheet(page).getByLabel('Format').selectOption('carousel');
  await expect(sheet(page).getByText('A carousel on Glassrow needs 2 pictures, this has none.')).toBeVisible();
  await sheet(page).getByLabel('Owner').selectOption({ label: 'Jonah' });
  await sheet(page).getByRole('button', { name: /^Date/ }).click();
  await fillDate(sheet(page).getByRole('group', { name: 'Date' }), '2026-11-20');
  await page.keyboard.press('Enter');
  await expect(page.getByText('2026-11-20 has passed.')).toBeVisible();
  await sheet(page).getByRole('button', { name: /^Time/ }).click();
  await sheet(page).getByLabel('Time').fill('tea time');
  await page.keyboard.press('Enter');
  await expect(sheet(page).getByLabel('Time')).toHaveAttribute('aria-invalid', 'true');
  await sheet(page).getByLabel('Time').fill('9.05');
  await page.keyboard.press('Enter');
  await expect(sheet(page).getByRole('button', { name: 'Time: 09:05. Change' })).toBeVisible();
  await page.reload();
  await expect(sheet(page).getByLabel('Format')).toHaveValue('carousel');
  await expect(sheet(page).getByLabel('Owner')).toHaveValue(/.+/);
});

test('each made-up network has its page, drawn alike', async ({ page }) => {
  for (const { slug, name } of SHIPPED_RULE_SHEETS) {
    await page.goto(`/standins/${slug}`);
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(name);
    await expect(page.getByText('A made-up network')).toBeVisible();
  }
  expect((await page.goto('/standins/nowhere'))!.status()).toBe(404);
});

test('at 390 px an idea is caught, a post is opened, and a by-hand departure is in reach', async ({ page, server }) => {
  await page.setViewportSize({ width: 390, height: 800 });
  await page.goto('/fennel-moor/departures');
  await page.getByRole('button', { name: /Catch an idea/ }).click();
  await page.getByRole('dialog').getByLabel('Title').fill('On the pier');
  await page.getByRole('button', { name: 'Catch it', exact: true }).click();
  await expect(page.getByText('Caught “On the pier”.')).toBeVisible();
  await server.goTo('2026-11-23T12:05:00.000Z');
  await page.reload();
  const handOver = page.getByRole('region', { name: /^Post by hand/ });
  await expect(handOver.getByRole('button', { name: 'Copy the caption' })).toBeInViewport();
  await page.getByRole('link', { name: 'A minute of dome turning' }).click();
  await expect(sheet(page).getByRole('textbox', { name: 'Caption' })).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
});
