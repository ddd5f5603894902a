import type { Locator, Page } from '@playwright/test';
import { carry, day, expect, openCalendar, saved, sheet, takenOver, test } from './support/test';

const PICTURE = 'demo/pictures/saturn.jpg';
const DATE = '2026-11-25';

/** Types the caption of the open post and, where its network asks for them, a title and a picture in its shape. */
async function write(page: Page, caption: string, needs: { title?: boolean; picture?: boolean; crop?: boolean }) {
  if (needs.title) await sheet(page).getByRole('textbox', { name: 'Title', exact: true }).fill('Rings, edge on');
  await sheet(page).getByRole('textbox', { name: 'Caption' }).fill(caption);
  if (needs.picture) {
    await sheet(page).locator('input[type=file]').setInputFiles(PICTURE);
    await expect(sheet(page).getByRole('img')).toHaveCount(1);
    await sheet(page)
      .getByRole('textbox', { name: /^Alt text/ })
      .fill('Saturn and its rings');
  }
  if (needs.crop) {
    await sheet(page).getByRole('button', { name: 'Crop', exact: true }).click();
    await page.getByRole('button', { name: 'Use this crop' }).click();
    await expect(sheet(page).getByRole('button', { name: 'cropped' })).toBeVisible();
  }
  await saved(page);
}

async function setTime(page: Page, time: string) {
  await sheet(page).getByRole('button', { name: /^Time/ }).click();
  await sheet(page).getByLabel('Time').fill(time);
  await page.keyboard.press('Enter');
  await expect(sheet(page).getByRole('button', { name: `Time: ${time}. Change` })).toBeVisible();
}

test.describe.serial('from an idea to three published posts', () => {
  test('by mouse', async ({ page, server }) => {
    await page.goto('/');
    await takenOver(page);
    await expect(page).toHaveURL(/fennel-moor\/calendar/);
    await expect(page.getByRole('heading', { name: '23 – 29 November' })).toBeVisible();
    await page.keyboard.press('2');
    await expect(page.getByRole('heading', { name: 'November 2026' })).toBeVisible();
    await expect(day(page, '2026-11-23').locator('[data-post]')).toHaveCount(6);

    await page.getByRole('button', { name: /Catch an idea/ }).click();
    await page.getByRole('dialog').getByLabel('Title').fill('Rings seen edge on');
    await page.keyboard.press('Enter');
    const idea = page.locator('[data-piece]', { hasText: 'Rings seen edge on' });
    await expect(idea).toBeVisible();

    await idea.getByRole('button', { name: 'Rings seen edge on', exact: true }).hover();
    await page.mouse.down();
    await day(page, '2026-11-21').hover();
    await day(page, DATE).hover();
    await day(page, DATE).hover();
    await expect(day(page, DATE)).toHaveAttribute('data-over', 'true');
    await page.mouse.up();
    const dialog = page.getByRole('dialog');
    for (const channel of ['Pithline', 'Glassrow', 'Corkwall']) await dialog.getByLabel(channel).check();
    await dialog.getByRole('button', { name: 'Plan 3 posts for Wed 25 Nov' }).click();
    const slips = day(page, DATE).locator('[data-post]', { hasText: 'Rings seen edge on' });
    await expect(slips).toHaveCount(3);
    await expect(slips.filter({ hasText: 'GR' })).toContainText('no caption');

    const before = await server.counts();
    for (const [sign, needs] of [
      ['PL', {}],
      ['GR', { picture: true }],
      ['CW', { title: true, picture: true, crop: true }],
    ] as const) {
      await slips.filter({ hasText: sign }).click();
      await expect(sheet(page).getByText(/left$/).first()).toBeVisible();
      await expect(sheet(page).getByRole('button', { name: 'Schedule', exact: true })).toBeDisabled();
      await write(page, `For a few weeks the rings are gone. (${sign})`, needs);
      await setTime(page, '11:44');
      await sheet(page).getByRole('button', { name: 'Schedule for Wed 25 Nov 11:44' }).click();
      await expect(sheet(page).getByText('Will be sent Wed 25 Nov 11:44')).toBeVisible();
    }

    // Words changed after scheduling are said not to be what leaves.
    await sheet(page).getByRole('textbox', { name: 'Caption' }).fill('These words came too late.');
    await expect(sheet(page).getByText('This is not what will be sent.')).toBeVisible();
    await saved(page);

    // Dragged to the next day and back by its sheet: it is re-timed.
    const corkwall = slips.filter({ hasText: 'CW' });
    await carry(page, corkwall, day(page, '2026-11-26'));
    await page.mouse.up();
    await expect(page.getByText('It will be sent then, at 11:44.')).toBeVisible();
    await page.getByRole('button', { name: 'Undo' }).last().click();
    await expect(day(page, DATE).locator('[data-post]', { hasText: 'CW' }).filter({ hasText: 'Rings' })).toBeVisible();

    await server.goTo(`${DATE}T11:44:00.000Z`);
    await page.goto('/fennel-moor/departures');
    const rows = page.getByRole('row', { name: /Rings seen edge on/ });
    await expect(rows).toHaveCount(3);
    await expect(rows.filter({ hasText: /published 11:44/ })).toHaveCount(3);
    const after = await server.counts();
    for (const network of ['pithline', 'glassrow', 'corkwall'])
      expect(after.accepted[network]! - before.accepted[network]!).toBeGreaterThanOrEqual(1);

    const link = rows.filter({ hasText: 'CW' }).getByRole('link', { name: /See it/ });
    await page.goto((await link.getAttribute('href'))!);
    await expect(page.getByRole('article')).toContainText('For a few weeks the rings are gone. (CW)');
    await expect(page.getByRole('article')).not.toContainText('too late');
    await expect(page.getByRole('img', { name: 'Saturn and its rings' })).toBeVisible();
    for (const network of ['pithline', 'glassrow']) {
      await page.goto(`/standins/${network}`);
      await expect(page.getByRole('article').filter({ hasText: 'For a few weeks the rings are gone.' })).toHaveCount(1);
    }
  });

  test('by keyboard alone', async ({ page, server }) => {
    await server.goTo('2026-11-25T12:00:00.000Z');
    await openCalendar(page);
    await page.keyboard.press('i');
    await expect(page.getByRole('dialog').getByLabel('Title')).toBeFocused();
    await page.keyboard.type('Keyboard moon');
    await page.keyboard.press('Enter');
    await expect(page.locator('[data-piece]', { hasText: 'Keyboard moon' })).toBeVisible();

    await tabTo(page, page.getByRole('button', { name: 'Keyboard moon', exact: true }));
    await page.keyboard.press('Space');
    await expect(page.locator('[data-lifted]')).toContainText('Keyboard moon');
    await page.keyboard.press('ArrowRight');
    await expect(day(page, '2026-11-25')).toHaveAttribute('data-over', 'true');
    await page.keyboard.press('ArrowRight');
    await expect(day(page, '2026-11-26')).toHaveAttribute('data-over', 'true');
    await page.keyboard.press('ArrowUp');
    await expect(day(page, '2026-11-19').locator('> .refusing')).toBeAttached();
    await page.keyboard.press('ArrowDown');
    await expect(day(page, '2026-11-26')).toHaveAttribute('data-over', 'true');
    await page.keyboard.press('Space');

    const dialog = page.getByRole('dialog');
    await tabTo(page, dialog.getByLabel('Pithline'));
    await page.keyboard.press('Space');
    await tabTo(page, dialog.getByRole('button', { name: /^Plan 1 post for Thu 26 Nov/ }));
    await page.keyboard.press('Enter');
    const slip = day(page, '2026-11-26').locator('[data-post]', { hasText: 'Keyboard moon' });
    await expect(slip).toBeVisible();

    // Escape puts back what was lifted.
    await tabTo(page, slip);
    await page.keyboard.press('Space');
    await page.keyboard.press('ArrowRight');
    await expect(day(page, '2026-11-27')).toHaveAttribute('data-over', 'true');
    await page.keyboard.press('Escape');
    await expect(slip).toBeVisible();

    await tabTo(page, slip);
    await page.keyboard.press('Enter');
    await tabTo(page, sheet(page).getByRole('button', { name: /^Time/ }));
    await page.keyboard.press('Enter');
    await page.keyboard.type('1005');
    await page.keyboard.press('Enter');
    await expect(sheet(page).getByRole('button', { name: /^Time: 10:05/ })).toBeVisible();
    await tabTo(page, sheet(page).getByRole('textbox', { name: 'Caption' }));
    await page.keyboard.type('Half of it, from half past five.');
    await saved(page);
    await tabTo(page, sheet(page).getByRole('button', { name: 'Schedule for Thu 26 Nov 10:05' }));
    await page.keyboard.press('Enter');
    await expect(sheet(page).getByText('Will be sent Thu 26 Nov 10:05')).toBeVisible();
    await server.goTo('2026-11-26T10:05:00.000Z');
    await expect(sheet(page).getByText(/^Published /)).toBeVisible();
    await page.keyboard.press('Escape');
    await expect(sheet(page)).toBeHidden();
  });
});

/** Presses Tab until something has the focus, as a person without a mouse would. */
async function tabTo(page: Page, target: Locator) {
  await expect(target).toBeVisible();
  for (let presses = 0; presses < 250; presses++) {
    if (await target.evaluate((element) => element === document.activeElement)) return;
    await page.keyboard.press('Tab');
  }
  throw new Error('Tab does not reach it');
}
