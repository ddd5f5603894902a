import { api, CALENDAR, expect, openCalendar, sheet, takenOver, test } from './support/test';
import { expectNoneSideways, sideways } from './support/sideways';

test('titles of 200 letters without a space break nothing, and neither do steps and dialogs', async ({ page }) => {
  const long = (letter: string) => letter.repeat(200);
  await openCalendar(page, '?as=list');
  const ids = await page
    .locator('.list-row [data-post], [data-idea]')
    .evaluateAll((all) =>
      all.map((one) => ({ post: (one as HTMLElement).dataset.post, idea: (one as HTMLElement).dataset.idea })),
    );
  const posts = ids.flatMap(({ post }) => post ?? []).slice(-12);
  let pieceId = '';
  for (const id of posts) {
    const { body } = await api<{ version: number; pieceId: string; stage: string }>(page, 'GET', `/api/posts/${id}`);
    if (body.stage === 'published') continue;
    pieceId = body.pieceId;
    await api(page, 'PATCH', `/api/posts/${id}`, { version: body.version, title: long('w') });
    await api(page, 'POST', `/api/posts/${id}/steps`, {
      ...{ title: 'x'.repeat(120), work: 'words', ownerId: null, craft: null, lead: 0, leadIn: 'calendar' },
      ...{ minutes: 5, note: long('n'), needed: true },
    });
  }
  for (const id of ids.flatMap(({ idea }) => idea ?? [])) {
    const found = await api<unknown>(page, 'PATCH', `/api/pieces/${id}`, { version: 1, title: long('i') });
    expect([200, 409]).toContain(found.status);
  }
  await api(page, 'PATCH', `/api/pieces/${pieceId}`, { version: 1, title: long('p'), note: long('n') });
  const open = posts.at(-1)!;
  for (const place of [
    `${CALENDAR}?as=lanes`,
    `${CALENDAR}?as=month`,
    `${CALENDAR}?as=day`,
    `${CALENDAR}?as=stages`,
    `${CALENDAR}?as=list`,
    `${CALENDAR}?as=lanes&post=${open}`,
    '/fennel-moor/desk',
    '/fennel-moor/ideas',
    '/fennel-moor/pieces',
    '/fennel-moor/departures',
    '/fennel-moor/batch?work=words',
    `/fennel-moor/pieces/${pieceId}`,
    `/fennel-moor/pieces/${pieceId}/words`,
  ]) {
    await page.setViewportSize({ width: 390, height: 800 });
    await page.goto(place);
    await expectNoneSideways(page, place);
  }
  for (const width of [390, 1280]) {
    await page.setViewportSize({ width, height: 800 });
    await page.goto(`${CALENDAR}?as=lanes&post=${open}`);
    await takenOver(page);
    await expect(sheet(page).getByLabel('Working title')).toBeVisible();
    await page.keyboard.press('m');
    const dialog = page.getByRole('dialog', { name: /^Move/ });
    await expect(dialog).toBeVisible();
    expect({ width, over: await sideways(page) }).toEqual({ width, over: 0 });
    expect(await dialog.evaluate((one) => one.scrollWidth - one.clientWidth)).toBeLessThanOrEqual(0);
    await page.keyboard.press('Escape');
    // Only what lies above is closed by it.
    await expect(dialog).toBeHidden();
    await expect(sheet(page)).toBeVisible();
  }
});

test('a word goes on being typed in the search, the sheet is gone to and back by key, and slips are picked by key', async ({
  page,
}) => {
  await openCalendar(page);
  await page.keyboard.press('/');
  await page.keyboard.type('som', { delay: 20 });
  // Longer than the pause after which it is looked for.
  await expect(page).toHaveURL(/words=som/);
  await page.keyboard.type('brero', { delay: 20 });
  await expect(page.getByRole('searchbox', { name: 'Find words' })).toHaveValue('sombrero');
  await expect(page).toHaveURL(/words=sombrero/);

  await page.goto(`${CALENDAR}?as=month`);
  await openCalendar(page);
  const slips = page.locator('.arrangement [data-post]');
  await slips.nth(0).focus();
  await page.keyboard.press('x');
  await expect(slips.nth(0)).toHaveAttribute('aria-pressed', 'true');
  await slips.nth(2).focus();
  await page.keyboard.press('Shift+X');
  await expect(page.locator('.arrangement [data-post][aria-pressed="true"]')).toHaveCount(3);
  await page.keyboard.press('Escape');
  await expect(page.locator('.arrangement [data-post][aria-pressed="true"]')).toHaveCount(0);

  await slips.nth(0).focus();
  const id = await slips.nth(0).getAttribute('data-post');
  await page.keyboard.press('Enter');
  await expect(sheet(page)).toBeVisible();
  await page.keyboard.press('s');
  await expect(sheet(page)).toBeFocused();
  await page.keyboard.press('s');
  await expect(page.locator(`.arrangement [data-post="${id}"]`)).toBeFocused();
  // Escape closes what lies above first, and only that.
  await page.getByRole('button', { name: 'Saved views' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.locator('.dropdown-menu.show')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.locator('.dropdown-menu.show')).toHaveCount(0);
  await expect(sheet(page)).toBeVisible();
  // Closing it from within gives the focus back to where it stands.
  await sheet(page).getByRole('button', { name: 'Close' }).focus();
  await page.keyboard.press('Enter');
  await expect(sheet(page)).toHaveCount(0);
  await expect(page.locator(`.arrangement [data-post="${id}"]`)).toBeFocused();
  await expect(page).toHaveTitle(/^\(1\) Month, November 2026 – Fennel Moor Observatory/);
});
