import sharp from 'sharp';
import { api, expect, fillDate, openCalendar, sheet, test } from './support/test';

const FRIDAY = '2026-12-11';

/** A picture too tall for a photo feed, taken at a place that is nobody's business. */
const tall = () =>
  sharp({ create: { width: 900, height: 1800, channels: 3, background: '#204060' } })
    .withExif({ IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '57/1 38/1 0/1' } })
    .jpeg()
    .toBuffer();

test('a picture of a wrong shape is cropped with a movable frame, and leaves so, without its place', async ({
  page,
}) => {
  await openCalendar(page, `?as=lanes&date=${FRIDAY}`);
  await page.keyboard.press('n');
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Working title').fill('The mast from below');
  await dialog.getByRole('checkbox', { name: 'Glassrow' }).check();
  await fillDate(dialog.getByRole('group', { name: 'Date' }), FRIDAY);
  await dialog.getByRole('button', { name: /^Plan for/ }).click();
  await sheet(page).getByRole('textbox', { name: 'Caption' }).fill('The mast of the old aerial, from below.');
  await sheet(page)
    .locator('input[type=file]')
    .setInputFiles({ name: 'mast.jpg', mimeType: 'image/jpeg', buffer: await tall() });
  const missing = sheet(page).getByRole('region', { name: 'What is missing' });
  await expect(missing).toContainText('takes pictures of 7:10 to 8:5');
  await expect(missing).toContainText('A picture has no alt text.');
  await sheet(page).getByLabel('Alt text of mast.jpg').fill('A mast against an evening sky');
  await missing.click();
  await expect(missing).not.toContainText('alt text');

  // A picture that is long in coming: its frame waits for it.
  let show = () => {};
  const shown = new Promise<void>((resolve) => (show = resolve));
  await page.route(/\/api\/media\/[0-9a-f]{64}$/, async (route) => {
    await shown;
    await route.continue();
  });
  await sheet(page).getByRole('button', { name: 'Crop', exact: true }).click();
  const crop = page.getByRole('dialog', { name: 'Crop mast.jpg' });
  await crop.getByRole('button', { name: '1:1', exact: true }).click();
  await expect(crop.getByText('900 × 900 px')).toBeVisible();
  const frame = crop.getByRole('group', { name: 'Frame: arrows move it' });
  await frame.focus();
  await page.keyboard.press('Shift+ArrowUp');
  await expect(crop.getByText('900 × 900 px')).toBeVisible();
  show();
  await expect(crop.getByRole('button', { name: 'Upper left corner' })).toBeVisible();
  await frame.focus();
  for (let press = 0; press < 5; press++) await page.keyboard.press('Shift+ArrowUp');
  await crop.getByRole('button', { name: 'Use this crop' }).click();
  await expect(sheet(page).getByRole('button', { name: 'cropped' })).toBeVisible();
  await expect(missing).toHaveCount(0);

  const id = new URL(page.url()).searchParams.get('post')!;
  const { body } = await api<{ pictures: { id: string; crop: { y: number } }[] }>(page, 'GET', `/api/posts/${id}`);
  const [picture] = body.pictures;
  expect(picture!.crop.y).toBeLessThan(0.25);
  const out = await page.request.get(`/api/posts/${id}/media/${picture!.id}`);
  const { width, height, exif } = await sharp(await out.body()).metadata();
  expect([width, height, exif]).toEqual([900, 900, undefined]);
});

test('an open post with all its parts leaves the page as high as the window', async ({ page }) => {
  for (const query of ['?as=lanes', '?as=lanes&weeks=2', '?as=month', '?as=list']) {
    await openCalendar(page, `${query}&date=2026-11-30`);
    await page.locator('.arrangement [data-post]').first().click();
    await expect(sheet(page)).toBeVisible();
    const tooHigh = await page.evaluate(() => document.documentElement.scrollHeight - innerHeight);
    expect(tooHigh, query).toBe(0);
  }
});
