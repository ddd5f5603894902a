import { readFileSync } from 'node:fs';
import { expect, sheet, test } from './support/test';

test('a transcript comes in as a file, its extracts are judged by keyboard, and twelve posts are made from it and undone', async ({
  page,
}) => {
  await page.goto('/fennel-moor/ideas');
  await page.getByRole('link', { name: 'Names on the door' }).click();
  const file = {
    name: 'talk.vtt',
    mimeType: 'text/vtt',
    buffer: readFileSync('demo/fennel-moor/transcripts/rings-that-vanish.vtt'),
  };
  await page.getByLabel('A file with the text').setInputFiles(file);
  const text = page.getByRole('region', { name: 'The text' });
  await expect(text).toContainText('Every fifteen years or so the planet tips');
  await expect(text).toContainText('00:04');

  const extracts = page.getByRole('list', { name: 'Extracts' });
  await expect(page.getByText('0 accepted, 14 proposals')).toBeVisible();
  await extracts.getByRole('listitem').first().focus();
  await page.keyboard.press('Enter');
  // The row that takes its place has the focus with the next frame.
  await expect(extracts.locator('> li:focus')).toHaveCount(1);
  await page.keyboard.press('Delete');
  await expect(page.getByText('1 accepted, 12 proposals')).toBeVisible();
  await expect(page.getByText('1 rejected one')).toBeVisible();
  // A sentence of one's own, chosen with the arrow keys.
  await text.focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await expect(page.getByText('2 accepted, 12 proposals')).toBeVisible();
  // Words selected with the mouse.
  await text.getByText('The glare of the rings drowns').first().selectText();
  await page.getByRole('toolbar').getByRole('button', { name: 'point' }).click();
  await expect(page.getByText('3 accepted, 12 proposals')).toBeVisible();

  const clips = page.getByRole('list', { name: 'Clips' });
  await clips.getByRole('button', { name: 'Accept' }).first().click();
  const [cutList] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'CSV', exact: true }).click(),
  ]);
  expect(readFileSync(await cutList.path(), 'utf8')).toMatch(/^number,in,out,seconds,words\r\n1,00:\d\d:/);
  await page.reload();
  await expect(page.getByText('3 accepted,')).toBeVisible();
  await page.getByLabel('Find in this text').fill('adela quint');
  await expect(text.locator('mark')).toHaveCount(3);

  await page.getByRole('button', { name: 'Fan out…' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByLabel('Fan-out')).toHaveValue('talk');
  await expect(dialog.getByRole('status')).toContainText(/1\d posts, /);
  await dialog
    .getByRole('button', { name: /^Read the draft of/ })
    .first()
    .click();
  await dialog.getByRole('textbox', { name: /^Draft of/ }).fill('Changed before it was made.');
  const deed = dialog.getByRole('button', { name: /^Make these \d+ posts$/ });
  const count = Number(/\d+/.exec((await deed.textContent())!)![0]);
  expect(count).toBeGreaterThanOrEqual(12);
  await deed.click();
  const posts = page.locator('.posts-of-piece [data-post]');
  await expect(posts).toHaveCount(count);
  const signs = await posts.locator('.call-sign').allTextContents();
  expect(new Set(signs).size).toBe(8);
  await page.locator('.messages').getByRole('button', { name: 'Undo' }).click();
  await expect(posts).toHaveCount(0);
  expect(await sheet(page).count()).toBe(0);
});
