import { spawnSync } from 'node:child_process';
import { expect, test as base, type Browser, type Page } from '@playwright/test';
import config from '../playwright.config';
import { EMPTY_TEMPLATE, freePort, startServer, type TestServer } from './support/server';

/** Another address of this machine than the one Bimlo listens to where nothing is said: whoever comes has to sign in. */
const ELSEWHERE = '127.0.0.2';
/** A name that browsers take for another machine: to a page that comes from there by plain HTTP they forbid much. */
const NAME = 'plan.example';

/** An empty folder, reached by plain HTTP from a network. */
const test = base.extend<{ server: TestServer }>({
  server: async ({}, provide) => {
    const port = await freePort();
    const hosts = `${NAME}:${port}`;
    const env = { BIMLO_DEMO_PERSON: '', HOST: ELSEWHERE, PORT: String(port), BIMLO_HOSTS: hosts };
    const server = await startServer(env, EMPTY_TEMPLATE);
    await provide({ ...server, url: `http://${hosts}` });
    await server.end();
  },
  baseURL: async ({ server }, provide) => provide(server.url),
});

const { launchOptions } = config.use!;
test.use({
  launchOptions: {
    ...launchOptions,
    args: [...launchOptions!.args!, `--host-resolver-rules=MAP ${NAME} ${ELSEWHERE}`],
  },
});

const PASSWORDS = { ada: 'three grey herons', bo: 'four brown owls', cy: 'five white swans' };

/** Begins the house as Ada, with a brand that has one channel, and with Bo and Cy. */
async function beginAsAda(page: Page): Promise<void> {
  await page.goto('/');
  await page.getByLabel('Your name').fill('Ada');
  await page.getByLabel('The brand’s name').fill('Harbour Library');
  await page.getByRole('button', { name: 'Next: channels' }).click();
  await expect(page.getByText('Choose a password')).toBeVisible();
  await page.getByLabel('Password', { exact: true }).fill(PASSWORDS.ada);
  await page.getByRole('button', { name: 'Next: channels' }).click();
  await page.getByLabel(/^Pithline/).check();
  await page.getByRole('button', { name: 'Add this channel' }).click();
  await page.getByLabel('Name of person 1').fill('Bo');
  await page.getByRole('button', { name: 'Add another person' }).click();
  await page.getByLabel('Name of person 2').fill('Cy');
  await page.getByLabel('Role of person 2').selectOption('reviewer');
  await page.getByRole('button', { name: 'Add these 2 people' }).click();
  await expect(page.getByLabel('How often on Pithline')).toBeVisible();
}

/** Makes the link of somebody in the settings, and gives it. */
async function linkFor(page: Page, name: string, button: string): Promise<string> {
  await page.goto('/harbour-library/settings/people');
  await page.getByRole('button', { name, exact: true }).click();
  await page.getByRole('button', { name: button }).click();
  return page.getByLabel(`Send this link to ${name}`).inputValue();
}

/** A browser of somebody else, who comes in by a link with that password. */
async function comeIn(browser: Browser, server: TestServer, link: string, password: string): Promise<Page> {
  const page = await (await browser.newContext({ baseURL: server.url })).newPage();
  await page.goto(link);
  await page.getByLabel('Password', { exact: true }).fill(password);
  await page.getByRole('button', { name: 'Save and sign in' }).click();
  await expect(page).toHaveURL(/\/harbour-library\/calendar/);
  return page;
}

async function signIn(page: Page, name: string, password: string): Promise<void> {
  await page.getByLabel('Name').fill(name);
  await page.getByLabel('Password', { exact: true }).fill(password);
  await page.getByRole('button', { name: 'Sign in' }).click();
}

/** Catches an idea, takes it back by key, and brings it again. */
async function makeAndUndo(page: Page): Promise<void> {
  await page.goto('/harbour-library/ideas');
  const idea = page.getByRole('main').getByText('What the tide left');
  await page.getByRole('button', { name: /^Catch an idea/ }).click();
  await page.getByRole('dialog').getByLabel('Title').fill('What the tide left');
  await page.getByRole('dialog').getByRole('button', { name: 'Catch it', exact: true }).click();
  await expect(idea).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(idea).toBeHidden();
  await page.keyboard.press('Control+Shift+z');
  await expect(idea).toBeVisible();
}

const statusOf = (page: Page, path: string) => page.evaluate(async (path) => (await fetch(path)).status, path);

test('three people share a new folder under another address: each signs in, sees what is theirs, and is out when archived', async ({
  page,
  browser,
  server,
}) => {
  await beginAsAda(page);
  expect(await page.evaluate(() => isSecureContext)).toBe(false);
  const invitation = await linkFor(page, 'Bo', 'Invite Bo');
  expect(invitation).toMatch(new RegExp(`^http://${NAME}:\\d+/join/[\\w-]{43}$`));
  await expect(page.getByText(/^It works once, until \d+ \w+ \d\d:\d\d\. It is not shown again\.$/)).toBeVisible();
  await page.getByRole('button', { name: 'Copy link' }).click();
  await expect(page.getByText('Link copied.')).toBeVisible();
  const bo = await comeIn(browser, server, invitation, PASSWORDS.bo);
  const cy = await comeIn(browser, server, await linkFor(page, 'Cy', 'Invite Cy'), PASSWORDS.cy);

  // A link is used once.
  const late = await (await browser.newContext({ baseURL: server.url })).newPage();
  await late.goto(invitation);
  await expect(late.getByRole('heading', { name: 'This link holds no longer' })).toBeVisible();

  // What each is offered: a maker makes, a reviewer looks; the settings of the house are a manager's.
  await expect(bo.getByRole('button', { name: /^Catch an idea/ })).toBeVisible();
  await expect(cy.getByRole('button', { name: /^Catch an idea/ })).toHaveCount(0);
  await makeAndUndo(bo);
  for (const other of [bo, cy]) {
    await other.goto('/harbour-library/settings/audit');
    await expect(other.getByRole('table')).toHaveCount(0);
  }

  // Signed out, one comes back to where one wanted to go.
  await bo.goto('/harbour-library/desk?person=x');
  await bo.getByRole('button', { name: 'You are Bo' }).click();
  await bo.getByRole('button', { name: 'Sign out' }).click();
  await expect(bo).toHaveURL(/\/sign-in$/);
  await bo.goto('/harbour-library/ideas?words=dome');
  await expect(bo.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  expect(await statusOf(bo, '/api/find?brand=x&words=dome')).toBe(401);
  await signIn(bo, 'bo', PASSWORDS.ada);
  await expect(bo.getByText('That name and that password do not belong together.')).toBeVisible();
  await signIn(bo, 'BO', PASSWORDS.bo);
  await expect(bo).toHaveURL(/\/harbour-library\/ideas\?words=dome$/);

  // Forgotten: a manager's link; the browser that was signed in is signed out.
  const forgotten = await linkFor(page, 'Cy', 'Make a link for a new password');
  await late.goto(forgotten);
  await late.getByLabel('Password', { exact: true }).fill('six black crows');
  await late.getByRole('button', { name: 'Save and sign in' }).click();
  await expect(late).toHaveURL(/\/harbour-library\/calendar/);
  await cy.reload();
  await expect(cy).toHaveURL(/\/sign-in/);

  // Archived, one is out with the next request.
  await page.goto('/harbour-library/settings/people');
  await page.getByRole('button', { name: 'Bo', exact: true }).click();
  await page.getByRole('button', { name: 'Archive Bo' }).click();
  await expect(page.getByText('Bo is archived.')).toBeVisible();
  expect(await statusOf(bo, '/api/find?brand=x&words=dome')).toBe(401);
  await bo.reload();
  await expect(bo).toHaveURL(/\/sign-in/);

  await page.goto('/harbour-library/settings/audit');
  const rows = page.getByRole('row');
  await expect(rows.nth(1)).toContainText('archived Bo');
  await expect(page.getByRole('row', { name: /a wrong password for Bo/ })).toContainText(ELSEWHERE.slice(0, 4));
  await expect(page.getByRole('row', { name: /made a link for a new password of Cy/ })).toContainText('Ada');
});

test('a password is tried forty times: after ten each has to wait, and the right one is let in again after that', async ({
  page,
  browser,
  server,
}) => {
  await beginAsAda(page);
  const other = await (await browser.newContext({ baseURL: server.url })).newPage();
  await other.goto('/sign-in');
  const statuses = await other.evaluate(async () => {
    const codes: string[] = [];
    for (let at = 0; at < 40; at++) {
      const answer = await fetch('/api/sign-in', {
        method: 'POST',
        body: JSON.stringify({ name: 'ada', password: `wrong wrong ${at}` }),
      });
      codes.push(((await answer.json()) as { refusal: { code: string } }).refusal.code);
    }
    return codes;
  });
  expect(statuses.slice(0, 10)).toEqual(Array(10).fill('wrongPassword'));
  expect(statuses.slice(10)).toEqual(Array(30).fill('tooManyTries'));
  await signIn(other, 'ada', PASSWORDS.ada);
  await expect(other.getByText(/^That was wrong too often. Try again in 1 second/)).toBeVisible();
  // Who is signed in already is not touched by it.
  await page.goto('/harbour-library/settings/audit');
  await expect(page.getByRole('row', { name: /a wrong password for Ada/ })).toHaveCount(10);
});

test('the demo, in which everybody chooses who they are, is not shown under another address', () => {
  const { status, stderr } = spawnSync(process.execPath, ['scripts/server.mjs'], {
    env: { ...process.env, PORT: '0', HOST: ELSEWHERE, BIMLO_DEMO_PERSON: 'ines', BIMLO_DATA: '/nonexistent' },
    encoding: 'utf8',
  });
  expect(status).toBe(1);
  expect(stderr).toContain('on this machine only');
});
