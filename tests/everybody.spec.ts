import type { Page } from '@playwright/test';
import { api, CALENDAR, day, expect, openCalendar, sheet, takenOver, test } from './support/test';
import { DIALOGS, PLACES } from './support/places';

test.use({ serverOf: 'everybody' });

/** Presses of Tab in one place: more than any has controls of different kinds; long tables repeat theirs. */
const PRESSES = 24;

/** The places that are Bimlo's own: what the made-up networks show has no controls. */
const OURS = PLACES.filter((place) => !place.startsWith('/standins'));

interface Stop {
  at: string;
  isBody: boolean;
  isNamed: boolean;
  isSeen: boolean;
}

/** Goes through what is on screen by Tab, and tells what had the focus without being seen, without a name, or nowhere. */
async function walk(page: Page): Promise<string[]> {
  const wrong = new Set<string>();
  const seen = new Set<string>();
  // A dialog gives the focus to its first control by itself, which may be its only one.
  const begun = await page.evaluate(() => document.activeElement !== document.body);
  for (let press = 0; press < PRESSES; press++) {
    await page.keyboard.press('Tab');
    const stop: Stop & { key: string } = await page.evaluate(() => {
      const element = document.activeElement as HTMLElement | null;
      if (!element || element === document.body)
        return { at: 'body', isBody: true, isNamed: true, isSeen: true, key: '' };
      const rings = (one: Element) => {
        const { outlineStyle, outlineWidth, boxShadow } = getComputedStyle(one);
        return (outlineStyle !== 'none' && parseFloat(outlineWidth) > 0) || boxShadow !== 'none';
      };
      // A field may be drawn by what is around it.
      const around = [element, element.parentElement, element.parentElement?.parentElement, element.closest('.marked')];
      const labels = [...((element as HTMLInputElement).labels ?? [])].map(({ textContent }) => textContent).join('');
      const named = (element.getAttribute('aria-labelledby') ?? '')
        .split(' ')
        .map((id) => document.getElementById(id)?.textContent ?? '')
        .join('');
      const name = [element.getAttribute('aria-label'), named, labels, element.textContent, element.title]
        .join('')
        .trim();
      element.dataset.walked ??= crypto.randomUUID();
      return {
        at: `${element.tagName.toLowerCase()}.${element.className} “${name.slice(0, 30)}”`,
        isBody: false,
        isNamed: name !== '',
        isSeen: around.some((one) => one && rings(one)),
        key: element.dataset.walked,
      };
    });
    // After the last control the browser itself has the focus, then it begins again.
    if (stop.isBody && (begun || seen.size > 0)) break;
    if (seen.has(stop.key)) break;
    seen.add(stop.key);
    if (stop.isBody) wrong.add('the focus is nowhere');
    if (!stop.isSeen) wrong.add(`no focus to be seen: ${stop.at}`);
    if (!stop.isNamed) wrong.add(`no name: ${stop.at}`);
  }
  return [...wrong];
}

/** References to what is not there. */
const dangling = (page: Page): Promise<string[]> =>
  page.evaluate(() =>
    [...document.querySelectorAll('*')].flatMap((element) =>
      ['aria-describedby', 'aria-labelledby', 'aria-controls', 'aria-owns', 'aria-activedescendant'].flatMap((name) =>
        (element.getAttribute(name) ?? '')
          .split(/\s+/)
          .filter((id) => id !== '' && !document.getElementById(id))
          .map((id) => `${name}=${id} of ${element.tagName.toLowerCase()}.${element.className}`),
      ),
    ),
  );

/** How far a page can be scrolled sideways, in pixels. */
const sideways = (page: Page): Promise<number> =>
  page.evaluate(() => {
    const place = document.querySelector('.place-body') ?? document.documentElement;
    return Math.max(
      document.documentElement.scrollWidth - document.documentElement.clientWidth,
      getComputedStyle(place).overflowX === 'visible' ? 0 : place.scrollWidth - place.clientWidth,
    );
  });

test('every place is gone through by Tab: the focus is seen, named and never lost, and nothing points to what is not there', async ({
  page,
}) => {
  test.setTimeout(300_000);
  for (const [at, place] of OURS.entries()) {
    await page.goto(place);
    // The rail is the same everywhere.
    if (at > 0) await page.locator('#place').focus();
    expect({ place, wrong: await walk(page) }).toEqual({ place, wrong: [] });
    expect({ place, dangling: await dangling(page) }).toEqual({ place, dangling: [] });
  }
  await openCalendar(page);
  await day(page, '2026-11-25').locator('[data-post]').first().click();
  await expect(sheet(page).getByRole('list', { name: 'Stage' })).toBeVisible();
  expect(await walk(page)).toEqual([]);
  for (const open of DIALOGS) {
    await openCalendar(page);
    await open(page);
    await expect(page.getByRole('dialog')).toBeVisible();
    expect(await walk(page)).toEqual([]);
    expect(await dangling(page)).toEqual([]);
  }
});

test('no place has to be scrolled sideways, on a phone, a tablet or a desk', async ({ page }) => {
  test.setTimeout(300_000);
  for (const place of OURS) {
    // A phone first: a page that is opened on one may choose another arrangement.
    await page.setViewportSize({ width: 390, height: 800 });
    await page.goto(place);
    for (const width of [390, 768, 1280]) {
      await page.setViewportSize({ width, height: 800 });
      expect({ width, place, over: await sideways(page) }).toEqual({ width, place, over: 0 });
    }
  }
});

test('titles of 200 letters without a space break nothing, and neither do steps and dialogs', async ({ page }) => {
  test.setTimeout(300_000);
  const long = (letter: string) => letter.repeat(200);
  await openCalendar(page, '?as=list');
  const ids = await page
    .locator('.list-row [data-post], [data-idea]')
    .evaluateAll((all) =>
      all.map((one) => ({ post: (one as HTMLElement).dataset.post, idea: (one as HTMLElement).dataset.idea })),
    );
  const posts = ids.flatMap(({ post }) => post ?? []).slice(-12);
  let pieceId = '';
  for (const id of posts) {
    const { body } = await api<{ version: number; pieceId: string; stage: string }>(page, 'GET', `/api/posts/${id}`);
    if (body.stage === 'published') continue;
    pieceId = body.pieceId;
    await api(page, 'PATCH', `/api/posts/${id}`, { version: body.version, title: long('w') });
    await api(page, 'POST', `/api/posts/${id}/steps`, {
      ...{ title: 'x'.repeat(120), work: 'words', ownerId: null, craft: null, lead: 0, leadIn: 'calendar' },
      ...{ minutes: 5, note: long('n'), needed: true },
    });
  }
  for (const id of ids.flatMap(({ idea }) => idea ?? [])) {
    const found = await api<unknown>(page, 'PATCH', `/api/pieces/${id}`, { version: 1, title: long('i') });
    expect([200, 409]).toContain(found.status);
  }
  await api(page, 'PATCH', `/api/pieces/${pieceId}`, { version: 1, title: long('p'), note: long('n') });
  const open = posts.at(-1)!;
  for (const place of [
    `${CALENDAR}?as=lanes`,
    `${CALENDAR}?as=month`,
    `${CALENDAR}?as=day`,
    `${CALENDAR}?as=stages`,
    `${CALENDAR}?as=list`,
    `${CALENDAR}?as=lanes&post=${open}`,
    '/fennel-moor/desk',
    '/fennel-moor/ideas',
    '/fennel-moor/pieces',
    '/fennel-moor/departures',
    '/fennel-moor/batch?work=words',
    `/fennel-moor/pieces/${pieceId}`,
    `/fennel-moor/pieces/${pieceId}/words`,
  ]) {
    await page.setViewportSize({ width: 390, height: 800 });
    await page.goto(place);
    for (const width of [390, 768, 1280]) {
      await page.setViewportSize({ width, height: 800 });
      expect({ width, place, over: await sideways(page) }).toEqual({ width, place, over: 0 });
    }
  }
  for (const width of [390, 1280]) {
    await page.setViewportSize({ width, height: 800 });
    await page.goto(`${CALENDAR}?as=lanes&post=${open}`);
    await takenOver(page);
    await expect(sheet(page).getByLabel('Working title')).toBeVisible();
    await page.keyboard.press('m');
    const dialog = page.getByRole('dialog', { name: /^Move/ });
    await expect(dialog).toBeVisible();
    expect({ width, over: await sideways(page) }).toEqual({ width, over: 0 });
    expect(await dialog.evaluate((one) => one.scrollWidth - one.clientWidth)).toBeLessThanOrEqual(0);
    await page.keyboard.press('Escape');
    // Only what lies above is closed by it.
    await expect(dialog).toBeHidden();
    await expect(sheet(page)).toBeVisible();
  }
});

test('a word goes on being typed in the search, the sheet is gone to and back by key, and slips are picked by key', async ({
  page,
}) => {
  await openCalendar(page);
  await page.keyboard.press('/');
  await page.keyboard.type('som', { delay: 20 });
  // Longer than the pause after which it is looked for.
  await expect(page).toHaveURL(/words=som/);
  await page.keyboard.type('brero', { delay: 20 });
  await expect(page.getByRole('searchbox', { name: 'Find words' })).toHaveValue('sombrero');
  await expect(page).toHaveURL(/words=sombrero/);

  await page.goto(`${CALENDAR}?as=month`);
  await openCalendar(page);
  const slips = page.locator('.arrangement [data-post]');
  await slips.nth(0).focus();
  await page.keyboard.press('x');
  await expect(slips.nth(0)).toHaveAttribute('aria-pressed', 'true');
  await slips.nth(2).focus();
  await page.keyboard.press('Shift+X');
  await expect(page.locator('.arrangement [data-post][aria-pressed="true"]')).toHaveCount(3);
  await page.keyboard.press('Escape');
  await expect(page.locator('.arrangement [data-post][aria-pressed="true"]')).toHaveCount(0);

  await slips.nth(0).focus();
  const id = await slips.nth(0).getAttribute('data-post');
  await page.keyboard.press('Enter');
  await expect(sheet(page)).toBeVisible();
  await page.keyboard.press('s');
  await expect(sheet(page)).toBeFocused();
  await page.keyboard.press('s');
  await expect(page.locator(`.arrangement [data-post="${id}"]`)).toBeFocused();
  // Escape closes what lies above first, and only that.
  await page.getByRole('button', { name: 'Saved views' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.locator('.dropdown-menu.show')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.locator('.dropdown-menu.show')).toHaveCount(0);
  await expect(sheet(page)).toBeVisible();
  // Closing it from within gives the focus back to where it stands.
  await sheet(page).getByRole('button', { name: 'Close' }).focus();
  await page.keyboard.press('Enter');
  await expect(sheet(page)).toHaveCount(0);
  await expect(page.locator(`.arrangement [data-post="${id}"]`)).toBeFocused();
  await expect(page).toHaveTitle(/^Month, November 2026 – Fennel Moor Observatory/);
});
