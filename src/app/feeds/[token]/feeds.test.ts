import { afterEach, beforeEach, expect, it } from 'vitest';
import { DELETE, POST } from '@/app/api/feeds/route';
import { ask, makeApp, send, type TestApp } from '@/app/api/testApp';
import { loadFeeds } from '@/usecases/feeds/feeds';
import { GET } from './route';

let app: TestApp;
beforeEach(async () => {
  app = await makeApp();
});
afterEach(() => app.close());

const made = async () => {
  const { body } = await ask<{ address: string }>(POST, { body: { brandId: app.brandId } });
  return body.address;
};
const read = (address: string, headers: Record<string, string> = {}) => {
  app.actAs(null);
  return send(GET, { params: { token: address.split('/').at(-1)! }, headers });
};

it('is read without signing in by who has its address, and not sent again while nothing changed', async () => {
  const address = await made();
  expect(address).toMatch(/^http:\/\/127\.0\.0\.1:4310\/feeds\/[\w-]{43}\.ics$/);
  const first = await read(address);
  expect([first.status, first.headers.get('content-type')]).toEqual([200, 'text/calendar; charset=utf-8']);
  const etag = first.headers.get('etag')!;
  expect((await read(address, { 'if-none-match': etag })).status).toBe(304);
  await app.makePost('pithline', { date: '2026-11-26', time: '14:30' });
  const second = await read(address, { 'if-none-match': `W/${etag}` });
  expect([second.status, (await second.text()).includes('BEGIN:VEVENT')]).toEqual([200, true]);
});

it('is nowhere once it was revoked, and under an address that was never one', async () => {
  const address = await made();
  const [feed] = await loadFeeds(app.db, app.work.actorId);
  expect((await ask(DELETE, { body: { id: feed!.id } })).status).toBe(200);
  const [revoked, guessed] = [await read(address), await read(`/feeds/${'a'.repeat(43)}.ics`)];
  expect([revoked.status, guessed.status]).toEqual([404, 404]);
  expect(await revoked.text()).toBe(await guessed.text());
  expect((await read('/feeds/me.ics')).status).toBe(404);
});
