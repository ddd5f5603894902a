import { test as base, expect, type Locator, type Page } from '@playwright/test';
import { startServer, type TestServer } from './server';

/** The Bimlo of a worker, and the file of tests that uses it. */
interface Running {
  server: TestServer;
  usedBy: string | null;
}

/** Tests with a Bimlo that begins anew with each file, so that no file meets what another left behind. */
export const test = base.extend<{ baseURL: string; server: TestServer }, { running: Running }>({
  running: [
    async ({}, provide) => {
      const running: Running = { server: await startServer(), usedBy: null };
      await provide(running);
      await running.server.end();
    },
    { scope: 'worker', timeout: 180_000 },
  ],
  server: async ({ running }, provide, { file }) => {
    if (running.usedBy !== null && running.usedBy !== file) await running.server.reset();
    running.usedBy = file;
    await provide(running.server);
  },
  baseURL: async ({ server }, provide) => provide(server.url),
});

export { expect };

/** The calendar of the first brand. */
export const CALENDAR = '/fennel-moor/calendar';

/** Opens the calendar by month, unless the query says otherwise, and waits until the browser has taken it over: before that, keys and drags go nowhere. */
export async function openCalendar(page: Page, query = ''): Promise<void> {
  const asMonth = query.includes('as=') ? query : `${query}${query === '' ? '?' : '&'}as=month`;
  await page.goto(`${CALENDAR}${asMonth}`);
  await takenOver(page);
}

/** Waits until the calendar on screen answers to keys and drags: its spoken announcements exist only then. */
export const takenOver = (page: Page) => expect(page.locator('[id^="DndLiveRegion"]').first()).toBeAttached();

/** The cell of a day. */
export const day = (page: Page, date: string) => page.locator(`td[data-date="${date}"]`);

/**
 * Carries something with the mouse, as a person does: a first move lifts, the rest goes there, and the button is let go
 * only by the caller, once the place is lit.
 */
export async function carry(page: Page, from: Locator, to: Locator): Promise<void> {
  await from.hover();
  await page.mouse.down();
  await to.hover();
  await to.hover();
  await expect
    .poll(() => to.evaluate((place) => (place.closest('[data-over]') ?? place.querySelector('[data-over]')) !== null))
    .toBe(true);
}

/** Types a date into a date field, in the order in which the browser's locale writes it. @param date `2026-12-08` */
export async function fillDate(field: Locator, date: string): Promise<void> {
  for (const [part, value] of [
    ['year', date.slice(0, 4)],
    ['month', date.slice(5, 7)],
    ['day', date.slice(8)],
  ] as const) {
    await field.getByRole('spinbutton', { name: new RegExp(part) }).focus();
    await field.page().keyboard.type(value);
  }
}

/** The open post. */
export const sheet = (page: Page) => page.getByRole('region', { name: /^Post/ });

/** Waits until everything typed on the open sheet is saved. */
export const saved = (page: Page) => expect(sheet(page).getByRole('status').first()).toHaveText('saved');

/** Calls a route of Bimlo as its own pages do, as the manager. */
export async function api<T>(
  page: Page,
  method: string,
  path: string,
  body?: object,
): Promise<{ status: number; body: T }> {
  return page.evaluate(
    async ({ method, path, body }) => {
      const response = await fetch(path, { method, ...(body ? { body: JSON.stringify(body) } : {}) });
      return { status: response.status, body: await response.json() };
    },
    { method, path, body },
  );
}
