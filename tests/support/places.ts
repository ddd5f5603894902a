import type { Page } from '@playwright/test';
import { CALENDAR } from './test';

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
  '/fennel-moor/settings/rhythm',
  '/fennel-moor/settings/series',
  '/fennel-moor/settings/themes',
  '/fennel-moor/settings/sheets',
  '/fennel-moor/settings/dates',
  '/fennel-moor/settings/exchange',
  '/fennel-moor/settings/deleted',
  '/fennel-moor/ideas',
  '/fennel-moor/pieces',
  '/fennel-moor/pieces/encores',
  '/fennel-moor/departures',
  '/fennel-moor/batch',
  '/fennel-moor/library',
  '/fennel-moor/library/GR',
  '/fennel-moor/shelf',
  '/fennel-moor/shelf?board=names',
  '/fennel-moor/shelf?board=brandSheet',
  '/standins/glassrow',
  '/tidewrack/calendar',
];

/** What opens each dialog of the calendar. */
export const DIALOGS: ((page: Page) => Promise<void>)[] = [
  (page) => page.keyboard.press('n'),
  (page) => page.keyboard.press('Control+k'),
  (page) => page.keyboard.press('?'),
  (page) =>
    page
      .getByRole('button', { name: /^Plan “/ })
      .first()
      .click(),
];
