import { expect, test as base, type Page } from '@playwright/test';
import { EMPTY_TEMPLATE, startServer, type TestServer } from './support/server';

/** Each test begins with nothing, and nobody chosen. */
const test = base.extend<{ server: TestServer }>({
  server: async ({}, provide) => {
    const server = await startServer({ BIMLO_DEMO_PERSON: '' }, EMPTY_TEMPLATE);
    await provide(server);
    await server.end();
  },
  baseURL: async ({ server }, provide) => provide(server.url),
});

/** Goes on by Tab until what has the focus is called that. */
async function tabTo(page: Page, name: string | RegExp): Promise<void> {
  for (let press = 0; press < 80; press++) {
    await page.keyboard.press('Tab');
    const called = await page.evaluate(() => {
      const { activeElement: one } = document;
      const label = (one as HTMLInputElement | null)?.labels?.[0]?.textContent;
      return (one?.getAttribute('aria-label') ?? label ?? one?.textContent ?? '').trim();
    });
    if (typeof name === 'string' ? called === name : name.test(called)) return;
  }
  throw new Error(`Nothing called ${name} is reached by Tab.`);
}

const slip = (page: Page) => page.getByRole('region', { name: /^Post/ });

/** Writes the open post and schedules it, as its sheet asks. */
async function writeAndSchedule(page: Page): Promise<void> {
  await slip(page).getByRole('textbox', { name: 'Caption' }).fill('New chairs have come. Try them all.');
  for (const step of await slip(page).getByRole('checkbox').all()) if (!(await step.isChecked())) await step.check();
  const schedule = slip(page).getByRole('button', { name: /^Schedule for/ });
  await expect(schedule).toBeEnabled();
  await schedule.click();
  await expect(slip(page).getByText(/^To be posted by hand/)).toBeVisible();
}

test('from nothing to a scheduled post by mouse: a brand in four steps, an idea in an opening', async ({ page }) => {
  await page.goto('/');
  await expect(page).toHaveURL(/\/begin$/);
  await page.getByRole('button', { name: 'Next: channels' }).click();
  await expect(page.getByLabel('Your name')).toBeFocused();
  await page.getByLabel('Your name').fill('Ada');
  await page.getByLabel('The brand’s name').fill('Harbour Library');
  await page.getByRole('button', { name: 'Next: channels' }).click();
  await page.getByLabel(/^Pithline/).check();
  await page.getByLabel('Another network').fill('Town Board');
  await page.getByRole('button', { name: 'Add these 2 channels' }).click();
  await page.getByLabel('Name of person 1').fill('Bo');
  await page.getByRole('button', { name: 'Add this person' }).click();
  await page.getByLabel('How often on Pithline').selectOption('3');
  await expect(page.getByText(/^Tue 10:00, Thu 10:00, Sun 10:00$/)).toBeVisible();
  await page.getByRole('button', { name: 'Save this rhythm' }).click();
  await page.getByLabel('An idea, in a few words').fill('New chairs');
  await page.getByRole('button', { name: 'Plan it and write the post' }).click();
  await expect(page).toHaveURL(/calendar\?.*post=/);
  await writeAndSchedule(page);

  // What is there now is there for whoever comes next: nobody begins again.
  const again = await page.request.post('/api/begin', {
    data: { person: 'Eve', password: '', brand: { name: 'Other', zone: 'UTC', weekStart: 1 } },
  });
  expect(((await again.json()) as { refusal: { code: string } }).refusal.code).toBe('begun');
  await page.goto('/harbour-library/departures');
  await expect(page.getByText('to be posted by hand').first()).toBeVisible();
});

test('from nothing to a scheduled post by keyboard alone', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByLabel('Your name')).toBeFocused();
  await page.keyboard.type('Ada');
  await tabTo(page, 'The brand’s name');
  await page.keyboard.type('Harbour Library');
  await page.keyboard.press('Enter');
  await expect(page.getByText('A channel is one account')).toBeVisible();
  await tabTo(page, /^Pithline/);
  await page.keyboard.press('Space');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Name of person 1')).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('How often on Pithline')).toBeVisible();
  await tabTo(page, 'How often on Pithline');
  await page.keyboard.press('5');
  await tabTo(page, 'Save this rhythm');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('An idea, in a few words')).toBeFocused();
  await page.keyboard.type('New chairs');
  await page.keyboard.press('Enter');
  await expect(slip(page).getByRole('textbox', { name: 'Caption' })).toBeVisible();
  await tabTo(page, 'Caption');
  await page.keyboard.type('New chairs have come. Try them all.');
  for (const box of await slip(page).getByRole('checkbox').all()) {
    await box.focus();
    if (!(await box.isChecked())) await page.keyboard.press('Space');
  }
  await expect(slip(page).getByRole('button', { name: /^Schedule for/ })).toBeEnabled();
  await page.keyboard.press('ControlOrMeta+k');
  await expect(page.getByRole('combobox', { name: 'Find and do' })).toBeFocused();
  await page.keyboard.type('schedule');
  await expect(page.getByRole('option', { name: /^This post: Schedule for/ })).toHaveAttribute('aria-selected', 'true');
  await page.keyboard.press('Enter');
  await expect(slip(page).getByText(/^To be posted by hand/)).toBeVisible();
});

test('from nothing to a scheduled post on a phone, by thumb', async ({ browser, server }) => {
  const context = await browser.newContext({
    ...{ baseURL: server.url, viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true },
  });
  const page = await context.newPage();
  await page.goto('/');
  await page.getByLabel('Your name').fill('Ada');
  await page.getByLabel('The brand’s name').fill('Harbour Library');
  await page.getByRole('button', { name: 'Next: channels' }).tap();
  await page.getByLabel(/^Pithline/).tap();
  await page.getByRole('button', { name: 'Add this channel' }).tap();
  await expect(page.getByLabel('Name of person 1')).toBeVisible();
  await page.getByRole('link', { name: 'Rhythm', exact: true }).tap();
  await page.getByLabel('How often on Pithline').selectOption('3');
  await page.getByRole('button', { name: 'Save this rhythm' }).tap();
  await page.getByLabel('An idea, in a few words').fill('New chairs');
  await page.getByRole('button', { name: 'Plan it and write the post' }).tap();
  await slip(page).getByRole('textbox', { name: 'Caption' }).fill('New chairs have come. Try them all.');
  for (const step of await slip(page).getByRole('checkbox').all()) if (!(await step.isChecked())) await step.tap();
  const schedule = slip(page).getByRole('button', { name: /^Schedule for/ });
  await expect(schedule).toBeEnabled();
  await schedule.tap();
  await expect(slip(page).getByText(/^To be posted by hand/)).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await page.getByRole('button', { name: 'Find and do' }).tap();
  await expect(page.getByRole('combobox', { name: 'Find and do' })).toBeFocused();
  await context.close();
});

test('a brand without anything says in each place what belongs there, and leads to the first step', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByLabel('Your name').fill('Ada');
  await page.getByLabel('The brand’s name').fill('Empty House');
  await page.getByRole('button', { name: 'Next: channels' }).click();
  await expect(page).toHaveURL(/empty-house\/begin/);
  for (const place of [
    'calendar',
    'calendar?as=month',
    'calendar?as=list',
    'desk',
    'settings/rhythm',
    'settings/repeats',
  ]) {
    await page.goto(`/empty-house/${place}`);
    await expect(page.getByRole('link', { name: 'Add the first channel' })).toBeVisible();
  }
  await page.goto('/empty-house/pieces');
  await expect(page.getByRole('button', { name: 'Begin a piece' })).toBeVisible();
  await page.goto('/empty-house/nowhere');
  await expect(page.getByRole('heading', { name: 'There is no such page' })).toBeVisible();
  await expect(page.getByRole('navigation', { name: 'Places' })).toBeVisible();
  await page.goto('/empty-house/pieces/00000000-0000-4000-8000-000000000000');
  await expect(page.getByRole('heading', { name: 'That piece is not there' })).toBeVisible();
  await page.goto('/no-such-brand/desk');
  await expect(page.getByRole('heading', { name: 'There is no such page' })).toBeVisible();
});
