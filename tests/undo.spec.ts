import sharp from 'sharp';
import { expect, test } from './support/test';

test('what was done is undone and redone by key wherever one is: ideas, shelf, pieces, settings', async ({ page }) => {
  const toast = page.locator('.messages .toast').last();
  const undo = () => page.keyboard.press('ControlOrMeta+z');
  const redo = () => page.keyboard.press('ControlOrMeta+Shift+z');
  const away = () => page.locator('h1').first().click();

  await page.goto('/fennel-moor/ideas');
  await page.keyboard.press('i');
  await page.getByRole('dialog').getByLabel('Title').fill('Why do owls turn up on count nights?');
  await page.getByRole('button', { name: 'Catch it', exact: true }).click();
  const idea = page.getByRole('row').filter({ hasText: 'Why do owls' });
  await expect(idea).toBeVisible();
  await away();
  await undo();
  await expect(toast).toContainText('Undone: caught “Why do owls');
  await expect(idea).toHaveCount(0);
  await redo();
  await expect(toast).toContainText('Redone: caught “Why do owls');
  await expect(idea).toBeVisible();

  await page.goto('/fennel-moor/shelf');
  const items = page.locator('.shelf-text');
  const before = await items.count();
  await page
    .getByRole('button', { name: /^Remove/ })
    .first()
    .click();
  await expect(items).toHaveCount(before - 1);
  await away();
  await undo();
  await expect(toast).toContainText('Undone: took an item from the shelf');
  await expect(items).toHaveCount(before);

  await page.goto('/fennel-moor/settings/themes');
  const name = page.getByLabel(/^Name of (?!the new)/).first();
  const was = await name.inputValue();
  await name.fill('Nights of the moor');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('button', { name: 'Save' })).toHaveCount(0);
  await away();
  await undo();
  await expect(toast).toContainText('Undone: changed the pillar “Nights of the moor”');
  await expect(name).toHaveValue(was);
  await redo();
  await expect(name).toHaveValue('Nights of the moor');
});

test('files added to the library go and come by key, and the page shows it', async ({ page }) => {
  const toast = page.locator('.messages .toast').last();
  const picture = sharp({ create: { width: 640, height: 480, channels: 3, background: '#335577' } });
  await page.goto('/fennel-moor/library');
  await page
    .locator('input[type=file]')
    .first()
    .setInputFiles([{ name: 'frost.png', mimeType: 'image/png', buffer: await picture.png().toBuffer() }]);
  const added = page.getByText('frost.png').first();
  await expect(toast).toContainText('Added one file.');
  await expect(added).toBeVisible();
  await page.locator('h1').first().click();
  await page.keyboard.press('ControlOrMeta+z');
  await expect(toast).toContainText('Undone: added files to the library');
  await expect(added).toHaveCount(0);
  await page.keyboard.press('ControlOrMeta+Shift+z');
  await expect(added).toBeVisible();
});

test('a text that came for a piece as a file is taken back by key, and leaves the place to type one', async ({
  page,
}) => {
  await page.goto('/fennel-moor/ideas');
  await page.getByRole('link', { name: 'Names on the door' }).click();
  const file = { name: 'door.md', mimeType: 'text/markdown', buffer: Buffer.from('The door has forty names on it.') };
  await page.getByLabel('A file with the text').setInputFiles(file);
  const text = page.getByRole('region', { name: 'The text' });
  await expect(text).toContainText('forty names');
  await page.locator('h1').first().click();
  await page.keyboard.press('ControlOrMeta+z');
  await expect(page.locator('.messages .toast').last()).toContainText(
    'Undone: brought in the text of “Names on the door”',
  );
  await expect(page.getByLabel('Source text')).toHaveValue('');
  await expect(text).toHaveCount(0);
  await page.keyboard.press('ControlOrMeta+Shift+z');
  await expect(page.getByLabel('Source text')).toHaveValue('The door has forty names on it.');
});
