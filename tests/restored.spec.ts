import { execFileSync } from 'node:child_process';
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { NOW, startServer } from './support/server';
import { api, CALENDAR } from './support/test';

test('after a snapshot was put back, what left since shows as it left, and the rest waits until a manager releases it', async ({
  page,
}) => {
  // The networks' clock goes with Bimlo's, so that what they say of the past can be held against it.
  const server = await startServer({ BIMLO_NOW: NOW });
  const restore = (...names: string[]) =>
    execFileSync('npm', ['run', '--silent', 'restore', '--', ...names], {
      encoding: 'utf8',
      env: { ...process.env, BIMLO_DATA: server.data },
    });
  const snapshots = join(server.data, 'snapshots');
  await server.goTo('2026-11-23T11:44:00.000Z');
  await expect.poll(() => readdirSync(snapshots).filter((name) => /^\d/.test(name))).toHaveLength(1);
  const before = await server.counts();

  // After the snapshot: a post is set aside, and others leave at their times.
  await page.goto(`${server.url}${CALENDAR}`);
  const slip = page.locator('[data-post]', { hasText: 'A minute of dome turning' }).first();
  const postId = (await slip.getAttribute('data-post'))!;
  const { version } = (await api<{ version: number }>(page, 'GET', `/api/posts/${postId}`)).body;
  await api(page, 'POST', `/api/posts/${postId}/deeds`, { deed: 'setAside', version, reason: 'Rain' });
  await server.goTo('2026-11-23T16:40:00.000Z');
  const sent = async () => Object.values((await server.counts()).accepted).reduce((sum, count) => sum + count, 0);
  const left = await sent();
  expect(left).toBeGreaterThan(Object.values(before.accepted).reduce((sum, count) => sum + count, 0));
  await server.kill();
  const [name] = readdirSync(snapshots).filter((one) => /^\d/.test(one));
  expect(restore()).toContain(name);
  expect(restore(name!)).toContain('is the database now');

  await server.goTo('2026-11-23T17:00:00.000Z', { wait: false });
  await server.start();
  await page.goto(`${server.url}${CALENDAR}`);
  await expect(page.getByText('so nothing is sent by itself')).toBeVisible();
  await page.getByRole('link', { name: 'See what waits and release it' }).click();
  const notice = page.getByRole('region', { name: /^Restored to 23 Nov 11:4\d: \d+ posts wait$/ });
  await expect(notice).toBeVisible();
  await expect(page.locator('[data-departure]', { hasText: 'Seeing tonight: very good' })).toContainText(
    'published 16:40:00',
  );
  await server.goTo('2026-11-23T22:40:00.000Z');
  expect(await sent()).toBe(left);
  await expect(notice.locator('[data-waiting]', { hasText: 'A minute of dome turning' })).toBeVisible();

  await notice.getByRole('button', { name: 'Release: Slit open, minus four' }).click();
  await expect(page.getByText('Released 1 post.')).toBeVisible();
  await expect(notice.locator('[data-waiting]', { hasText: 'Slit open' })).toHaveCount(0);
  await notice.getByRole('button', { name: /^Release all/ }).click();
  await expect(notice).toBeHidden();
  await page.goto(`${server.url}${CALENDAR}`);
  await expect(page.getByText('so nothing is sent by itself')).toBeHidden();
  await server.end();
});
