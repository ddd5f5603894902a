import { day, expect, openCalendar, sheet, test } from './support/test';

test('coverage shows where a piece was used, drafts an empty place, and is put in another order', async ({ page }) => {
  await page.goto('/fennel-moor/pieces');
  const row = page.getByRole('row', { name: /Ring plane crossing/ });
  await expect(row.getByText('planned').first()).toBeAttached();
  const empty = row.getByRole('button', { name: /^Draft / });
  const places = await empty.count();
  await empty.last().click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('status')).toContainText('1 post');
  await dialog.getByRole('button', { name: 'Make this post' }).click();
  await expect(page.getByText(/^Made 1 post from “Ring plane crossing/)).toBeVisible();
  await expect(empty).toHaveCount(places - 1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(empty).toHaveCount(places);

  await page.getByLabel('Order').selectOption('didBest');
  await expect(page).toHaveURL(/order=didBest/);
  const sums = await page.locator('td.coverage-sum').allInnerTexts();
  const numbers = sums.map((sum) => Number(sum.replace(/\D/g, '')));
  expect(numbers).toEqual([...numbers].sort((one, other) => other - one));
  await page.getByRole('link', { name: 'More pieces' }).click();
  await expect(page.getByRole('link', { name: 'From the start' })).toBeVisible();
  await page.getByRole('link', { name: 'by formats' }).click();
  await expect(page.getByRole('columnheader', { name: 'newsletter' })).toBeVisible();
});

test('a new piece is begun with its text pasted', async ({ page }) => {
  await page.goto('/fennel-moor/pieces');
  await page.getByRole('button', { name: 'New piece…' }).click();
  await page.getByLabel('Title', { exact: true }).fill('What the tide took');
  await page.getByLabel('What it is').selectOption('article');
  await page
    .getByLabel('… or pasted here. It can be brought in later, too.')
    .fill(
      '# What the tide took\n\nThe tide takes a little of the wall each year. Nobody sees it happen. Everybody sees that it is gone.',
    );
  await page.getByRole('button', { name: 'Begin the piece' }).click();
  await expect(page.getByRole('heading', { name: 'What the tide took', level: 1 })).toBeVisible();
  await expect(page.getByRole('region', { name: 'The text' })).toContainText('Nobody sees it happen.');
});

test('an encore says how it did, and comes again spaced out with other first lines', async ({ page }) => {
  await page.goto('/fennel-moor/pieces/encores');
  const did = page.getByRole('region', { name: /^Did well/ }).getByRole('listitem');
  await expect(did.first()).toContainText(/better than \d+ of the other|the best of/);
  const title = await did.nth(1).getByRole('link').innerText();
  const count = await did.count();
  await did.nth(1).getByRole('button', { name: /^Use/ }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('How often').selectOption('3');
  await expect(dialog.getByRole('button', { name: 'Make these 3 posts' })).toBeEnabled();
  const texts = await dialog.getByRole('textbox', { name: /^Text for/ }).all();
  expect(texts).toHaveLength(3);
  await texts[0]!.fill('In other words, by hand.');
  await dialog.getByRole('button', { name: 'Make these 3 posts' }).click();
  await expect(page.getByText(`Made 3 posts from “${title}”.`)).toBeVisible();
  // Planned again, it is no encore any more.
  await expect(did.filter({ hasText: title })).toHaveCount(0);
  expect(await did.count()).toBeLessThanOrEqual(count);
});

test('words become a picture of a post, and follow them', async ({ page }) => {
  await openCalendar(page);
  await day(page, '2026-11-25').locator('[data-post]').first().click();
  const open = sheet(page);
  await open.getByRole('button', { name: 'Words as a picture…' }).first().click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByAltText('The card as it will be')).toBeVisible();
  await dialog.getByLabel('on a plate').check();
  await dialog.getByLabel('Words', { exact: true }).fill('Everybody sees that it is gone.');
  await dialog.getByRole('button', { name: 'Add the card' }).click();
  await expect(open.getByLabel(/^Alt text of Everybody sees/)).toHaveValue(/^Everybody sees that it is gone\./);
});

test('what was drawn up for a talk is accepted, changed and rejected by one key each', async ({ page }) => {
  await page.goto('/fennel-moor/desk');
  const rows = page.locator('[data-proposal]');
  await expect(async () => {
    await page.reload();
    await expect(rows).toHaveCount(5, { timeout: 1_000 });
  }).toPass({ timeout: 60_000 });
  await rows.first().focus();
  await page.keyboard.press('r');
  await expect(page.getByText('Rejected.')).toBeVisible();
  await expect(rows).toHaveCount(4);
  await rows.first().focus();
  await page.keyboard.press('c');
  await page.keyboard.press('Control+a');
  await page.keyboard.type('As I would say it.');
  await page.keyboard.press('Escape');
  await page.keyboard.press('a');
  await expect(page.getByText(/^Accepted: Glassrow, /)).toBeVisible();
  await expect(rows).toHaveCount(3);
  await page.getByRole('button', { name: 'Open' }).click();
  await expect(sheet(page).getByLabel('Caption')).toContainText('As I would say it.');
});
