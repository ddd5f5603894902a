import { afterEach, beforeEach, expect, it } from 'vitest';
import { listChannels, listRuleSheets } from '@/data/brands/channels';
import { POST as setRhythm } from '../channels/[id]/rhythm/route';
import { POST as changeRepeat } from '../repeats/[id]/route';
import { POST as startRepeat } from '../repeats/route';
import { SEEN_HEADER } from '@/ui/api';
import { ask, makeApp, send, type TestApp } from '../testApp';
import { POST as saveBrand } from './brands/route';
import { POST as saveChannel } from './channels/route';
import { POST as savePerson } from './people/route';
import { POST as setPrep } from './prep/route';
import { POST as saveSheet } from './sheets/route';
import { POST as saveTheme } from './themes/route';

let app: TestApp;
beforeEach(async () => void (app = await makeApp()));
afterEach(() => app.close());

const BRAND = { name: 'Heron', zone: 'Europe/Lisbon', weekStart: 1, daysOff: [] };
const SERIES = {
  kind: 'series',
  name: 'Friday question',
  format: 'text',
  rule: { kind: 'weekly', weekday: 5, every: 1 },
  time: '10:00',
  from: '2026-11-27',
  to: null,
  ahead: 3,
  ...{ times: null, daysBefore: 0, workDays: null },
};
const THEME = { name: 'More', color: '#3B5F7D' };
const WORKER = {
  name: 'Maki',
  role: 'maker',
  zone: 'UTC',
  crafts: [],
  weekdays: [1],
  minutesPerDay: 60,
  color: '#3B5F7D',
};

type Handler = Parameters<typeof ask>[0];

/** Everything that can be set and is there, each with how it is changed. */
async function settings(): Promise<[string, Handler, object, Record<string, string>?][]> {
  const { brandId } = app;
  const made = async (handler: Handler, body: object) => (await ask<{ id: string }>(handler, { body })).body.id;
  const kept = async (kind: string) => made(saveTheme, { kind, brandId, id: null, name: kind, color: '#3B5F7D' });
  const channel = (await listChannels(app.db, brandId)).find(({ id }) => id === app.channels.pithline)!;
  const { name, callSign, account, aimDays, ruleSheetId } = channel;
  const fields = { name, callSign, color: '#3B5F7D', account, aimDays, ruleSheetId };
  const sheet = (await listRuleSheets(app.db)).find(({ slug }) => slug === 'corkwall')!;
  const begin = { postId: null, pieceId: null, firstNumber: 1 };
  const repeat = await made(startRepeat, { ...SERIES, ...begin, brandId, channelId: channel.id });
  return [
    ['brand', saveBrand, { ...BRAND, id: brandId }],
    ['channel', saveChannel, { ...fields, brandId, id: channel.id }],
    ['rhythm', setRhythm, { entries: [], pauses: [] }, { id: channel.id }],
    ['rule sheet', saveSheet, { id: sheet.id, sheet: sheet.rules }],
    ['person', savePerson, { ...WORKER, id: app.otherWork.actorId, brandIds: [brandId], daysOff: [] }],
    ['pillar', saveTheme, { ...THEME, kind: 'pillars', brandId, id: await kept('pillars') }],
    ['campaign', saveTheme, { ...THEME, kind: 'campaigns', brandId, id: await kept('campaigns') }],
    ['prep sheet', setPrep, { brandId, subject: 'text', lines: [] }],
    ['repeat', changeRepeat, { ...SERIES, fromNumber: null, writtenToo: false }, { id: repeat }],
  ];
}

it('is kept once by two who set it at once: one who saw an older state, or does not say which, is refused', async () => {
  for (const [what, handler, body, params = {}] of await settings()) {
    const statuses = [];
    for (const seen of [null, 1, 0, 0, 1]) statuses.push((await ask(handler, { body, params, seen })).status);
    expect([what, statuses]).toEqual([what, [428, 409, 200, 409, 200]]);
  }
});

it('of another brand is neither changed nor counted up', async () => {
  const mine = { kind: 'pillars', brandId: app.brandId };
  const { body } = await ask<{ id: string }>(saveTheme, { body: { ...mine, ...THEME, id: null } });
  const other = { kind: 'pillars', brandId: app.otherBrandId, id: body.id, name: 'Theirs', color: '#3B5F7D' };
  expect((await ask(saveTheme, { body: other })).status).toBe(404);
  expect((await ask(saveTheme, { body: { ...mine, ...THEME, id: body.id } })).status).toBe(200);
});

it('is kept once when twenty save it in the same moment, and a version that is none counts for none', async () => {
  const body = { ...BRAND, id: app.brandId };
  const all = await Promise.all(Array.from({ length: 20 }, () => ask(saveBrand, { body, seen: 0 })));
  expect(all.map(({ status }) => status).sort()).toEqual([200, ...Array<number>(19).fill(409)]);
  const withTag = (tag: string) =>
    send(saveBrand, { body: JSON.stringify(body), headers: { [SEEN_HEADER]: tag } }).then(({ status }) => status);
  for (const tag of ['*', '1', 'W/"1"', '"-1"', '"1.0"', '"1e0"', '"99999999999"'])
    expect([tag, await withTag(tag)]).toEqual([tag, 428]);
  expect(await withTag('"1"')).toBe(200);
});
