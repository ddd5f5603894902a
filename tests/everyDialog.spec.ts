import { expectNothingFound } from './support/axe';
import { DIALOGS } from './support/places';
import { oldLabels } from './support/plainWords';
import { dangling, walk } from './support/tabWalk';
import { day, expect, openCalendar, sheet, test } from './support/test';

test('in the open post, on a piece and in every dialog words are plain, axe finds nothing on either ground, and Tab leads through what is seen and named', async ({
  page,
}) => {
  test.setTimeout(600_000);
  const look = async (name: string, within?: string) => {
    expect([name, await oldLabels(page)]).toEqual([name, []]);
    await expectNothingFound(page, name, within);
    expect({ name, wrong: await walk(page) }).toEqual({ name, wrong: [] });
    expect({ name, dangling: await dangling(page) }).toEqual({ name, dangling: [] });
  };
  await page.goto('/fennel-moor/pieces');
  await page.getByRole('table').getByRole('link').first().click();
  await expect(page.getByRole('heading', { name: 'Posts', exact: true })).toBeVisible();
  await look('piece');
  await openCalendar(page);
  await day(page, '2026-11-25').locator('[data-post]').first().click();
  await expect(sheet(page).getByRole('list', { name: 'Stage' })).toBeVisible();
  await look('sheet');
  for (const [at, open] of DIALOGS.entries()) {
    await openCalendar(page);
    await open(page);
    await expect(page.getByRole('dialog')).toBeVisible();
    // The page below it was looked at before, and cannot be reached.
    await look(`dialog ${at + 1}`, '[role="dialog"]');
  }
});
