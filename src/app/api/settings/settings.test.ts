import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { SHIPPED_PREP } from '@/core/prep/shipped';
import { SHIPPED_RULE_SHEETS } from '@/core/rulesheets/shipped';
import { listBrands } from '@/data/brands/brands';
import { listChannels, listRuleSheets } from '@/data/brands/channels';
import { listPeopleOfBrand } from '@/data/people/people';
import { listPrepSheets } from '@/data/prep/prepSheets';
import { listCampaigns, listPillars } from '@/data/brands/themes';
import { cookieJar } from '@/app/server/testHeaders';
import { schedulePost } from '@/usecases/delivery/schedule';
import { valueOf } from '@/usecases/testWorld';
import { POST as setRhythm } from '../channels/[id]/rhythm/route';
import { DELETE as endRepeat, POST as changeRepeat } from '../repeats/[id]/route';
import { POST as startRepeat } from '../repeats/route';
import { ask, makeApp, refusalIn, type TestApp } from '../testApp';
import { POST as beSomebody } from '../who/route';
import { GET as zoneMoves, POST as saveBrand } from './brands/route';
import { DELETE as archiveChannel, POST as saveChannel } from './channels/route';
import { DELETE as archivePerson, POST as savePerson } from './people/route';
import { DELETE as forgetPrep, POST as savePrep } from './prep/route';
import { POST as saveSheet } from './sheets/route';
import { DELETE as archiveTheme, POST as saveTheme } from './themes/route';

let app: TestApp;
beforeEach(async () => {
  app = await makeApp();
});
afterEach(() => app.close());

const NOBODY = '00000000-0000-4000-8000-000000000000';

describe('who one is', () => {
  it('is kept in a cookie', async () => {
    await ask(beSomebody, { body: { personId: app.otherWork.actorId } });
    expect([...cookieJar.values()]).toEqual([app.otherWork.actorId]);
    expect(refusalIn(await ask(beSomebody, { body: { personId: 'mana' } }))).toEqual(['badField', 'personId']);
  });

  it('is somebody who works here', async () => {
    const before = [...cookieJar.values()];
    expect((await ask(beSomebody, { body: { personId: NOBODY } })).status).toBe(404);
    expect([...cookieJar.values()]).toEqual(before);
  });
});

describe('a brand', () => {
  const BRAND = { id: null as string | null, name: 'Heron', zone: 'Europe/Dublin', weekStart: 7, daysOff: [] };

  it('is made with an address of its own, and changed', async () => {
    const { body } = await ask<{ id: string; slug: string }>(saveBrand, { body: BRAND });
    expect(body.slug).toBe('heron');
    await ask(saveBrand, { body: { ...BRAND, id: body.id, name: 'Grey heron', asksSignOff: true } });
    const brand = (await listBrands(app.db)).find(({ id }) => id === body.id);
    expect(brand).toMatchObject({ slug: 'heron', name: 'Grey heron', weekStart: 7, asksSignOff: true });
  });

  it.each([
    ['without a name', { name: '' }, 'emptyTitle', 'name'],
    ['in a zone that is none', { zone: 'Moon/Sea' }, 'badZone', 'zone'],
    ['with an eighth day', { weekStart: 8 }, 'badWeekStart', 'weekStart'],
    ['that speaks without breath', { wordsPerMinute: 900 }, 'badWordsPerMinute', 'wordsPerMinute'],
    ['that never works', { weekdays: [] }, 'badWeekdays', 'weekdays'],
    [
      'with a rest that ends first',
      { daysOff: [{ name: 'x', from: '2026-12-02', to: '2026-12-01' }] },
      'backwards',
      'daysOff[0]',
    ],
    [
      'with a rest on 31 February',
      { daysOff: [{ name: 'x', from: '2026-02-31', to: '2026-03-01' }] },
      'badDate',
      'daysOff[0]',
    ],
  ])('%s is refused', async (_name, change, code, field) => {
    expect(refusalIn(await ask(saveBrand, { body: { ...BRAND, ...change } }))).toEqual([code, field]);
    expect(await listBrands(app.db)).toHaveLength(2);
  });

  it('tells what another zone would make of what is scheduled', async () => {
    const post = await app.makePost('pithline');
    valueOf(await schedulePost(app.work, post.id, post.version));
    const moves = async (query: string) => (await ask<unknown[]>(zoneMoves, { query })).body;
    expect(await moves(`brand=${app.brandId}&zone=Asia/Tokyo`)).toHaveLength(1);
    expect(await moves(`brand=${app.brandId}&zone=Moon/Sea`)).toEqual([]);
    expect(await moves('brand=moor&zone=Asia/Tokyo')).toEqual([]);
    const asked = { ...BRAND, id: app.brandId, zone: 'Asia/Tokyo' };
    expect(refusalIn(await ask(saveBrand, { body: asked }))![0]).toBe('confirmZone');
    expect((await ask(saveBrand, { body: { ...asked, scheduled: 'moment' } })).status).toBe(200);
    expect(refusalIn(await ask(saveBrand, { body: { ...asked, scheduled: 'perhaps' } }))).toEqual([
      'badField',
      'scheduled',
    ]);
  });

  it('is a manager’s to change', async () => {
    app.actAs(app.otherWork.actorId);
    expect((await ask(saveBrand, { body: { ...BRAND, id: app.brandId } })).status).toBe(403);
  });
});

describe('a channel', () => {
  const channel = async (change: object = {}) => ({
    brandId: app.brandId,
    id: null,
    name: 'Lettermill',
    callSign: 'lm',
    color: '#94304B',
    account: ' @moor ',
    aimDays: 21,
    ruleSheetId: (await listRuleSheets(app.db)).find(({ slug }) => slug === 'lettermill')!.id,
    ...change,
  });

  it('is made, and archived unless something is scheduled on it', async () => {
    const { body } = await ask<{ id: string }>(saveChannel, { body: await channel() });
    const made = (await listChannels(app.db, app.brandId)).find(({ id }) => id === body.id);
    expect(made).toMatchObject({ callSign: 'LM', account: '@moor', aimDays: 21 });
    expect((await ask(archiveChannel, { body: { brandId: app.brandId, id: body.id } })).status).toBe(200);
    const post = await app.makePost('pithline');
    valueOf(await schedulePost(app.work, post.id, post.version));
    const refused = await ask(archiveChannel, { body: { brandId: app.brandId, id: app.channels.pithline } });
    expect([refusalIn(refused)![0], refused.body.refusal!.message]).toEqual([
      'scheduled',
      expect.stringContaining('“Dome night”'),
    ]);
  });

  it.each([
    ['a call sign of three letters', { callSign: 'LMN' }, 'badCallSign', 'callSign'],
    ['a call sign that is taken', { callSign: 'PL' }, 'sameCallSign', 'callSign'],
    ['a colour that is none', { color: 'red' }, 'badColour', 'color'],
    ['a colour nobody sees on paper', { color: '#FFFFFF' }, 'paleColour', 'color'],
    ['an aim of a year', { aimDays: 365 }, 'badAim', 'aimDays'],
    ['an aim that is no number', { aimDays: 'far' }, 'badField', 'aimDays'],
    ['a rule sheet of nowhere', { ruleSheetId: NOBODY }, 'notFound', undefined],
  ])('with %s is refused', async (_name, change, code, field) => {
    const answer = refusalIn(await ask(saveChannel, { body: await channel(change) }));
    expect(answer).toEqual([code, field]);
  });
});

describe('a person', () => {
  const person = (change: object = {}) => ({
    id: null,
    name: 'Dea',
    role: 'maker',
    zone: 'Europe/Lisbon',
    crafts: ['designer'],
    weekdays: [1, 2, 3],
    minutesPerDay: 240,
    color: '#7A3B69',
    brandIds: [app.brandId],
    daysOff: [{ name: 'sea', from: '2026-12-20', to: '2027-01-02' }],
    ...change,
  });

  it('is added, changed, and archived', async () => {
    const { body } = await ask<{ id: string }>(savePerson, { body: person() });
    await ask(savePerson, { body: person({ id: body.id, name: 'Dea M.', minutesPerDay: 60 }) });
    const known = (await listPeopleOfBrand(app.db, app.brandId)).find(({ id }) => id === body.id);
    expect(known).toMatchObject({ slug: 'dea', name: 'Dea M.', minutesPerDay: 60, crafts: ['designer'] });
    expect((await ask(archivePerson, { body: { id: body.id, stepsTo: null } })).status).toBe(200);
    expect((await listPeopleOfBrand(app.db, app.brandId)).some(({ id }) => id === body.id)).toBe(false);
  });

  it('who owns steps is archived once those are handed over', async () => {
    const { body } = await ask<{ id: string }>(savePerson, { body: person({ crafts: [] }) });
    await app.makePost('pithline');
    await app.db.run(`update steps set owner_id = $1`, [body.id]);
    expect(refusalIn(await ask(archivePerson, { body: { id: body.id, stepsTo: null } }))![0]).toBe('ownsSteps');
    expect(refusalIn(await ask(archivePerson, { body: { id: body.id, stepsTo: body.id } }))![0]).toBe('samePerson');
    const handed = await ask<{ handed: number }>(archivePerson, { body: { id: body.id, stepsTo: app.work.actorId } });
    expect(handed.body.handed).toBeGreaterThan(0);
  });

  it.each([
    ['without a name', { name: ' ' }, 'emptyTitle', 'name'],
    ['of a role there is not', { role: 'king' }, 'badRole', 'role'],
    ['with a craft there is not', { crafts: ['magician'] }, 'badCraft', 'crafts'],
    ['who works 25 hours a day', { minutesPerDay: 1_500 }, 'badHours', 'minutesPerDay'],
    ['for nobody', { brandIds: [] }, 'noBrand', 'brandIds'],
    ['in no zone', { zone: 'x' }, 'badZone', 'zone'],
    ['of no colour', { color: 'blue' }, 'badColour', 'color'],
  ])('%s is refused', async (_name, change, code, field) => {
    expect(refusalIn(await ask(savePerson, { body: person(change) }))).toEqual([code, field]);
  });

  it('does not archive oneself, nor the last manager', async () => {
    expect(refusalIn(await ask(archivePerson, { body: { id: app.work.actorId, stepsTo: null } }))![0]).toBe('oneself');
    const self = person({ id: app.work.actorId, role: 'maker' });
    expect(refusalIn(await ask(savePerson, { body: self }))).toEqual(['lastManager', 'role']);
  });
});

describe('a prep sheet', () => {
  it('is set for a format and for a kind of piece, and let go', async () => {
    for (const subject of ['photo', 'piece:talk']) {
      const body = { brandId: app.brandId, subject, lines: SHIPPED_PREP.photo };
      expect((await ask(savePrep, { body })).status).toBe(200);
    }
    expect((await listPrepSheets(app.db, app.brandId)).map(({ subject }) => subject).sort()).toEqual([
      'photo',
      'piece:talk',
    ]);
    await ask(forgetPrep, { body: { brandId: app.brandId, subject: 'piece:talk' }, seen: 1 });
    expect((await listPrepSheets(app.db, app.brandId)).map(({ subject }) => subject)).toEqual(['photo']);
  });

  it.each([
    ['for what there is not', { subject: 'piece:opera' }, 'badField', 'subject'],
    ['of 61 steps', { lines: Array.from({ length: 61 }, () => SHIPPED_PREP.photo[0]) }, 'badField', 'lines'],
    ['with a step of no sort', { lines: [{ ...SHIPPED_PREP.photo[0], work: 'x' }] }, 'badWork', 'work'],
    ['with a step of somebody else', { lines: [{ ...SHIPPED_PREP.photo[0], ownerId: NOBODY }] }, 'noOwner', 'ownerId'],
  ])('%s is refused', async (_name, change, code, field) => {
    const body = { brandId: app.brandId, subject: 'photo', lines: [], ...change };
    expect(refusalIn(await ask(savePrep, { body }))).toEqual([code, field]);
  });
});

describe('a rule sheet', () => {
  const own = {
    ...SHIPPED_RULE_SHEETS.find(({ slug }) => slug === 'pithline')!,
    slug: 'harbour-talk',
    name: 'Harbour talk',
    automatic: false,
  };

  it('is made as a copy, and changed under its short name', async () => {
    const { body } = await ask<{ id: string }>(saveSheet, { body: { id: null, sheet: own } });
    await ask(saveSheet, { body: { id: body.id, sheet: { ...own, hashtagLimit: 3 } } });
    const stored = (await listRuleSheets(app.db)).find(({ id }) => id === body.id)!;
    expect(stored).toMatchObject({ slug: 'harbour-talk', rules: { hashtagLimit: 3 } });
    expect(
      refusalIn(await ask(saveSheet, { body: { id: body.id, sheet: { ...own, slug: 'other' } }, seen: 1 })),
    ).toEqual(['fixedSlug', 'slug']);
    expect(refusalIn(await ask(saveSheet, { body: { id: null, sheet: own } }))).toEqual(['sameSlug', 'slug']);
  });

  it.each([
    ['without texts', { fields: [] }],
    ['without formats', { formats: [] }],
    ['with a limit of nothing', { fields: [{ ...own.fields[0]!, limit: 0 }] }],
    ['with a name of spaces', { name: '  ' }],
  ])('%s is refused', async (_name, change) => {
    const answer = await ask(saveSheet, { body: { id: null, sheet: { ...own, ...change } } });
    expect([answer.status, answer.body.refusal !== undefined]).toEqual([422, true]);
  });
});

describe('pillars and campaigns', () => {
  it('are made, changed and archived', async () => {
    const pillar = { kind: 'pillars', brandId: app.brandId, id: null, name: 'The sky', color: '#3b5f7d' };
    const { body } = await ask<{ id: string }>(saveTheme, { body: pillar });
    await ask(saveTheme, { body: { ...pillar, id: body.id, name: 'The night sky' } });
    expect(await listPillars(app.db, [app.brandId])).toMatchObject([{ name: 'The night sky', color: '#3B5F7D' }]);
    await ask(archiveTheme, { body: { kind: 'pillars', brandId: app.brandId, id: body.id } });
    expect(await listPillars(app.db, [app.brandId])).toEqual([]);
    const campaign = { ...pillar, kind: 'campaigns', name: 'Geminids', from: '2026-12-01', to: '2026-12-15' };
    expect((await ask(saveTheme, { body: campaign })).status).toBe(200);
    expect(await listCampaigns(app.db, [app.brandId])).toMatchObject([{ name: 'Geminids' }]);
    const backwards = { ...campaign, name: 'Late', from: '2026-12-16' };
    expect((await ask(saveTheme, { body: backwards })).status).toBe(422);
    expect(refusalIn(await ask(saveTheme, { body: { ...pillar, kind: 'planets' } }))).toEqual(['badField', 'kind']);
  });
});

describe('a rhythm', () => {
  const entry = {
    recurrence: { kind: 'weekly', weekday: 2, every: 1 },
    time: '10:05',
    format: 'text',
    theme: 'Sky',
    pillarId: null,
    from: null,
    to: null,
  };
  const set = (entries: object[], pauses: object[] = [], id: string = app.channels.pithline) =>
    ask(setRhythm, { params: { id }, body: { entries, pauses } });

  it('is set as a whole', async () => {
    expect((await set([entry], [{ name: 'rest', from: '2026-12-24', to: '2026-12-26' }])).status).toBe(200);
    const rows = await app.db.rows('select theme from rhythm_entries');
    expect(rows).toEqual([{ theme: 'Sky' }]);
  });

  it.each([
    ['two for the same minute', [entry, entry], 'sameMinute', 'entries[1]'],
    [
      'a weekday there is not',
      [{ ...entry, recurrence: { kind: 'weekly', weekday: 9, every: 1 } }],
      'badEntry',
      'entries[0]',
    ],
    ['a recurrence there is not', [{ ...entry, recurrence: { kind: 'yearly' } }], 'badField', 'entries[0].recurrence'],
    ['a pillar of another brand', [{ ...entry, pillarId: NOBODY }], 'otherBrand', 'pillarId'],
  ])('of %s is refused', async (_name, entries, code, field) => {
    expect(refusalIn(await set(entries))).toEqual([code, field]);
  });

  it('belongs to a channel', async () => {
    expect((await set([], [], 'PL')).status).toBe(404);
    expect((await set([], [], NOBODY)).status).toBe(404);
  });
});

describe('a series', () => {
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
  const FROM_HERE = { fromNumber: null, writtenToo: false };
  const BEGIN = { postId: null, pieceId: null };

  it('is started, changed and ended', async () => {
    const { body } = await ask<{ id: string; made: number }>(startRepeat, {
      body: { ...SERIES, ...BEGIN, brandId: app.brandId, channelId: app.channels.pithline, firstNumber: 12 },
    });
    expect(body.made).toBe(3);
    expect(
      (await ask(changeRepeat, { params: { id: body.id }, body: { ...SERIES, ...FROM_HERE, time: '11:00' } })).status,
    ).toBe(200);
    const times = await app.db.rows<{ time: string }>('select distinct plan_time as time from posts');
    expect(times.map(({ time }) => time.slice(0, 5))).toEqual(['11:00']);
    expect((await ask(endRepeat, { params: { id: body.id } })).status).toBe(200);
  });

  it.each([
    ['a format the channel does not take', { format: 'newsletter' }, 'format'],
    ['a number of half', { firstNumber: 1.5 }, 'firstNumber'],
    ['a channel of nowhere', { channelId: NOBODY }, 'channels'],
    ['how many ahead, as a word', { ahead: 'some' }, 'ahead'],
  ])('with %s is refused', async (_name, change, field) => {
    const common = { brandId: app.brandId, channelId: app.channels.pithline, firstNumber: 1 };
    const body = { ...SERIES, ...BEGIN, ...common, ...change };
    expect(refusalIn(await ask(startRepeat, { body }))![1]).toBe(field);
    expect(await app.db.rows('select 1 from posts')).toEqual([]);
  });

  it('that is not there is neither changed nor ended', async () => {
    for (const id of ['x', NOBODY]) {
      expect((await ask(changeRepeat, { params: { id }, body: { ...SERIES, ...FROM_HERE } })).status).toBe(404);
      expect((await ask(endRepeat, { params: { id } })).status).toBe(404);
    }
  });
});
