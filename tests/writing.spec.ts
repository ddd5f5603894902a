import type { AddressInfo } from 'node:net';
import { createWritingServer } from '@/standins/writing/server';
import { expect, sheet, test } from './support/test';

test('a service of the team writes what was shown before it was sent; what it wrote is marked until it is read', async ({
  page,
}) => {
  const asked: unknown[] = [];
  const server = createWritingServer({ key: 'k', onRequest: (request) => asked.push(request) });
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  const { port } = server.address() as AddressInfo;
  await page.goto('/fennel-moor/settings/writing');
  await expect(page.getByText('None is allowed: nothing leaves this Bimlo.')).toBeVisible();
  await page.getByLabel('Address').fill('my service');
  await page.getByRole('button', { name: 'Allow this service' }).click();
  await expect(page.getByText('An address begins with http://')).toBeVisible();
  await page.getByLabel('Address').fill(`http://127.0.0.1:${port}/`);
  await page.getByLabel('Key (optional)').fill('k');
  await page.getByRole('button', { name: 'Allow this service' }).click();
  await expect(page.getByText('A key is kept on the server.')).toBeVisible();

  await page.goto('/fennel-moor/pieces');
  await page.getByRole('link', { name: 'Talk: Rings that vanish', exact: true }).click();
  await page.getByRole('button', { name: 'Fan out…' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('button', { name: 'Have them written by your writing service…' }).click();
  await expect(dialog.getByText(`This would be sent to http://127.0.0.1:${port}/`)).toBeVisible();
  await dialog.locator('.writing-requests summary').first().click();
  await expect(dialog.locator('.writing-requests pre').first()).toContainText('"source":');
  expect(asked).toEqual([]);
  await dialog.getByRole('button', { name: /^Send \d+ request/ }).click();
  await expect(dialog.getByText(/Written for \d+ post/)).toBeVisible();
  expect(asked.length).toBeGreaterThan(0);
  await expect(dialog.getByText('by your writing service, not read yet').first()).toBeVisible();
  await dialog.getByRole('button', { name: /^Make th/ }).click();
  await expect(dialog).toHaveCount(0);
  await page.locator('.posts-of-piece li', { hasText: 'draft not checked' }).getByRole('link').first().click();
  await expect(sheet(page)).toContainText('drafted sentence');
  server.close();
  server.closeAllConnections();
});
