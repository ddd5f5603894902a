import { expect, openCalendar, sheet, test } from './support/test';

test('a rhythm is proposed from what was done, set, and its openings appear', async ({ page }) => {
  await page.goto('/fennel-moor/settings/rhythm');
  await page.getByRole('link', { name: /Hourlight/ }).click();
  await expect(page.getByLabel('Time of entry 1')).toHaveValue('19:00');
  await page.getByRole('link', { name: /Homestoop/ }).click();
  await page.getByRole('button', { name: /^Remove entry 1/ }).click();
  await page.getByRole('button', { name: 'Suggest from past posts' }).click();
  await expect(page.getByLabel('Time of entry 1')).toHaveValue('12:00');
  await page.getByRole('button', { name: 'Add an entry' }).click();
  await page.getByLabel('Time of entry 2').fill('12:00');
  await page.getByLabel('Entry 2: weekday').selectOption({ label: 'Thursday' });
  await expect(page.getByRole('alert').filter({ hasText: 'both ask for every Thursday at 12:00' })).toBeVisible();
  await page.getByLabel('Entry 2: weekday').selectOption({ label: 'Friday' });
  await page.getByLabel('Theme of entry 2').fill('Weekend news');
  await page.getByRole('button', { name: 'Save the rhythm of Homestoop' }).click();
  await expect(page.getByText('Homestoop has its rhythm: 2 entries.')).toBeVisible();
  await openCalendar(page, '?as=lanes');
  const opening = page.locator('td[data-date="2026-11-27"] [data-opening]', { hasText: 'Weekend news' });
  await opening.press('Enter');
  const dialog = page.getByRole('dialog', { name: 'New post on Homestoop' });
  await expect(dialog.getByLabel('Time, if it is settled')).toHaveValue('12:00');
  await dialog.getByLabel('Working title').fill('News for the weekend');
  await dialog.getByRole('button', { name: 'Plan for Fri 27 Nov 12:00' }).click();
  await expect(
    page.locator('td[data-date="2026-11-27"] [data-post]', { hasText: 'News for the weekend' }),
  ).toBeVisible();
  await expect(opening).toHaveCount(0);
});

test('the desk starts a post at the next gap', async ({ page }) => {
  await page.goto('/fennel-moor/desk');
  await expect(page.getByRole('heading', { level: 1, name: 'Monday 23 November' })).toBeVisible();
  const gap = page.getByRole('heading', { name: /^Next opening:/ });
  const first = (await gap.textContent())!;
  await page.getByRole('button', { name: 'Start a post there' }).click();
  await page.getByRole('dialog').getByLabel('Working title').fill('Filled from the desk');
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Plan for/ })
    .click();
  await expect(page).toHaveURL(/post=/);
  await page.getByRole('textbox', { name: 'Caption' }).fill('Words, so that it counts.');
  await expect(page.getByRole('region', { name: /^Post/ }).getByRole('status').first()).toHaveText('saved');
  await page.goto('/fennel-moor/desk');
  await expect(gap).not.toHaveText(first);
});

test('a channel is made, checked for its colour, given a rule sheet of its own, and archived', async ({ page }) => {
  await page.goto('/fennel-moor/settings/sheets');
  await page.getByRole('link', { name: 'Glassrow', exact: false }).first().click();
  await page.getByRole('link', { name: 'Make a new one from a copy of Glassrow' }).click();
  await expect(page.getByText('A new rule sheet, beginning as a copy of Glassrow.')).toBeVisible();
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Notice board');
  await page.getByLabel('Limit of Caption').fill('40');
  await page.getByLabel('Caption to try').fill('This caption is rather too long for a small notice board.');
  await expect(page.getByText(/17 over/)).toBeVisible();
  await page.getByRole('button', { name: 'Make this rule sheet' }).click();
  await expect(page.getByText('Made the rule sheet Notice board.')).toBeVisible();

  await page.goto('/fennel-moor/settings/channels');
  const of = (what: string) => page.getByLabel(`${what} of the new channel`);
  await of('Call sign').fill('GR');
  await of('Name').fill('Gate board');
  await of('Rule sheet').selectOption({ label: 'Notice board' });
  await of('Colour').fill('#2e7d50');
  await expect(page.getByRole('alert').filter({ hasText: 'told apart from Glassrow' })).toBeVisible();
  await of('Colour').fill('#a0522d');
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'Glassrow has the call sign GR already.' })).toBeVisible();
  await of('Call sign').fill('GB');
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByLabel('Name of Gate board')).toBeVisible();
  await page.getByRole('button', { name: 'Archive Gate board' }).click();
  await expect(page.getByLabel('Name of Gate board')).toHaveCount(0);
  await page.getByRole('button', { name: 'Archive Pithline' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'Still scheduled on Pithline' })).toBeVisible();
});

test('a series makes its posts ahead, and is changed from one of them on', async ({ page }) => {
  await page.goto('/fennel-moor/settings/repeats');
  await page.getByRole('button', { name: 'Start a repeat…' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Name').fill('A rock every Tuesday');
  await dialog.getByLabel('It comes: weekday').selectOption({ label: 'Tuesday' });
  await dialog.getByLabel('at', { exact: true }).fill('7');
  await expect(dialog.getByText('Next: Tue 24 Nov 2026, Tue 1 Dec 2026, Tue 8 Dec 2026')).toBeVisible();
  await dialog.getByRole('button', { name: 'Repeat it' }).click();
  await expect(page.getByText('“A rock every Tuesday” repeats: 4 posts made ahead.')).toBeVisible();
  await openCalendar(page);
  const onDay = (date: string, title: string) =>
    page.locator(`td[data-date="${date}"] [data-post]`, { hasText: title });
  await expect(onDay('2026-11-24', 'A rock every Tuesday 1')).toContainText('07:00');
  await page.goto('/fennel-moor/calendar?as=month&date=2026-12-01');
  await onDay('2026-12-08', 'A rock every Tuesday 3').click();
  await sheet(page).getByRole('button', { name: 'number 3 of “A rock every Tuesday”' }).click();
  await dialog.getByLabel('It comes: weekday').selectOption({ label: 'Wednesday' });
  await dialog.getByRole('button', { name: 'Change from here on' }).click();
  await expect(page.getByText('2 posts follow, 2 keep what they are')).toBeVisible();
  await expect(onDay('2026-12-01', 'A rock every Tuesday 2')).toBeVisible();
  await expect(onDay('2026-12-09', 'A rock every Tuesday 3')).toBeVisible();
  await expect(onDay('2026-12-16', 'A rock every Tuesday 4')).toBeVisible();
});

test('posts go out as CSV and come in again unchanged; another file is mapped, asked about and brought in', async ({
  page,
}) => {
  await page.goto('/fennel-moor/settings/exchange');
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'as CSV' }).click();
  const file = await (await download).path();
  await page.getByLabel('CSV file of posts').setInputFiles({
    name: 'fennel-moor-posts.csv',
    mimeType: 'text/csv',
    buffer: await import('node:fs/promises').then(({ readFile }) => readFile(file)),
  });
  await expect(page.getByText(/^0 new, 0 change a post that is there, \d+ are as they are\.$/)).toBeVisible({
    timeout: 30_000,
  });
  await expect(page.locator('.bad-rows')).toHaveCount(0);

  const text =
    'Platform;Publish date;Post;Copy\nFace wall;03/12/2026;A star map;Words\nPithline;04/12/2026;Another;More words\nPithline;32/12/2026;Bad;x\n';
  await page.getByLabel('CSV file of posts').setInputFiles({
    name: 'old plan.csv',
    mimeType: 'text/csv',
    buffer: Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from(text, 'utf16le')]),
  });
  await page.getByLabel('Order of dates').selectOption({ label: 'day, month, year' });
  await page.getByLabel('Channel for Face wall').selectOption({ label: 'Corkwall' });
  await expect(page.getByText('2 new, 0 change')).toBeVisible();
  await expect(page.getByText('“32/12/2026” is not a date')).toBeVisible();
  await page.getByRole('button', { name: 'Import the 2 good rows' }).click();
  await expect(page.getByText('Made 2, changed 0, 0 were as they are.')).toBeVisible();
  await openCalendar(page, '?as=lanes&date=2026-12-03');
  await expect(page.locator('td[data-date="2026-12-03"] [data-post]', { hasText: 'A star map' })).toBeVisible();
});

test('settings go out as JSON and come in again; what differs is named before it comes', async ({ page }) => {
  await page.goto('/fennel-moor/settings/exchange');
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'as JSON' }).click();
  const file = await (await download).path();
  const text = await import('node:fs/promises').then(({ readFile }) => readFile(file, 'utf8'));
  const choose = (json: string) =>
    page
      .getByLabel('JSON file of settings')
      .setInputFiles({ name: 'moor.json', mimeType: 'application/json', buffer: Buffer.from(json) });
  await choose(text);
  await expect(page.getByText(/^\d+ settings are as they are\.$/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Import these settings' })).toHaveCount(0);

  const changed = JSON.parse(text) as { shelf: object[] };
  changed.shelf.push({ kind: 'hashtags', title: 'Clouds', text: '#cloudy #waiting', source: '' });
  await choose(JSON.stringify(changed));
  await expect(page.getByText('Hashtag set “Clouds” is new')).toBeVisible();
  await page.getByRole('button', { name: 'Import these settings' }).click();
  await expect(page.getByText(/^Imported\./)).toBeVisible();
  await page.goto('/fennel-moor/shelf');
  await expect(page.getByText('#waiting').first()).toBeVisible();
});

test('dates to plan around show as a band; a file that is none is refused', async ({ page }) => {
  await page.goto('/fennel-moor/settings/dates');
  const choose = (text: string) =>
    page
      .getByLabel('iCalendar file')
      .setInputFiles({ name: 'days.ics', mimeType: 'text/calendar', buffer: Buffer.from(text) });
  await choose('hello');
  await page.getByRole('button', { name: 'Import the dates' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'The file is not an iCalendar file' })).toBeVisible();
  await choose(
    'BEGIN:VCALENDAR\r\nX-WR-CALNAME:Moor days\r\nBEGIN:VEVENT\r\nSUMMARY:Village fair\r\nDTSTART;VALUE=DATE:20261126\r\nEND:VEVENT\r\nBEGIN:VEVENT\r\nSUMMARY:Tick\r\nDTSTART:20261126T100000\r\nRRULE:FREQ=SECONDLY\r\nEND:VEVENT\r\nEND:VCALENDAR',
  );
  await page.getByRole('button', { name: 'Import the dates' }).click();
  await expect(page.getByText('Brought 1 date in as “Moor days”.')).toBeVisible();
  await expect(page.getByText('“Tick” repeats secondly')).toBeVisible();
  for (const view of ['lanes', 'month', 'day&date=2026-11-26']) {
    await openCalendar(page, `?as=${view}`);
    await expect(page.locator('.date-band', { hasText: 'Village fair' }).first()).toBeVisible();
  }
});

test('a brand is made and is there to switch to; Ctrl+K finds a post and goes anywhere; ? shows the shortcuts', async ({
  page,
}) => {
  await page.goto('/fennel-moor/desk');
  await page.getByRole('button', { name: /^Brand: / }).click();
  await page.getByRole('link', { name: 'New brand…' }).click();
  await page.getByLabel('The brand’s name').fill('Harbour Light');
  await page.getByLabel('The week starts on').selectOption({ label: 'Sunday' });
  await page.getByRole('button', { name: 'Next: channels' }).click();
  await expect(page).toHaveURL(/harbour-light\/begin/);
  await page.goto('/fennel-moor/desk');
  await expect(page.getByRole('button', { name: /Catch an idea/ })).toBeVisible();
  await page.waitForLoadState('networkidle');
  await page.keyboard.press('ControlOrMeta+k');
  await expect(page.getByRole('combobox', { name: 'Find and do' })).toBeFocused();
  await page.keyboard.type('sombrero');
  await expect(page.getByRole('option', { name: /The Sombrero/ }).first()).toBeVisible();
  await page
    .getByRole('option', { name: /PL The Sombrero/ })
    .first()
    .click();
  await expect(page.getByRole('textbox', { name: 'Working title' })).toHaveValue('The Sombrero');
  await page.locator('h1').click();
  await page.keyboard.press('ControlOrMeta+k');
  await expect(page.getByRole('combobox', { name: 'Find and do' })).toBeFocused();
  await page.keyboard.type('by stage');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/as=stages/);
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Shortcuts' })).toContainText('undo what you did last');
});

test('files that are too large, or hold something else, are refused with the reason, and the server stays well', async ({
  page,
}) => {
  await page.goto('/fennel-moor/settings/exchange');
  const send = (path: string, megabytes: number, begin = '') =>
    page.evaluate(
      async ({ path, megabytes, begin }) => {
        const form = new FormData();
        form.set('file', new File([begin, new Uint8Array(megabytes * 1_000_000).fill(0x61)], 'file'));
        const brands = await (await fetch('/fennel-moor/settings')).text();
        form.set('brandId', /"brand":\{"id":"([0-9a-f-]{36})"/.exec(brands.replaceAll('\\"', '"'))?.[1] ?? '');
        form.set('apply', '');
        const response = await fetch(path, { method: 'POST', body: form });
        return { status: response.status, message: (await response.json()).refusal?.message as string | undefined };
      },
      { path, megabytes, begin },
    );
  const csv = await send('/api/calendar/import', 20);
  expect(csv).toEqual({ status: 413, message: expect.stringContaining('larger than 12 MB') });
  const calendar = await send('/api/calendar/dates', 50);
  expect(calendar).toEqual({ status: 413, message: expect.stringContaining('larger than 5 MB') });
  const rows = await send('/api/calendar/import', 0, `channel,title\n${'GR,x\n'.repeat(10_001)}`);
  expect(rows.message).toContain('10,000 rows');
  const quote = await send('/api/calendar/import', 0, '"never closed');
  expect(quote.message).toContain('quotes in its first line');
  expect((await page.request.get('/fennel-moor/desk')).ok()).toBe(true);
});
