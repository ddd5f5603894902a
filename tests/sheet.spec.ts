import { api, carry, day, expect, openCalendar, saved, sheet, takenOver, test } from './support/test';

const TALK = '2026-12-03';

/** Opens a post of the demo that is being made. */
async function openDraft(page: import('@playwright/test').Page) {
  await openCalendar(page, `?date=${TALK}`);
  await day(page, TALK).locator('[data-post]', { hasText: 'PL' }).first().click();
  await expect(sheet(page).getByRole('textbox', { name: 'Caption' })).toBeVisible();
  return new URL(page.url()).searchParams.get('post')!;
}

test('the count runs over the composed text, as the network counts', async ({ page }) => {
  await openDraft(page);
  await sheet(page).getByLabel('Hashtags').fill('');
  await sheet(page).getByRole('textbox', { name: 'Link' }).fill('https://fennelmoor.example/a/long/address');
  await sheet(page).getByRole('textbox', { name: 'Caption' }).fill('星🌠ab');
  await expect(sheet(page).getByText('39 of 320, 281 left')).toBeVisible();
  await sheet(page).getByRole('textbox', { name: 'Caption' }).fill('x'.repeat(310));
  await expect(sheet(page).getByText('343 of 320, 23 over')).toBeVisible();
  await expect(sheet(page).getByText('Caption: Pithline takes 320, this has 343.')).toBeVisible();
  await expect(sheet(page).locator('.past-limit')).toHaveCount(1);
  await sheet(page).getByRole('button', { name: 'ready', exact: true }).click();
  await expect(page.getByText(/Not ready yet/)).toBeVisible();
});

test('what is typed while the server is down is saved when it is back, also after a reload', async ({
  page,
  server,
}) => {
  const id = await openDraft(page);
  await server.kill();
  await sheet(page).getByRole('textbox', { name: 'Caption' }).fill('Typed into the void.');
  await expect(sheet(page).getByRole('status').first()).toContainText('cannot be reached');
  await server.start();
  await page.reload();
  await expect(sheet(page).getByRole('textbox', { name: 'Caption' })).toHaveValue('Typed into the void.');
  await saved(page);
  expect((await api<{ caption: string }>(page, 'GET', `/api/posts/${id}`)).body.caption).toBe('Typed into the void.');

  await server.kill();
  await sheet(page).getByRole('textbox', { name: 'Caption' }).fill('And again, without a reload.');
  await expect(sheet(page).getByRole('status').first()).toContainText('cannot be reached');
  await server.start();
  await saved(page);
  expect((await api<{ caption: string }>(page, 'GET', `/api/posts/${id}`)).body.caption).toBe(
    'And again, without a reload.',
  );
});

test('of two windows editing one caption, the later is refused and shows both texts', async ({ page, context }) => {
  const id = await openDraft(page);
  const other = await context.newPage();
  await other.goto(page.url());
  await takenOver(other);
  await expect(sheet(other)).toBeVisible();
  await sheet(page).getByRole('textbox', { name: 'Caption' }).fill('From the first window.');
  await saved(page);
  await sheet(other).getByRole('textbox', { name: 'Caption' }).fill('From the second window.');
  const both = sheet(other).getByRole('alert');
  await expect(both).toContainText('From the first window.');
  await expect(both).toContainText('From the second window.');
  const stored = async () => (await api<{ caption: string }>(page, 'GET', `/api/posts/${id}`)).body.caption;
  expect(await stored()).toBe('From the first window.');
  await both.getByRole('button', { name: 'Keep mine' }).click();
  await expect.poll(stored).toBe('From the second window.');

  // Another field changed elsewhere is no conflict.
  await sheet(other).getByRole('textbox', { name: 'Working title' }).fill('Another title');
  await saved(other);
  await sheet(page).getByLabel('Hashtags').fill('#Moon');
  await saved(page);
  await expect(sheet(page).getByRole('alert')).toHaveCount(0);
  await expect(sheet(page).getByRole('textbox', { name: 'Working title' })).toHaveValue('Another title');
});

test('a post is set aside with a reason, deleted, and each is undone', async ({ page }) => {
  await openCalendar(page, `?date=${TALK}`);
  const slip = day(page, TALK).locator('[data-post]', { hasText: 'HL' });
  await slip.click();
  await sheet(page).getByRole('button', { name: 'Set aside…' }).click();
  // Escape closes what asks for the reason, not the post.
  await page.keyboard.press('Escape');
  await expect(sheet(page).getByLabel('Why it is set aside')).toHaveCount(0);
  await expect(sheet(page)).toBeVisible();
  await sheet(page).getByRole('button', { name: 'Set aside…' }).click();
  await sheet(page).getByLabel('Why it is set aside').fill('The room is taken.');
  await sheet(page).getByRole('button', { name: 'Set aside', exact: true }).click();
  await expect(slip).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(slip).toHaveCount(1);
  await slip.click();
  await sheet(page).getByRole('button', { name: 'Delete' }).click();
  await expect(slip).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).last().click();
  await expect(slip).toHaveCount(1);
});

test('a step that was ticked and an owner that was changed on the sheet are undone by key and from “Find and do”, which says what', async ({
  page,
}) => {
  await openCalendar(page, `?date=${TALK}`);
  await day(page, TALK).locator('[data-post]', { hasText: 'HL' }).click();
  const box = sheet(page).locator('.prep-step input[type=checkbox]:not(:checked)').first();
  const name = (await box.getAttribute('aria-label'))!.replace('Done: ', '');
  const tick = sheet(page).getByRole('checkbox', { name: `Done: ${name}` });
  await tick.check();
  await expect(tick).toBeChecked();
  const owner = sheet(page).getByLabel('Owner');
  const before = await owner.inputValue();
  await owner.selectOption({ index: (await owner.locator('option').count()) - 1 });
  await expect(owner).not.toHaveValue(before);
  await page.keyboard.press('ControlOrMeta+k');
  const deed = page.getByRole('option', { name: /^Undo: Gave “.*” another owner$/ });
  await expect(deed).toBeVisible();
  await deed.click();
  await expect(owner).toHaveValue(before);
  await page.locator('h1').click();
  await page.keyboard.press('ControlOrMeta+z');
  await expect(page.locator('.messages .toast').last()).toContainText(`Undone: ticked “${name}”.`);
  await expect(tick).not.toBeChecked();
});

test('dragging a scheduled post to the tray unschedules it, says so, and is undone', async ({ page }) => {
  await openCalendar(page);
  const cell = day(page, '2026-11-27');
  const slip = cell.locator('[data-post]', { hasText: 'PL' });
  const id = (await slip.getAttribute('data-post'))!;
  await carry(page, slip, page.getByRole('complementary', { name: 'Tray' }));
  await page.mouse.up();
  await expect(page.getByText('It is not scheduled any more and will not be sent.')).toBeVisible();
  const stage = async () => (await api<{ stage: string; date: string | null }>(page, 'GET', `/api/posts/${id}`)).body;
  expect(await stage()).toMatchObject({ stage: 'ready', date: null });
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(stage).toMatchObject({ stage: 'scheduled', date: '2026-11-27' });
});

test('a drop onto a past day is refused while dragging, with the reason', async ({ page }) => {
  await openCalendar(page);
  const slip = day(page, '2026-11-27').locator('[data-post]').first();
  await carry(page, slip, day(page, '2026-11-22'));
  await expect(page.locator('.drop-refusal')).toHaveText('that day has passed');
  await expect(day(page, '2026-11-22').locator('> .refusing')).toBeAttached();
  await page.mouse.up();
  await expect(page.getByText('Not moved: that day has passed.')).toBeVisible();
});

test('a post that leaves some time between two minutes gets its minute when it is scheduled', async ({ page }) => {
  await openCalendar(page);
  await day(page, '2026-11-27').locator('[data-post]', { hasText: 'PL' }).click();
  const open = sheet(page);
  await open.getByRole('button', { name: 'Unschedule' }).click();
  await open.getByRole('button', { name: 'Until: exactly. Change' }).click();
  await open.getByLabel('Until').fill('12:00');
  await page.keyboard.press('Enter');
  await expect(open.getByRole('button', { name: /^Until: – 12:00, some time/ })).toBeVisible();
  await open.getByRole('button', { name: /^Schedule for/ }).click();
  await expect(open.getByText('chosen between 10:05 and 12:00')).toBeVisible();
});

test('a published post is taken down, and why is kept', async ({ page }) => {
  await openCalendar(page);
  const slip = day(page, '2026-11-23').locator('[data-post]', { hasText: 'The Sombrero' }).first();
  await slip.click();
  const address = (await sheet(page)
    .getByRole('link', { name: /^See it on/ })
    .getAttribute('href'))!;
  await sheet(page).getByRole('button', { name: 'Take down…' }).click();
  await sheet(page).getByLabel('Why it is taken down from Glassrow').fill('The wrong night');
  await sheet(page).getByRole('button', { name: 'Take it down' }).click();
  await expect(sheet(page).getByText('It was taken down 23 Nov')).toBeVisible();
  await page.goto(address);
  await expect(page.getByText('This post is not here')).toBeVisible();
  await page.goto('/fennel-moor/departures/set-aside');
  await expect(page.getByText('taken down: The wrong night')).toBeVisible();
});
