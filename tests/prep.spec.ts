import type { Page } from '@playwright/test';
import { api, expect, fillDate, openCalendar, saved, sheet, takenOver, test } from './support/test';

/** Plans a piece on Tallclip for a day and opens its sheet. */
async function planVideo(page: Page, title: string, date: string): Promise<void> {
  await openCalendar(page, '?as=lanes&date=2026-12-01');
  await page.keyboard.press('n');
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Working title').fill(title);
  await dialog.getByRole('checkbox', { name: 'Tallclip' }).check();
  await fillDate(dialog.getByRole('group', { name: 'Date' }), date);
  await dialog.getByRole('button', { name: /^Plan for/ }).click();
  await expect(sheet(page)).toBeVisible();
}

const prep = (page: Page) => sheet(page).getByRole('region', { name: 'Prep' });
const dayOf = (page: Page, step: string) =>
  prep(page)
    .locator('.prep-step', { hasText: step })
    .getByRole('button', { name: new RegExp(`^Day of ${step}`) });

test('a video planned for a Friday has its steps on earlier days for the right people; moved, they follow', async ({
  page,
}) => {
  await planVideo(page, 'The dome by night', '2026-12-11');
  const rows = prep(page).locator('.prep-step');
  await expect(rows).toHaveCount(6);
  await expect(rows.nth(1)).toContainText('Record');
  await expect(rows.nth(1)).toContainText('Jonah');
  await expect(rows.nth(4)).toContainText('Bex');
  // Four of Jonah's working days (Tuesday to Friday) before Friday the 11th.
  await expect(dayOf(page, 'Record')).toHaveText('Fri 4 Dec');
  await expect(dayOf(page, 'Edit')).toHaveText('Tue 8 Dec');
  await expect(dayOf(page, 'Reply to comments')).toHaveText('Sat 12 Dec');

  await sheet(page)
    .getByRole('button', { name: /^Date:/ })
    .click();
  await fillDate(sheet(page).getByRole('group', { name: 'Date' }), '2026-11-25');
  await page.keyboard.press('Enter');
  await expect(dayOf(page, 'Record')).toHaveText('Wed 18 Nov');
  await expect(prep(page)).toContainText('3 with too little time');
  await expect(rows.nth(1)).toContainText('too little time');
});

test('steps are added, renamed, pinned, put in order and ticked on the sheet', async ({ page }) => {
  await planVideo(page, 'Slit in the moonlight', '2026-12-10');
  await prep(page).getByRole('button', { name: 'Add a step' }).click();
  await prep(page).getByLabel('What the step is').fill('Borrow the red lamp');
  await prep(page).getByLabel('who').selectOption({ label: 'Bex' });
  await prep(page).getByRole('button', { name: 'Add the step' }).click();
  const last = prep(page).locator('.prep-step').last();
  await expect(last).toContainText('Borrow the red lamp');
  await expect(last).toContainText('Bex');

  await last.getByRole('button', { name: 'Borrow the red lamp', exact: true }).click();
  await last.getByLabel('What the step is').fill('Fetch the red lamp');
  await last.getByRole('button', { name: 'Change the step' }).click();
  await prep(page).getByRole('button', { name: 'Fetch the red lamp', exact: true }).click();
  await prep(page).getByRole('button', { name: 'Move earlier', exact: true }).click();
  await expect(prep(page).locator('.prep-step').nth(5)).toContainText('Fetch the red lamp');

  await dayOf(page, 'Fetch the red lamp').click();
  await fillDate(prep(page).getByRole('group', { name: 'Day of Fetch the red lamp' }), '2026-12-08');
  await page.keyboard.press('Enter');
  await expect(prep(page).getByRole('button', { name: 'Unpin Fetch the red lamp' })).toBeVisible();
  await prep(page).getByLabel('Done: Write the script').check();
  await expect(prep(page)).toContainText('1 of 7');
  const slip = page.locator('.lanes [data-post]', { hasText: 'Slit in the moonlight' });
  await openCalendar(page, '?as=lanes&date=2026-12-10');
  await expect(slip.getByRole('img', { name: /words 1 of 3/ })).toBeVisible();
});

test('what the team wants keeps a post from ready until it is done or let go with a reason', async ({ page }) => {
  await planVideo(page, 'A minute of fog', '2026-12-18');
  await sheet(page).getByRole('textbox', { name: 'Caption' }).fill('Fog over the moor, sixty seconds of it.');
  await sheet(page).locator('.add-picture input').setInputFiles('demo/videos/dome-tall.mp4');
  await expect(sheet(page).getByText('14 s, 540 × 960')).toBeVisible();
  await saved(page);
  const missing = sheet(page).getByRole('region', { name: 'What is missing' });
  await expect(missing).toContainText('“Edit” is not done.');
  await sheet(page).getByRole('button', { name: 'ready', exact: true }).click();
  await expect(page.locator('.messages')).toContainText('Not ready yet. “Edit” is not done.');
  await missing.getByRole('button', { name: '“Edit” is not done.' }).click();
  await expect(prep(page).getByLabel('Done: Edit')).toBeFocused();
  await missing.getByRole('button', { name: /^Waive/ }).click();
  await missing.getByLabel('Why it is waived').fill('It goes out as it was filmed');
  await missing.getByRole('button', { name: 'Waive', exact: true }).click();
  await expect(missing).toHaveCount(0);
  await sheet(page).getByRole('button', { name: 'ready', exact: true }).click();
  await expect(sheet(page).getByRole('button', { name: 'ready', exact: true })).toHaveAttribute('aria-current', 'step');
});

test('each desk lists its own steps; they are ticked there, and a manager hands them over', async ({ page }) => {
  await page.goto('/fennel-moor/desk?of=jonah');
  const steps = page.getByRole('region', { name: 'Steps' });
  await expect(steps.getByRole('heading', { level: 2 })).toContainText('Jonah’s steps');
  const first = steps.locator('.step-row').first();
  const name = (await first.getByRole('checkbox').getAttribute('aria-label'))!;
  await first.getByRole('checkbox').check();
  await expect(page.locator('.messages')).toContainText('Done:');
  await page.reload();
  await expect(steps.getByLabel(name, { exact: true })).toHaveCount(0);

  const before = await steps.locator('.step-row').count();
  await steps.getByRole('button', { name: 'Reassign…' }).click();
  await steps.locator('.step-row').nth(0).getByRole('checkbox').check();
  await steps.locator('.step-row').nth(1).getByRole('checkbox').check();
  await steps.getByLabel('Reassign the picked steps to').selectOption({ label: 'Bex' });
  await expect(page.locator('.messages')).toContainText('Reassigned 2 steps to Bex.');
  await expect(steps.locator('.step-row')).toHaveCount(before - 2);
  await page.getByLabel('Whose desk').selectOption({ label: 'Bex’s desk' });
  await expect(steps.getByRole('heading', { level: 2 })).toContainText('Bex’s steps');
});

test('working dates stand on the calendar beside publishing dates, everybody’s or mine', async ({ page }) => {
  await openCalendar(page, '?as=lanes&date=2026-11-24');
  await page.getByLabel('Which dates').selectOption('both');
  const chips = page.locator('.step-chip');
  await expect(chips.first()).toBeVisible();
  const all = await chips.count();
  await expect(page.locator('.lanes td [data-post]').first()).toBeVisible();
  await page.getByLabel('Whose working dates').selectOption('mine');
  await expect.poll(() => chips.count()).toBeLessThan(all);
  await page.getByLabel('Which dates').selectOption('working');
  await expect(page.locator('.lanes td [data-post]')).toHaveCount(0);
  await chips.first().click();
  await expect(sheet(page)).toBeVisible();
  await openCalendar(page, '?as=stages&split=next');
  await expect(
    page
      .getByRole('region', { name: /^production,/ })
      .getByRole('heading', { level: 3 })
      .first(),
  ).toContainText('next:');
});

test('prep sheets and people are set; somebody with steps is archived once those are handed over', async ({ page }) => {
  await page.goto('/fennel-moor/settings/prep');
  await page.getByRole('button', { name: /^newsletter/ }).click();
  await page.getByRole('button', { name: 'Send a test', exact: true }).click();
  await page.getByLabel('What the step is').fill('Send a test to P. Lund');
  await page.getByRole('button', { name: 'Change the step' }).click();
  await page.getByRole('button', { name: 'Save these steps' }).click();
  await expect(page.locator('.messages')).toContainText('New posts get these steps.');
  await page.reload();
  await page.getByRole('button', { name: /^newsletter/ }).click();
  await expect(page.getByRole('button', { name: 'Send a test to P. Lund' })).toBeVisible();

  await page.goto('/fennel-moor/settings/people');
  await page.getByRole('button', { name: 'Bex', exact: true }).click();
  await page.getByRole('button', { name: 'Archive Bex' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'Reassign them first.' })).toBeVisible();
  await page.getByLabel(/open steps go to/).selectOption({ label: 'Jonah' });
  await page.getByRole('button', { name: 'Archive Bex' }).click();
  await expect(page.locator('.messages')).toContainText('Bex is archived');
  await expect(page.getByRole('button', { name: 'Bex', exact: true })).toHaveCount(0);
  await page.getByLabel('Name', { exact: true }).fill('Wim');
  await page.getByRole('button', { name: 'Add them' }).click();
  await expect(page.getByRole('button', { name: 'Wim', exact: true })).toBeVisible();
  const { status } = await api(page, 'PATCH', `/api/steps/11111111-1111-4111-8111-111111111111`, {
    version: 1,
    lead: 4000,
  });
  expect(status).toBe(404);
});

test('steps of one sort are held together on a batch day, which stands on the calendar', async ({ page }) => {
  await page.goto('/fennel-moor/desk');
  await page.getByRole('region', { name: 'Batch days' }).getByRole('link', { name: 'Plan one' }).click();
  await page.getByRole('button', { name: 'editing', exact: true }).click();
  // Until they come, the steps of the sort before show, and what is picked of those is let go.
  await expect(page.getByRole('button', { name: 'editing', exact: true, pressed: true })).toBeVisible();
  const boxes = page.locator('.batch-steps').getByRole('checkbox');
  await boxes.nth(0).check();
  await boxes.nth(1).check();
  await page.getByLabel('Name').fill('Cutting room');
  await fillDate(page.getByRole('group', { name: 'On' }), '2026-11-26');
  await page.getByRole('button', { name: /^Create a batch day with 2 steps/ }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Cutting room' })).toBeVisible();
  const rows = page.getByRole('region', { name: 'Running order' }).getByRole('listitem');
  await expect(rows).toHaveCount(2);
  const second = (await rows.nth(1).getByRole('link').textContent())!;
  await rows
    .nth(1)
    .getByRole('button', { name: /earlier$/ })
    .click();
  await expect(rows.nth(0)).toContainText(second);
  await rows.nth(0).getByRole('checkbox').check();
  await page.getByLabel('Something to have at hand').fill('The big disk');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'What is needed' })).toContainText('The big disk');
  await page.reload();
  await expect(rows.nth(0).getByRole('checkbox')).toBeChecked();
  await expect(page.getByRole('region', { name: 'What is needed' })).toContainText('The big disk');
  await openCalendar(page, '?as=lanes&date=2026-11-26&dates=both');
  await expect(page.getByRole('link', { name: /Cutting room 1\/2/ })).toBeVisible();
});

test('a piece that is a talk has steps of its own, which follow its earliest post and stand on desks', async ({
  page,
}) => {
  await page.goto('/fennel-moor/desk');
  await page.keyboard.press('i');
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Title').fill('The dark between the stars');
  await page.keyboard.press('Enter');
  await expect(page.locator('.messages')).toContainText('Caught');
  await page.goto('/fennel-moor/ideas');
  await page.getByRole('link', { name: 'The dark between the stars' }).click();
  const own = page.getByRole('region', { name: 'Prep' });
  await expect(own).toContainText('No steps.');
  await page.getByLabel('Kind of piece').selectOption({ label: 'a talk' });
  const rows = own.locator('.prep-step');
  await expect(rows).toHaveCount(5);
  await expect(rows.nth(2)).toContainText('Record the talk');
  await expect(rows.nth(2)).toContainText('Jonah');
  await page.getByRole('button', { name: /^Day its prep counts back from/ }).click();
  await fillDate(page.getByRole('group', { name: 'Day its prep counts back from' }), '2026-12-11');
  await page.keyboard.press('Enter');
  // Twelve of Jonah’s working days (Tuesday to Friday) before Friday the 11th of December.
  await expect(rows.nth(2)).toContainText('Fri 20 Nov');
  await expect(own).toContainText('too little time');
  await own.getByLabel('Done: Agree on the topic').check();
  await expect(own).toContainText('1 of 5');

  await page.goto('/fennel-moor/desk?of=jonah');
  const row = page.locator('.step-row', { hasText: 'The dark between the stars' }).first();
  await expect(row).toContainText('Record the talk');
  await expect(row).toContainText('piece');
  await row.getByRole('link', { name: 'The dark between the stars' }).click();
  await expect(page.getByLabel('Kind of piece')).toHaveValue('talk');
});

test('where a brand asks for sign-off, a post is ready once a reviewer signed it off as it stands', async ({
  page,
}) => {
  await page.goto('/tidewrack/calendar?as=lanes&date=2026-12-01');
  await takenOver(page);
  await page.keyboard.press('n');
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Working title').fill('Extra crossing');
  await dialog.getByRole('checkbox', { name: 'Pithline' }).check();
  await fillDate(dialog.getByRole('group', { name: 'Date' }), '2026-12-02');
  await dialog.getByRole('button', { name: /^Plan for/ }).click();
  await sheet(page).getByRole('textbox', { name: 'Caption' }).fill('One more crossing on Sunday, at two.');
  await saved(page);
  await sheet(page).getByRole('button', { name: 'ready', exact: true }).click();
  await expect(page.locator('.messages')).toContainText('Not ready yet. Nobody has signed it off.');
  const signOff = sheet(page).getByRole('region', { name: 'Sign-off' });
  await signOff.getByRole('button', { name: 'Sign off' }).click();
  await expect(signOff).toContainText('Signed off by Ines');
  await sheet(page).getByRole('button', { name: 'ready', exact: true }).click();
  await expect(sheet(page).getByRole('button', { name: 'ready', exact: true })).toHaveAttribute('aria-current', 'step');
  await sheet(page).getByRole('textbox', { name: 'Caption' }).fill('One more crossing on Sunday, at three.');
  await saved(page);
  await expect(signOff).toContainText('Changed since it was signed off');
});
