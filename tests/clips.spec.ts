import { expect, sheet, test } from './support/test';

/** Subtitles of a talk that ends within the recording that ships, but for its last words. */
const SAID = [
  'Nobody hears a rope go, and everybody hears it land on the deck.',
  'We keep nine of them, and one is older than the ship.',
  'A rope that looks new outside can be dust inside.',
  'So once a year we open every one by hand and look into it.',
];
const clock = (seconds: number) =>
  `00:${String(Math.floor(seconds / 60)).padStart(2, '0')}:${String(seconds % 60).padStart(2, '0')}.000`;
const subtitles = (from: number) =>
  `WEBVTT\n\n${SAID.map((said, at) => `${clock(from + at * 6)} --> ${clock(from + at * 6 + 5)}\n${said}\n`).join('\n')}`;

test('a clip is cut out of the recording in the shape of its channel, with its words, and attached to a post', async ({
  page,
}) => {
  await page.goto('/fennel-moor/ideas');
  await page.getByRole('link', { name: 'Dome motor: the sound of a roof opening' }).click();
  const text = (from: number) => ({
    name: 'said.vtt',
    mimeType: 'text/vtt',
    buffer: Buffer.from(subtitles(from)),
  });
  await page.getByLabel('A file with the text').setInputFiles(text(3));
  await expect(page.getByRole('region', { name: 'The text' })).toContainText('Nobody hears a rope go');
  await page.getByLabel('Add pictures, a video or a sound…').setInputFiles('demo/videos/talk-wide.mp4');
  await expect(page.getByLabel('talk-wide.mp4', { exact: true })).toBeVisible();
  await page.getByRole('list', { name: 'Clips' }).getByRole('button', { name: 'Accept' }).first().click();
  await page.getByRole('button', { name: 'Cut C1 out of the recording' }).click();

  const dialog = page.getByRole('dialog');
  const point = dialog.getByRole('button', { name: 'Point of interest: arrows move it' });
  const frame = dialog.locator('.point-frame');
  const left = async () => (await frame.boundingBox())!.x;
  const before = await left();
  await point.focus();
  await page.keyboard.press('ArrowRight');
  await expect.poll(left).toBeGreaterThan(before);
  const picture = (await dialog.locator('.point-of-interest').boundingBox())!;
  await page.mouse.move(picture.x + picture.width / 2, picture.y + picture.height / 2);
  await page.mouse.down();
  await page.mouse.move(picture.x + 4, picture.y + 40, { steps: 4 });
  await page.mouse.up();
  await expect.poll(left).toBeLessThan(before);

  await dialog.getByRole('button', { name: 'Cut it and attach it' }).click();
  await dialog.getByRole('button', { name: 'Stop' }).click();
  await expect(dialog.getByRole('progressbar')).toHaveCount(0);
  await dialog.getByRole('button', { name: 'Cut it and attach it' }).click();
  await expect(dialog.getByText(/Cut, .* and attached to/)).toBeVisible({ timeout: 60_000 });
  await dialog.getByRole('link', { name: 'Dome motor: the sound of a roof opening' }).click();
  const video = sheet(page).locator('video');
  await expect(video).toBeVisible();
  const measures = await video.evaluate(async (element: HTMLVideoElement) => {
    if (element.readyState < 1)
      await new Promise((ready) => element.addEventListener('loadedmetadata', ready, { once: true }));
    return { shape: element.videoWidth / element.videoHeight, seconds: element.duration };
  });
  expect(measures.shape).toBeGreaterThan(0.5);
  expect(measures.shape).toBeLessThan(0.63);
  expect(measures.seconds).toBeGreaterThan(15);
  await expect(sheet(page)).not.toContainText('no video');

  // A text that was timed by a longer recording.
  await page.goBack();
  await expect(page.getByRole('button', { name: 'Propose more' })).toBeVisible();
  await page.getByLabel('A file with the text').setInputFiles(text(140));
  await page.getByRole('button', { name: 'Replace the text' }).click();
  await expect(page.getByRole('region', { name: 'The text' })).toContainText('02:20');
  await page.getByRole('button', { name: 'Cut C1 out of the recording' }).click();
  await expect(page.getByRole('dialog').getByRole('alert')).toContainText('but the recording at 01:15');
  await expect(page.getByRole('dialog').getByRole('button', { name: 'Cut it and attach it' })).toBeDisabled();
});
