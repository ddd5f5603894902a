import { api, day, expect, openCalendar, sheet, test } from './support/test';

test('a reviewer looks at everything, is offered no change, and is refused one all the same', async ({ page }) => {
  await openCalendar(page);
  const slip = page.locator('[data-post]', { hasText: 'Family hour' }).first();
  const id = (await slip.getAttribute('data-post'))!;
  const { version } = (await api<{ version: number }>(page, 'GET', `/api/posts/${id}`)).body;
  await page.getByRole('button', { name: /^You are/ }).click();
  await page.getByRole('button', { name: /reviewer/ }).click();
  await expect(page.getByRole('button', { name: 'You are P. Lund. Switch' })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Catch an idea/ })).toHaveCount(0);

  // Neither the mouse nor a key moves or makes anything.
  await page.keyboard.press('n');
  await page.keyboard.press('i');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  const before = await slip.locator('xpath=ancestor::td').getAttribute('data-date');
  const [from, to] = [(await slip.boundingBox())!, (await day(page, '2026-11-26').boundingBox())!];
  await page.mouse.move(from.x + 10, from.y + 10);
  await page.mouse.down();
  await page.mouse.move(to.x + 20, to.y + 20, { steps: 5 });
  await page.mouse.up();
  await expect(slip.locator('xpath=ancestor::td')).toHaveAttribute('data-date', before!);

  await page.goto(`/fennel-moor/calendar?post=${id}`);
  await expect(sheet(page).getByText('You can look at this post, not change it.')).toBeVisible();
  await expect(sheet(page).getByLabel('Caption').first()).toBeDisabled();
  await expect(sheet(page).getByRole('button', { name: 'Move' })).toHaveCount(0);
  const edited = await api(page, 'PATCH', `/api/posts/${id}`, { version, caption: 'Mine' });
  const scheduled = await api(page, 'POST', `/api/posts/${id}/deeds`, { deed: 'schedule', version });
  expect([edited.status, scheduled.status]).toEqual([403, 403]);

  // Openings, empty cells and what comes again ask for nothing.
  await openCalendar(page, '?as=lanes&date=2026-11-30');
  await expect(page.locator('[data-opening]').first()).toBeDisabled();
  await page.goto('/fennel-moor/pieces');
  await expect(page.getByRole('table')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Draft/ })).toHaveCount(0);
  await page.goto('/fennel-moor/pieces/encores');
  await expect(page.getByLabel(/may come again$/).first()).toBeDisabled();

  await page.goto('/fennel-moor/settings/channels');
  await expect(page.getByText('This page is not for your role')).toBeVisible();
  await page.getByRole('link', { name: 'People', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Who may do what' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Add them' })).toHaveCount(0);
});

test('a brand says whether its makers send', async ({ page }) => {
  await page.goto('/fennel-moor/settings');
  // What is chosen before the form answers is not known to it.
  await page.waitForLoadState('networkidle');
  await page.getByLabel('Makers schedule posts and mark them as published').selectOption('no, managers do');
  await page.getByRole('link', { name: 'Desk' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Stay here' }).click();
  await page.getByRole('button', { name: 'Save the brand' }).click();
  await expect(page.getByText('Saved.')).toBeVisible();
  await page.getByRole('link', { name: 'Desk' }).click();
  await page.getByRole('button', { name: /^You are/ }).click();
  await page.getByRole('button', { name: /^Bex/ }).click();
  await expect(page.getByRole('button', { name: 'You are Bex. Switch' })).toBeVisible();
  await page.goto('/fennel-moor/calendar?as=lanes');
  await page.locator('[data-post]', { hasText: 'Friday question 32' }).first().click();
  await expect(sheet(page).getByText(/^Will be sent/)).toBeVisible();
  await expect(sheet(page).getByRole('button', { name: 'Unschedule' })).toHaveCount(0);
  await expect(sheet(page).getByRole('button', { name: 'Set aside…' })).toBeVisible();
});
