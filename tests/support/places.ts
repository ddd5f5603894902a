import type { Page } from '@playwright/test';
import { CALENDAR, sheet } from './test';

/** Every place of the application. */
export const PLACES = [
  CALENDAR,
  `${CALENDAR}?weeks=2`,
  `${CALENDAR}?as=month`,
  `${CALENDAR}?as=day`,
  `${CALENDAR}?as=stages`,
  `${CALENDAR}?as=list`,
  '/fennel-moor/desk',
  '/fennel-moor/settings',
  '/fennel-moor/settings/channels',
  '/fennel-moor/settings/people',
  '/fennel-moor/settings/prep',
  '/fennel-moor/settings/fan-outs',
  '/fennel-moor/settings/writing',
  '/fennel-moor/settings/rhythm',
  '/fennel-moor/settings/repeats',
  '/fennel-moor/settings/themes',
  '/fennel-moor/settings/sheets',
  '/fennel-moor/settings/dates',
  '/fennel-moor/settings/exchange',
  '/fennel-moor/settings/deleted',
  '/fennel-moor/ideas',
  '/fennel-moor/pieces',
  '/fennel-moor/pieces/encores',
  '/fennel-moor/departures',
  '/fennel-moor/departures/set-aside',
  '/fennel-moor/notices',
  '/fennel-moor/batch',
  '/fennel-moor/library',
  '/fennel-moor/library/GR',
  '/fennel-moor/shelf',
  '/fennel-moor/shelf?board=names',
  '/fennel-moor/shelf?board=brandSheet',
  '/standins/glassrow',
  '/tidewrack/calendar',
];

/** Opens a post that lacks a picture, and presses one of its buttons. */
const onPost = (name: string) => async (page: Page) => {
  await page.locator('.arrangement [data-post]', { hasText: 'no picture' }).first().click();
  await sheet(page).getByRole('button', { name, exact: true }).click();
};

/** What opens each dialog, from the calendar on. */
export const DIALOGS: ((page: Page) => Promise<unknown>)[] = [
  (page) => page.keyboard.press('n'),
  (page) => page.keyboard.press('i'),
  (page) => page.keyboard.press('Control+k'),
  (page) => page.keyboard.press('?'),
  (page) =>
    page
      .getByRole('button', { name: /^Plan “/ })
      .first()
      .click(),
  onPost('Move'),
  onPost('Use again…'),
  onPost('Words as a picture…'),
  onPost('From the library'),
  (page) => page.goto('/fennel-moor/pieces?new=true'),
];
