import { expect, test } from './support/test';

test.use({ viewport: { width: 390, height: 844 } });

test('who posts by hand is told at the lead of the channel, on the page and by mail, and does it from a phone', async ({
  page,
  server,
}) => {
  await page.goto('/fennel-moor/notices');
  await expect(page.getByRole('heading', { name: 'Notices', level: 1 })).toBeVisible();
  await expect(page.locator('[data-notice="dueByHand"]')).toHaveCount(0);

  // “Come up on Saturday” is to be posted at 12:00 on Homestoop, of which people are told 15 minutes before.
  await server.goTo('2026-11-23T11:45:00.000Z');
  const notice = page.getByRole('link', { name: /“Come up on Saturday” on Homestoop is to be posted by hand/ });
  await expect(notice).toBeVisible({ timeout: 60_000 });

  await server.goTo('2026-11-23T11:45:30.000Z');
  await expect(async () => {
    await page.goto('/standins/mailbox');
    await expect(page.locator('[data-mail]').filter({ hasText: 'Post by hand: Come up on Saturday' })).toHaveCount(1, {
      timeout: 500,
    });
  }).toPass({ timeout: 30_000 });
  await page
    .locator('[data-mail]')
    .filter({ hasText: 'Post by hand: Come up on Saturday' })
    .getByRole('link')
    .first()
    .click();

  const post = page.getByRole('region', { name: 'Post by hand: Come up on Saturday' });
  await expect(post.getByRole('button', { name: 'Copy the caption' })).toBeVisible();
  const [picture] = await Promise.all([
    page.waitForEvent('download'),
    post.getByRole('link', { name: /^Save the picture/ }).click(),
  ]);
  expect(await picture.failure()).toBeNull();
  await post.getByLabel('It has none: a story, a private profile').check();
  await post.getByRole('button', { name: 'Mark as published' }).click();
  await expect(page.getByText(/^It is out since/)).toBeVisible();

  await page.goto('/fennel-moor/notices');
  await expect(page.locator('[data-notice="dueByHand"]')).toContainText('dealt with since');
});
