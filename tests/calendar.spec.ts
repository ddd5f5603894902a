import type { Page } from '@playwright/test';
import { api, carry, expect, openCalendar, sheet, test } from './support/test';

/** A channel's day in the lanes. */
const lane = (page: Page, callSign: string, date: string) =>
  page
    .locator('.lanes tbody tr')
    .filter({ has: page.locator('th .call-sign', { hasText: callSign }) })
    .locator(`td[data-date="${date}"]`);
const openLanes = (page: Page, query = '') => openCalendar(page, `?as=lanes${query}`);
const message = (page: Page) => page.locator('.messages .toast').last();

test('lanes, month, day, stages and list show the same posts, with the open post staying open', async ({ page }) => {
  await page.goto('/fennel-moor/calendar');
  await expect(page.getByRole('heading', { name: '23 – 29 November' })).toBeVisible();
  await expect(page.locator('[id^="DndLiveRegion"]')).toBeAttached();
  await lane(page, 'GR', '2026-11-25').locator('[data-post]').click();
  await expect(sheet(page)).toBeVisible();
  const title = await sheet(page).getByRole('textbox', { name: 'Working title' }).inputValue();
  for (const [key, heading] of [
    ['2', 'November 2026'],
    ['3', 'Monday 23 November'],
    ['4', 'By stage'],
    ['5', 'Around November 2026'],
    ['1', '23 – 29 November'],
  ] as const) {
    await page.locator('h1').click();
    await page.keyboard.press(key);
    await expect(page.getByRole('heading', { level: 1, name: heading })).toBeVisible();
    await expect(sheet(page).getByRole('textbox', { name: 'Working title' })).toHaveValue(title);
  }
  await expect(page).toHaveURL(/as=lanes/);
  await page.reload();
  await expect(sheet(page).getByRole('textbox', { name: 'Working title' })).toHaveValue(title);
  await page.goBack();
  await expect(page.getByRole('heading', { level: 1, name: 'Around November 2026' })).toBeVisible();
});

for (const [width, height] of [
  [1280, 800],
  [1920, 1080],
] as const)
  test(`one week of eight channels, and two in line density, need no sideways scrolling at ${width}`, async ({
    page,
  }) => {
    await page.setViewportSize({ width, height });
    for (const query of ['', '&weeks=2']) {
      await openLanes(page, query);
      await expect(page.locator('.lanes tbody tr')).toHaveCount(8);
      await expect(page.locator('.lanes thead .day-column')).toHaveCount(query ? 14 : 7);
      const overflow = await page.evaluate(() =>
        [...document.querySelectorAll('.arrangement-scroll, .lanes td, .lane-name .name, html')]
          .filter((element) => element.scrollWidth > element.clientWidth + 1)
          .map((element) => `${element.className} ${element.textContent?.slice(0, 40)}`),
      );
      expect(overflow).toEqual([]);
    }
  });

test('an idea dropped on an opening becomes a post with its channel, time and format, and the horizon grows', async ({
  page,
}) => {
  await openLanes(page);
  const opening = lane(page, 'GR', '2026-11-24').locator('[data-opening]');
  await expect(opening).toContainText('18:00');
  await expect(opening).toContainText('carousel · New object');
  const horizon = page.locator('.lanes tbody tr').first().locator('.horizon');
  await expect(horizon).toContainText('filled until today');
  await carry(page, page.getByRole('button', { name: 'Five questions children ask', exact: false }).first(), opening);
  await expect(lane(page, 'GR', '2026-11-24').locator('.opening')).toHaveAttribute('data-over', 'true');
  await page.mouse.up();
  await expect(message(page)).toContainText('Planned “Five questions');
  const slip = lane(page, 'GR', '2026-11-24').locator('[data-post]');
  await expect(slip).toContainText('18:00');
  await expect(opening).toHaveCount(0);
  await slip.click();
  await expect(sheet(page).getByLabel('Format')).toHaveValue('carousel');
  // Without words it fills the opening, but no horizon.
  await expect(horizon).toContainText('filled until today');
  await sheet(page).getByRole('textbox', { name: 'Caption' }).fill('Collected on the family hour.');
  await expect(horizon).toContainText('filled until 6 Dec', { timeout: 40_000 });
});

test('by keyboard: an idea goes into an opening, a post to another day and lane; all of it is spoken', async ({
  page,
}) => {
  await openLanes(page);
  const spoken = page.locator('[id^="DndLiveRegion"]');
  const idea = page.getByRole('button', { name: 'Clouded out? What we do instead', exact: true });
  await idea.focus();
  await page.keyboard.press('Space');
  await expect(spoken).toContainText(/Lifted “Clouded out\?|the tray/);
  await page.keyboard.press('ArrowRight');
  await expect(spoken).toContainText('Monday 23 November, Glassrow');
  await page.keyboard.press('ArrowLeft');
  for (const [key, place] of [
    ['ArrowDown', 'Monday 23 November, Tallclip'],
    ['ArrowDown', 'Monday 23 November, Benchfeed'],
    ['ArrowRight', 'Tuesday 24 November, Benchfeed'],
    ['ArrowDown', 'Tuesday 24 November, Benchfeed, 08:10'],
  ] as const) {
    await page.keyboard.press(key);
    await expect(spoken).toContainText(`${place}.`);
  }
  await page.keyboard.press('Space');
  const slip = lane(page, 'BF', '2026-11-24').locator('[data-post]');
  await expect(slip).toContainText('08:10');

  // Keys faster than the page can draw count one after the other all the same, the drop too.
  await slip.focus();
  await slip.evaluate((element) => {
    for (const code of ['Space', 'ArrowRight', 'ArrowDown', 'Enter'])
      element.dispatchEvent(
        new KeyboardEvent('keydown', { code, key: code === 'Space' ? ' ' : code, bubbles: true, cancelable: true }),
      );
  });
  await expect(spoken).toContainText('Dropped “Clouded out? What we do instead” on Wednesday 25 November, Pithline.');
  await expect(lane(page, 'PL', '2026-11-25').locator('[data-post]')).toContainText('Clouded out?');
  await expect(message(page)).toContainText('Moved 1 post.');

  // The same can be done in a dialog.
  await lane(page, 'PL', '2026-11-25').locator('[data-post]').press('Enter');
  await expect(sheet(page).getByRole('button', { name: /^Move/ })).toBeVisible();
  await page.locator('h1').click();
  await page.keyboard.press('m');
  const dialog = page.getByRole('dialog', { name: /^Move/ });
  await dialog.getByLabel('Channel').selectOption({ label: 'Benchfeed' });
  await dialog.getByLabel('Time').fill('9');
  await dialog.getByRole('button', { name: 'Move to Wed 25 Nov 09:00 on Benchfeed' }).click();
  await expect(lane(page, 'BF', '2026-11-25').locator('[data-post]')).toContainText('09:00');
});

test('what may not be is refused while dragging, with the reason', async ({ page }) => {
  await openLanes(page, '&brands=fennel-moor,tidewrack&date=2026-11-25');
  await expect(page.locator('.lanes tbody tr')).toHaveCount(13);
  const slip = lane(page, 'TC', '2026-11-25').first().locator('[data-post]').first();
  const refusal = page.locator('.drop-refusal');
  await carry(page, slip, page.locator('.lanes tbody tr').nth(9).locator('td[data-date="2026-11-26"]'));
  await expect(refusal).toHaveText('that channel is another brand’s');
  await page.mouse.up();
  await expect(message(page)).toHaveText(/Not moved: that channel is another brand’s/);
  const out = lane(page, 'GR', '2026-11-23').first().locator('[data-post]').first();
  await carry(page, out, lane(page, 'GR', '2026-11-26').first());
  await expect(refusal).toHaveText('published posts stay as they are');
  await page.mouse.up();
  await page.goto('/fennel-moor/calendar?as=lanes&date=2026-11-18');
  await expect(page.locator('[id^="DndLiveRegion"]')).toBeAttached();
  await carry(
    page,
    page.getByRole('button', { name: 'Star atlas from 1901', exact: false }).first(),
    lane(page, 'CW', '2026-11-20'),
  );
  await expect(refusal).toHaveText('that day has passed');
  await page.mouse.up();
});

test('a post moved to another lane keeps its words and says what does not fit there', async ({ page }) => {
  await openLanes(page, '&date=2026-11-30');
  const source = lane(page, 'GR', '2026-12-02').locator('[data-post]');
  await source.click();
  await sheet(page).getByRole('textbox', { name: 'Caption' }).fill('x'.repeat(500));
  await expect(sheet(page).getByRole('status').first()).toHaveText('saved');
  await page.keyboard.press('Escape');
  await page.locator('h1').click();
  await page.keyboard.press('Escape');
  await carry(page, source, lane(page, 'PL', '2026-12-02'));
  await page.mouse.up();
  await expect(message(page)).toContainText('Pithline takes 320, this has');
  await page.getByRole('button', { name: 'Undo' }).last().click();
  await expect(message(page)).toContainText('Undone');
  await expect(source).toHaveCount(1);
});

test('many at once: picked by click and box, moved, told in one message, undone by Ctrl+Z', async ({ page }) => {
  await openLanes(page, '&date=2026-11-30');
  const posts = page.locator('.lanes td [data-post]');
  const before = await posts.count();
  await lane(page, 'PL', '2026-12-01')
    .locator('[data-post]')
    .first()
    .click({ modifiers: ['ControlOrMeta'] });
  await lane(page, 'PL', '2026-12-03')
    .locator('[data-post]')
    .first()
    .click({ modifiers: ['ControlOrMeta'] });
  const bar = page.getByRole('toolbar', { name: 'Change the picked posts' });
  await expect(bar).toContainText('2 picked');
  await bar.getByLabel('Days, earlier when negative').fill('-9');
  await bar.getByRole('button', { name: 'Move by' }).click();
  await expect(message(page)).toContainText('Moved 1 post 9 days earlier. Not changed: 1.');
  await expect(message(page)).toContainText('2026-11-22 has passed');
  await expect(posts).toHaveCount(before - 1);
  await page.locator('h1').click();
  await page.keyboard.press('ControlOrMeta+z');
  await expect(message(page)).toContainText('Undone: moved 1 post');
  await expect(posts).toHaveCount(before);

  const cell = (await lane(page, 'PL', '2026-12-01').boundingBox())!;
  const end = (await lane(page, 'PL', '2026-12-04').boundingBox())!;
  await page.mouse.move(cell.x + 50, cell.y + cell.height - 5);
  await page.mouse.down();
  await page.mouse.move(end.x + end.width - 8, end.y + 6, { steps: 4 });
  await page.mouse.up();
  await expect(bar).toContainText(/[345] picked/);
  await bar.getByRole('button', { name: 'Duplicate' }).click();
  await page.getByRole('button', { name: 'Copy them one week later' }).click();
  await expect(message(page)).toContainText(/Made [345] posts as a copy, 7 days later/);
  await page.getByRole('button', { name: 'Undo' }).last().click();
  await expect(message(page)).toContainText('Undone: made');
  await bar.getByRole('button', { name: 'Done' }).click();
  await expect(bar).toBeHidden();
});

test('a move while the server is gone stays marked, survives a reload, and is saved when it is back', async ({
  page,
}) => {
  await openLanes(page, '&date=2026-12-07');
  const slip = page.locator('.lanes td [data-post]').first();
  const id = (await slip.getAttribute('data-post'))!;
  const row = page.locator('.lanes tbody tr').filter({ has: page.locator(`[data-post="${id}"]`) });
  const target = row.locator('td[data-date="2026-12-13"]');
  await page.route('**/api/calendar/changes', (route) => route.abort());
  await carry(page, slip, target);
  await page.mouse.up();
  await expect(target.locator(`[data-post="${id}"].is-unsaved`)).toBeVisible();
  await expect(page.getByText('not saved yet, trying again')).toBeVisible();
  await page.reload();
  await expect(target.locator(`[data-post="${id}"].is-unsaved`)).toBeVisible();
  await page.unroute('**/api/calendar/changes');
  await expect(message(page)).toContainText('Moved 1 post.');
  await page.reload();
  await expect(target.locator(`[data-post="${id}"]`)).toBeVisible();
  await expect(page.locator('.is-unsaved')).toHaveCount(0);
});

test('a move of a post somebody else just changed is refused, and shows what is there now', async ({ page }) => {
  await openLanes(page, '&date=2026-12-07');
  const slip = page.locator('.lanes td [data-post]').first();
  const id = (await slip.getAttribute('data-post'))!;
  const { body } = await api<{ version: number }>(page, 'GET', `/api/posts/${id}`);
  await api(page, 'PATCH', `/api/posts/${id}`, { version: body.version, title: 'Changed meanwhile' });
  const row = page.locator('.lanes tbody tr').filter({ has: page.locator(`[data-post="${id}"]`) });
  await carry(page, slip, row.locator('td[data-date="2026-12-10"]'));
  await page.mouse.up();
  await expect(message(page)).toContainText('Somebody else changed this while');
  await expect(page.locator(`[data-post="${id}"]`)).toContainText('Changed meanwhile');
});

test('a view that was read before a move, but comes after it, does not put the post back', async ({ page }) => {
  await openLanes(page, '&date=2026-12-14');
  const slip = page.locator('.lanes td [data-post]').first();
  const id = (await slip.getAttribute('data-post'))!;
  const row = page.locator('.lanes tbody tr').filter({ has: page.locator(`[data-post="${id}"]`) });
  const target = row.locator('td[data-date="2026-12-19"]');
  let release = () => {};
  const released = new Promise<void>((resolve) => (release = resolve));
  const isRead = new Promise<void>((resolve) => {
    void page.route(
      /[?&]_rsc=/,
      async (route) => {
        const response = await route.fetch();
        resolve();
        await released;
        await route.fulfill({ response });
      },
      { times: 1 },
    );
  });
  await page.evaluate(() => document.dispatchEvent(new Event('visibilitychange')));
  await isRead;
  await carry(page, slip, target);
  await page.mouse.up();
  await expect(message(page)).toContainText('Moved 1 post.');
  // However the lanes are drawn from here on, the post stays on its new day.
  await target.evaluate((cell, id) => {
    cell.dataset.missed = '0';
    new MutationObserver(() => {
      if (!cell.querySelector(`[data-post="${id}"]`)) cell.dataset.missed = '1';
    }).observe(cell.closest('table')!, { subtree: true, childList: true });
  }, id);
  let views = 0;
  page.on('response', (response) => void (views += Number(/[?&]_rsc=/.test(response.url()))));
  release();
  // The one held back, and the one read after the move, which comes by itself.
  await expect.poll(() => views).toBeGreaterThanOrEqual(2);
  await expect(target.locator(`[data-post="${id}"]`)).toBeVisible();
  await expect(target).toHaveAttribute('data-missed', '0');
});

test('the list shows its rows as soon as it is switched to, from today on', async ({ page }) => {
  await openCalendar(page, '?as=month');
  await page.keyboard.press('5');
  await expect(page.getByRole('table', { name: 'Posts' })).toBeVisible();
  await expect(page.locator('.list-row [data-post]').first()).toBeVisible({ timeout: 5_000 });
  await expect(page.getByRole('button', { name: /Mon 23 Nov/ }).first()).toBeInViewport();
});

test('stages take drops, say why not, and the list is edited in place', async ({ page }) => {
  await openCalendar(page, '?as=stages');
  const column = (name: string) => page.getByRole('region', { name: new RegExp(`^${name},`) });
  const lacking = column('production').locator('[data-post]', { hasText: 'no picture' }).first();
  await carry(page, lacking, column('ready'));
  await page.mouse.up();
  await expect(message(page)).toContainText('Not ready yet.');
  const fit = column('sign-off').locator('[data-post]').first();
  const name = (await fit.locator('.slip-title').textContent())!;
  await carry(page, fit, column('ready'));
  await page.mouse.up();
  await expect(message(page)).toContainText('Moved 1 post to ready.');
  await expect(column('ready').locator('[data-post]', { hasText: name }).first()).toBeVisible();
  await column('published').getByRole('button', { expanded: true }).click();
  await expect(column('published').locator('[data-post]')).toHaveCount(0);
  await expect(page).toHaveURL(/fold=published/);

  await openCalendar(page, '?as=list&group=none&stage=ready');
  const row = page.getByRole('row').filter({ hasText: name }).first();
  await row.hover();
  await row.getByRole('button', { name: /^Rename/ }).click();
  await page.getByLabel(`Working title of ${name}`).fill('Named in the list');
  await page.keyboard.press('Enter');
  await expect(message(page)).toContainText('Renamed 1 post.');
  const renamed = page.getByRole('row').filter({ hasText: 'Named in the list' });
  await renamed.hover();
  await renamed.getByLabel('Stage of Named in the list').selectOption('production');
  await expect(message(page)).toContainText('Moved 1 post to production.');
  await page.getByRole('columnheader', { name: 'Title' }).getByRole('button').click();
  await expect(page).toHaveURL(/sort=title/);
});

test('filters narrow every arrangement, stand in the address, and are kept as a saved view', async ({ page }) => {
  await openLanes(page);
  const posts = page.locator('.lanes td [data-post]');
  await expect(posts.first()).toBeVisible();
  const all = await posts.count();
  await page.keyboard.press('/');
  await page.keyboard.type('sombrero');
  await expect(page).toHaveURL(/words=sombrero/);
  await expect.poll(() => posts.count()).toBeLessThan(all);
  await expect(posts.filter({ hasText: 'Sombrero' }).first()).toBeVisible();
  await page.getByRole('button', { name: 'Channels: All channels' }).click();
  await page.getByRole('checkbox', { name: 'Corkwall' }).check();
  await expect(page.locator('.lanes tbody tr')).toHaveCount(1);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Saved views' }).click();
  await page.getByLabel('Name of this view').fill('Sombrero on the wall');
  await page.getByRole('button', { name: 'Save view' }).click();
  await expect(message(page)).toContainText('Saved as “Sombrero on the wall”.');
  await page.getByRole('button', { name: 'Show all' }).click();
  await expect(page.locator('.lanes tbody tr')).toHaveCount(8);
  await page.getByRole('button', { name: 'Saved views' }).click();
  await page.getByRole('button', { name: 'Sombrero on the wall', exact: true }).click();
  await expect(page.locator('.lanes tbody tr')).toHaveCount(1);
});

test('colour means what is chosen, and slips show the facts that are chosen', async ({ page }) => {
  await openLanes(page, '&colour=pillar&shows=time,title,owner');
  const slip = lane(page, 'GR', '2026-11-25').locator('[data-post]');
  await expect(slip).toHaveClass(/has-band/);
  await expect(slip.locator('.slip-facts')).toHaveText(/Bex|Ines|Jonah/);
  await expect(slip.locator('.notches')).toHaveCount(0);
});

test('lanes of one week and two, and one month print on one page each, with whole titles', async ({ page }) => {
  for (const query of ['?as=lanes', '?as=lanes&weeks=2', '?as=month']) {
    await openCalendar(page, query);
    const pdf = (await page.pdf({ preferCSSPageSize: true })).toString('latin1');
    const pages = pdf.match(/\/Type\s*\/Page\b/g)!.length;
    expect(`${query}: ${pages}`).toBe(`${query}: 1`);
    expect(pdf).toMatch(/\/MediaBox \[0 0 84[12][.\d]* 59[45]/);
    await page.emulateMedia({ media: 'print' });
    const cut = await page
      .locator('.arrangement .slip-title, .arrangement .slip.is-line .visually-hidden')
      .evaluateAll(
        (titles) =>
          titles.filter(
            ({ clientWidth, scrollWidth, clientHeight, scrollHeight }) =>
              clientWidth < 20 || scrollWidth > clientWidth + 1 || scrollHeight > clientHeight + 4,
          ).length,
      );
    expect(`${query}: ${cut} cut`).toBe(`${query}: 0 cut`);
    await page.emulateMedia({ media: null });
  }
});

test('any text of a post is a column of the list, written in its row and kept in a saved address', async ({ page }) => {
  await openCalendar(page, '?as=list&group=none&stage=ready&columns=date,channel,title');
  await page.getByRole('button', { name: /^Columns/ }).click();
  await page.getByRole('checkbox', { name: 'Caption' }).check();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Tall rows' }).click();
  await expect(page).toHaveURL(/columns=[^&]*caption.*rows=tall/);
  const cell = page.getByRole('button', { name: /^Caption of .*Change$/ }).first();
  const label = (await cell.getAttribute('aria-label'))!.replace(/: [\s\S]*$/, '');
  await cell.click();
  const field = page.getByRole('textbox', { name: label });
  await field.fill('Written in its row.');
  await page.keyboard.press('Control+Enter');
  await expect(field).toHaveCount(0);
  await page.reload();
  await expect(page.getByRole('button', { name: `${label}: Written in its row.. Change` })).toBeVisible();
});

test('the list prints all its rows, one below the other', async ({ page }) => {
  await openCalendar(page, '?as=list&period=month&group=none');
  const count = Number((await page.locator('.place-head .soft').first().textContent())!.split(' ')[0]);
  await page.emulateMedia({ media: 'print' });
  await page.evaluate(() => dispatchEvent(new Event('beforeprint')));
  const boxes = await page
    .locator('.list-row:not(.list-head)')
    .evaluateAll((rows) => rows.map((row) => row.getBoundingClientRect()).map(({ top, bottom }) => [top, bottom]));
  expect(boxes).toHaveLength(count);
  for (const [index, [top]] of boxes.slice(1).entries()) expect(top).toBeGreaterThanOrEqual(boxes[index]![1]! - 1);
  await page.evaluate(() => dispatchEvent(new Event('afterprint')));
  await expect.poll(() => page.locator('.list-row').count()).toBeLessThan(count);
});

test('at 390 px the calendar opens on the day', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto('/fennel-moor/calendar');
  await expect(page.getByRole('heading', { level: 1, name: 'Monday 23 November' })).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
});
