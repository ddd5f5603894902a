import sharp from 'sharp';
import type { Page } from '@playwright/test';
import { expect, openCalendar, saved, sheet, test } from './support/test';

const TALK_WEEK = '2026-12-01';

/** Opens a post of the coming talk by its working title. */
async function openPost(page: Page, title: string) {
  await openCalendar(page, `?as=lanes&date=${TALK_WEEK}`);
  await page.locator('[data-post]', { hasText: title }).first().click();
  await expect(sheet(page).getByRole('textbox', { name: 'Working title' })).toHaveValue(title);
}

/** Puts what is found by some letters into the field that was written in last. */
async function insert(page: Page, letters: string, found: RegExp) {
  const dialog = page.getByRole('dialog', { name: 'Insert' });
  await dialog.getByRole('combobox').fill(letters);
  await expect(dialog.getByRole('option', { name: found, selected: true })).toBeVisible();
  await page.keyboard.press('Enter');
}

const caption = (page: Page) => sheet(page).getByRole('textbox', { name: 'Caption' });
const picture = (color: string) =>
  sharp({ create: { width: 900, height: 900, channels: 3, background: color } })
    .png()
    .toBuffer();

test('the slides of a carousel are written, moved by keyboard, and say what they lack', async ({ page }) => {
  await openPost(page, 'Three ways to find north');
  const slides = sheet(page).locator('[data-part]');
  const texts = () =>
    slides
      .getByRole('textbox', { name: /^Text of/ })
      .evaluateAll((all) => all.map((one) => (one as HTMLTextAreaElement).value));
  await expect(slides).toHaveCount(4);
  await sheet(page).getByRole('textbox', { name: 'Text of slide 1' }).fill('Where is north?');
  await saved(page);
  await sheet(page).getByRole('button', { name: 'Move slide 1' }).focus();
  await page.keyboard.press('Space');
  await expect(page.getByText('Lifted slide 1.')).toBeAttached();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByText('slide 1 to the place of slide 2.')).toBeAttached();
  await page.keyboard.press('Space');
  await expect
    .poll(texts)
    .toEqual([
      'One star stands still',
      'Where is north?',
      'The swan flies along the Milky Way',
      'Come and try it: Thursday, seven',
    ]);
  await sheet(page).getByRole('button', { name: 'add a slide' }).click();
  const missing = sheet(page).getByRole('region', { name: 'What is missing' });
  await expect(missing).toContainText('Slide 5 has no picture.');
  await sheet(page)
    .locator('.add-picture input')
    .setInputFiles([
      { name: 'one.png', mimeType: 'image/png', buffer: await picture('#123456') },
      { name: 'two.png', mimeType: 'image/png', buffer: await picture('#654321') },
    ]);
  await expect(slides).toHaveCount(7);
  await page.reload();
  await expect(slides).toHaveCount(7);
  expect((await texts()).slice(0, 2)).toEqual(['One star stands still', 'Where is north?']);
});

test('a step back is taken in a text, after a reload too, and a version is taken back', async ({ page }) => {
  await openPost(page, 'Doors open in two hours');
  const before = await caption(page).inputValue();
  await caption(page).press('Control+End');
  await caption(page).pressSequentially(' Bring a torch');
  await saved(page);
  await page.reload();
  await caption(page).click();
  await page.keyboard.press('Control+z');
  await expect(caption(page)).toHaveValue(`${before} Bring a`);
  await page.keyboard.press('Control+Shift+z');
  await expect(caption(page)).toHaveValue(`${before} Bring a torch`);
  await saved(page);
  await sheet(page).getByRole('button', { name: 'Versions' }).click();
  const versions = page.getByRole('dialog', { name: 'Versions' });
  await expect(versions.locator('ins')).toContainText(['now', 'Bring a torch']);
  await versions.getByRole('button', { name: 'Restore this version' }).click();
  await expect(caption(page)).toHaveValue(before);
  await expect(sheet(page)).toBeVisible();
});

test('what lies on the shelf is put into a text with a few keys, and counted', async ({ page }) => {
  await page.goto('/fennel-moor/shelf');
  const form = page.getByRole('form', { name: 'New' });
  await form.getByLabel('Name').fill('Torches');
  await form.getByLabel('Text').fill('RedTorch, #DarkSky');
  await form.getByRole('button', { name: 'Add the hashtag set' }).click();
  const item = page.locator('[data-item]', { hasText: 'Torches' });
  await expect(item).toContainText('#RedTorch #DarkSky');
  await expect(item).toContainText('not used yet');

  await openPost(page, 'How to find north, on Thursday');
  await sheet(page).getByRole('textbox', { name: 'Hashtags' }).fill('#PublicScience');
  await page.keyboard.press('Control+.');
  await insert(page, 'torch', /^Torches/);
  await expect(sheet(page).getByRole('textbox', { name: 'Hashtags' })).toHaveValue('#PublicScience #RedTorch #DarkSky');
  await caption(page).click();
  await page.keyboard.press('Control+Home');
  await page.keyboard.press('Control+.');
  await insert(page, 'wen', /Wen Sato/);
  await expect(caption(page)).toHaveValue(/^@wen-sato /);
  await saved(page);

  await page.goto('/fennel-moor/shelf');
  await expect(item).toContainText('in 1 post');
  await item.getByRole('button', { name: 'Remove' }).click();
  await expect(item).toHaveCount(0);
  await page.getByRole('button', { name: 'Put it back' }).click();
  await expect(item).toBeVisible();
});

test('siblings stand side by side: a text is carried and fitted, words are replaced in all, differences show', async ({
  page,
}) => {
  await openPost(page, 'Talk: How to find north');
  await sheet(page).getByRole('link', { name: 'Write all posts side by side' }).click();
  const column = (name: string) => page.getByRole('region', { name });
  const long = column('Hourlight: Talk: How to find north');
  const thread = column('Pithline: How to find north, in five posts');
  const text = (region: typeof long, name = 'Caption') => region.getByRole('textbox', { name, exact: true });
  await text(long, 'Description').fill(
    'The pole star stands still, and everything else goes round it. '.repeat(9).trim(),
  );
  await long.getByRole('button', { name: 'Copy text to…' }).click();
  await long.getByRole('checkbox', { name: /in five posts/ }).check();
  await long.getByRole('button', { name: /^Copy to/ }).click();
  await expect(text(thread)).toHaveValue(/^The pole star stands still.*goes round it\.$/s);
  await expect(thread.locator('.figures.is-over')).toHaveCount(0);
  await expect(page.getByText(/Shortened to fit: .*PL/)).toBeVisible();

  await page.getByRole('button', { name: 'Find and replace' }).click();
  await page.getByLabel('Find', { exact: true }).fill('pole star');
  await expect(page.getByText(/^\d+ in \d posts$/)).toBeVisible();
  await page.getByLabel('Replace with').fill('north star');
  await page.getByRole('button', { name: 'Replace all' }).click();
  await expect(text(long, 'Description')).not.toHaveValue(/pole star/);
  await expect(text(thread)).toHaveValue(/^The north star/);

  await long.getByRole('button', { name: 'Compare' }).click();
  await text(thread).press('Control+End');
  await text(thread).pressSequentially(' Really');
  await expect(thread.locator('.differences ins')).toContainText('Really');
  await text(thread).press('Control+z');
  await expect(thread.locator('.differences ins')).toHaveCount(0);
  await expect(thread.locator('.sibling-head')).toContainText('saved');
});

test('a video gets its place, its length is checked, and the library knows it again', async ({ page }) => {
  await openPost(page, 'How to find north, 30 seconds');
  await caption(page).fill('North in half a minute.');
  const missing = sheet(page).getByRole('region', { name: 'What is missing' });
  await expect(missing).toContainText('A short video on Tallclip needs a video, this has none.');
  await sheet(page).locator('.add-picture input').setInputFiles('demo/videos/talk-wide.mp4');
  await expect(missing).toContainText('takes videos of');
  await sheet(page).getByRole('button', { name: 'Remove' }).click();
  await sheet(page).getByRole('button', { name: 'From the library' }).click();
  const library = page.getByRole('dialog', { name: 'From the library' });
  await library.getByRole('searchbox').fill('dome tall');
  await expect(library.locator('[data-file]')).toHaveCount(1);
  await library.getByRole('button', { name: 'Use this' }).click();
  await expect(sheet(page).getByText('14 s, 540 × 960')).toBeVisible();
  await expect(missing).not.toContainText('video');

  await page.goto('/fennel-moor/library');
  await page.locator('input[type=file]').setInputFiles([
    { name: 'again.png', mimeType: 'image/png', buffer: await picture('#134e5e') },
    { name: 'the same.png', mimeType: 'image/png', buffer: await picture('#134e5e') },
    { name: 'page.png', mimeType: 'image/png', buffer: Buffer.from('<!doctype html><script>alert(1)</script>') },
  ]);
  await expect(page.getByText('the same.png was here already')).toBeVisible();
  await expect(page.getByText(/Added 2 of 3 files\. One was refused: “page\.png” is not a picture/)).toBeVisible();
  await expect(page.locator('[data-file]', { hasText: 'again.png' })).toContainText('not used');
});

test('a letter is written with headings and emphasis, and kept as Markdown', async ({ page }) => {
  await openCalendar(page, `?as=lanes&date=${TALK_WEEK}`);
  await page.locator('[data-post]', { hasText: 'The Dome Letter 31' }).first().click();
  const letter = sheet(page).getByRole('textbox', { name: 'Letter' });
  await letter.click();
  await page.keyboard.type('## The Crab\nSeen by *day*, in the year 1054.');
  await sheet(page).getByRole('textbox', { name: 'Preheader' }).fill('What was seen by day');
  await saved(page);
  await page.reload();
  await expect(letter.getByRole('heading', { name: 'The Crab' })).toBeVisible();
  await expect(letter.locator('em')).toHaveText('day');
  await sheet(page).getByRole('button', { name: 'as Markdown' }).click();
  await expect(sheet(page).getByRole('textbox', { name: 'Letter' })).toHaveValue(
    /^## The Crab\n\nSeen by \*day\*, in the year 1054\.$/,
  );
  await sheet(page).getByRole('button', { name: 'Preview' }).click();
  await expect(sheet(page).getByRole('region', { name: 'Preview' })).toContainText('The Crab');
});
