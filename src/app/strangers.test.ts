import { readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { PrepLine } from '@/core/prep/step';
import { BRAND_FILE } from '@/core/exchange/brandFile';
import { RIGHTS, type Deed } from '@/core/rights/may';
import { insertPerson } from '@/data/people/people';
import { saveView } from '@/usecases/calendar/savedViews';
import { keepExtract } from '@/usecases/extracts/extracts';
import { editPiece } from '@/usecases/pieces/pieces';
import { maybePiece } from '@/usecases/pieces/reading';
import { makeBatchDay } from '@/usecases/prep/batchDays';
import { addStep } from '@/usecases/prep/prep';
import type { RepeatSaid } from '@/core/repeats/repeat';
import { startRepeat } from '@/usecases/repeats/repeats';
import { valueOf } from '@/usecases/testWorld';
import { makeApp, type TestApp } from '@/app/api/testApp';
import type { Door } from '@/app/server/door';

/*
 * Somebody who manages another brand asks every route for what belongs to a brand that is not theirs: each is found in the
 * folders, asked with a body that is in order, and has to refuse or know nothing, with nothing written.
 */

const ROOT = new URL('.', import.meta.url).pathname;
const METHODS = ['GET', 'POST', 'PUT', 'PATCH', 'DELETE'] as const;
const STRANGER = '00000000-0000-4000-8000-0000000000fe';
const NOBODYS = '00000000-0000-4000-8000-0000000000aa';

interface Asked {
  params?: Record<string, string>;
  query?: Record<string, string>;
  body?: object | string;
  headers?: Record<string, string>;
}

/** What there is of the brand that is not theirs. */
interface Theirs {
  brandId: string;
  channelId: string;
  postId: string;
  version: number;
  pieceId: string;
  pieceVersion: number;
  stepId: string;
  extractId: string;
  repeatId: string;
  batchId: string;
  viewId: string;
}

const STEP: PrepLine = {
  ...{ title: 'Cut', work: 'recording', ownerId: null, craft: null, lead: 1, leadIn: 'working', minutes: null },
  ...{ note: '', needed: false, ticksItself: false },
};
const SERIES: RepeatSaid = {
  ...{ kind: 'series', name: 'Questions', format: 'photo', time: '10:00', from: '2026-11-24', to: null, ahead: 1 },
  ...{ times: null, daysBefore: 0, workDays: null },
  rule: { kind: 'weekly', weekday: 5, every: 1 },
};
const CARD = {
  ...{ layout: 'ruled', kind: 'quote', text: 'Rings', by: '', width: 800, height: 800, picture: null, follows: null },
  ...{ ground: '#FFFFFF', ink: '#000000', accent: '#123456' },
};
const AGAIN = {
  ...{
    channelIds: [] as string[],
    times: 1,
    everyDays: 7,
    from: null,
    isDated: false,
    isReopened: false,
    isFitted: false,
  },
};
const FAN_OUT = { fanOut: 'talk', only: null, anchor: null, chosen: {}, on: null, under: null, seed: 1 };
const THEME = { kind: 'pillars', id: null, name: 'Sky', color: '#123456' };

const EMPTY_FILE = JSON.stringify(BRAND_FILE);

/** A form with a file, as pages send it. */
const form = (brandId: string, name: string, content = 'Title\nRings'): Asked => {
  const boundary = 'asked';
  const part = (head: string, value: string) =>
    `--${boundary}\r\nContent-Disposition: form-data; ${head}\r\n\r\n${value}\r\n`;
  return {
    body: `${part('name="brandId"', brandId)}${part('name="apply"', '')}${part('name="mapping"', '')}${part('name="name"', 'x')}${part(`name="file"; filename="${name}"`, content)}--${boundary}--\r\n`,
    headers: { 'content-type': `multipart/form-data; boundary=${boundary}` },
  };
};

/** What each route that is a brand's is asked for; by its path and method. */
const asksOf = (of: Theirs): Record<string, Asked> => {
  const { brandId, channelId, postId, version, pieceId, pieceVersion, stepId } = of;
  const [post, piece] = [{ params: { id: postId } }, { params: { id: pieceId } }];
  const query = { brand: brandId };
  const known = { brandId, id: NOBODYS };
  return {
    'api/assets/route.ts POST': { query: { ...query, kind: 'colour', name: 'Ink', value: '#123456' } },
    'api/assets/route.ts DELETE': { body: known },
    'api/batch/[id]/route.ts PATCH': { params: { id: of.batchId }, body: { version: 1, name: 'Mine' } },
    'api/batch/[id]/route.ts DELETE': { params: { id: of.batchId } },
    'api/batch/route.ts POST': {
      body: { brandId, work: 'recording', name: 'Mine', day: '2026-12-01', startsAt: '10:00', stepIds: [] },
    },
    'api/calendar/changes/route.ts POST': {
      body: { brandId, posts: [{ id: postId, version }], change: { kind: 'title', title: 'Mine' } },
    },
    'api/calendar/dates/route.ts POST': form(brandId, 'a.ics'),
    'api/calendar/dates/route.ts PATCH': { body: { ...known, name: 'Mine' } },
    'api/calendar/dates/route.ts DELETE': { body: known },
    'api/calendar/export/route.ts GET': { query: { brand: 'moor', file: 'csv' } },
    'api/calendar/import/[id]/route.ts GET': { params: { id: NOBODYS } },
    'api/calendar/import/[id]/route.ts DELETE': { params: { id: NOBODYS } },
    'api/calendar/import/route.ts POST': form(brandId, 'a.csv'),
    'api/posts/texts/route.ts POST': { body: { ids: [postId], fields: ['caption'] } },
    'api/calendar/undo/route.ts POST': { body: { brandId, changeId: null } },
    'api/calendar/undo/route.ts GET': { query },
    'api/calendar/views/route.ts POST': { body: { brandId, name: 'Mine', shared: true, address: '?as=list' } },
    'api/calendar/views/route.ts DELETE': { body: { id: of.viewId } },
    'api/cards/font/route.ts GET': { query },
    'api/cards/route.ts GET': { query },
    'api/cards/route.ts POST': { body: { brandId, card: CARD } },
    'api/channels/[id]/rhythm/route.ts POST': { params: { id: channelId }, body: { entries: [], pauses: [] } },
    'api/channels/openings/route.ts GET': { query },
    'api/extracts/[id]/route.ts PATCH': { params: { id: of.extractId }, body: { state: 'rejected' } },
    'api/extracts/[id]/route.ts DELETE': { params: { id: of.extractId } },
    'api/departures/carry-over/route.ts GET': { query },
    'api/departures/hold/route.ts POST': { body: { brandId, reason: 'Mine' } },
    'api/departures/hold/route.ts DELETE': { body: { brandId, spread: false } },
    'api/find/route.ts GET': { query: { ...query, words: 'rings' } },
    'api/library/route.ts GET': { query },
    'api/library/route.ts DELETE': { query: { ...query, file: 'a'.repeat(64) } },
    'api/media/[sha]/route.ts GET': { params: { sha: 'a'.repeat(64) } },
    'api/names/route.ts POST': { body: { brandId, known: null, kind: 'person', name: 'Mine', handles: {} } },
    'api/names/route.ts DELETE': { body: { ...known, dropped: true } },
    'api/pieces/[id]/clips/route.ts GET': piece,
    'api/pieces/[id]/corrections/route.ts GET': piece,
    'api/pieces/[id]/corrections/route.ts POST': {
      ...piece,
      body: { deed: 'correct', posts: [{ id: postId, version: 1 }] },
    },
    'api/pieces/[id]/deeds/route.ts POST': { ...piece, body: { deed: 'delete' } },
    'api/pieces/[id]/export/route.ts GET': piece,
    'api/pieces/[id]/extracts/route.ts GET': piece,
    'api/pieces/[id]/extracts/route.ts POST': {
      ...piece,
      body: { kind: 'point', state: 'accepted', start: 0, end: 5, reason: '' },
    },
    'api/pieces/[id]/fan-out/preview/route.ts POST': { ...piece, body: { ask: FAN_OUT } },
    'api/pieces/[id]/fan-out/route.ts POST': { ...piece, body: { ask: FAN_OUT, posts: [] } },
    'api/pieces/[id]/fan-out/writing/route.ts POST': { ...piece, body: { ask: FAN_OUT } },
    'api/pieces/[id]/media/[picture]/route.ts PATCH': { params: { id: pieceId, picture: NOBODYS }, body: { alt: 'x' } },
    'api/pieces/[id]/media/[picture]/route.ts DELETE': { params: { id: pieceId, picture: NOBODYS } },
    'api/pieces/[id]/plan/route.ts POST': { ...piece, body: { channelIds: [channelId], date: null, time: null } },
    'api/pieces/[id]/published/route.ts GET': piece,
    'api/pieces/[id]/route.ts PATCH': { ...piece, body: { version: pieceVersion, title: 'Mine' } },
    'api/pieces/[id]/source/route.ts POST': {
      ...piece,
      body: 'Another text, of mine.',
      headers: { 'if-match': `"${pieceVersion}"`, 'x-file-name': 'a.md' },
    },
    'api/pieces/[id]/source/route.ts PATCH': {
      ...piece,
      body: { as: 'markdown' },
      headers: { 'if-match': `"${pieceVersion}"` },
    },
    'api/pieces/[id]/steps/route.ts POST': { ...piece, body: STEP },
    'api/pieces/[id]/steps/route.ts PATCH': { ...piece, body: { ids: [] } },
    'api/pieces/[id]/steps/route.ts PUT': piece,
    'api/pieces/read/route.ts POST': { query, body: 'A text.' },
    'api/pieces/route.ts POST': { body: { brandId, title: 'Mine' } },
    'api/posts/[id]/again/preview/route.ts POST': { ...post, body: { ask: { ...AGAIN, channelIds: [channelId] } } },
    'api/posts/[id]/again/route.ts POST': { ...post, body: { ask: { ...AGAIN, channelIds: [channelId] }, posts: [] } },
    'api/posts/[id]/cards/route.ts POST': { ...post, body: { card: CARD, replaces: null } },
    'api/posts/[id]/deeds/route.ts POST': { ...post, body: { deed: 'schedule', version } },
    'api/posts/[id]/lasting/route.ts POST': { ...post, body: { lasting: 'dated' } },
    'api/posts/[id]/leaving/[place]/route.ts GET': { params: { id: postId, place: '0' } },
    'api/posts/[id]/media/[picture]/route.ts GET': { params: { id: postId, picture: NOBODYS } },
    'api/posts/[id]/media/[picture]/route.ts PATCH': { params: { id: postId, picture: NOBODYS }, body: { alt: 'x' } },
    'api/posts/[id]/media/[picture]/route.ts DELETE': { params: { id: postId, picture: NOBODYS } },
    'api/posts/[id]/move/route.ts POST': { ...post, body: { version, date: '2026-12-01' } },
    'api/posts/[id]/route.ts GET': post,
    'api/posts/[id]/route.ts PATCH': { ...post, body: { version, title: 'Mine' } },
    'api/posts/[id]/steps/route.ts POST': { ...post, body: STEP },
    'api/posts/[id]/steps/route.ts PATCH': { ...post, body: { ids: [stepId] } },
    'api/posts/[id]/versions/route.ts GET': post,
    'api/proposals/[id]/card/route.ts GET': { params: { id: NOBODYS } },
    'api/proposals/[id]/route.ts POST': { params: { id: NOBODYS }, body: { deed: 'keep', caption: null } },
    'api/restores/release/route.ts POST': { body: { brandId, postId: null } },
    'api/repeats/[id]/route.ts GET': { params: { id: of.repeatId } },
    'api/repeats/[id]/route.ts POST': {
      params: { id: of.repeatId },
      body: { ...SERIES, fromNumber: null, writtenToo: false },
    },
    'api/repeats/[id]/route.ts DELETE': { params: { id: of.repeatId } },
    'api/repeats/route.ts GET': { query: { brand: brandId } },
    'api/repeats/route.ts POST': {
      body: { ...SERIES, brandId, channelId, postId: null, pieceId: null, firstNumber: 1 },
    },
    'api/settings/brands/route.ts GET': { query: { ...query, zone: 'Europe/Lisbon' } },
    'api/settings/channels/route.ts POST': {
      body: {
        ...{ brandId, id: channelId, name: 'Mine', callSign: 'MI', color: '#123456', account: '@m', aimDays: 7 },
        ruleSheetId: NOBODYS,
      },
    },
    'api/settings/channels/route.ts DELETE': { body: { brandId, id: channelId } },
    'api/settings/fan-outs/route.ts POST': {
      body: { brandId, slug: null, name: 'Mine', for: null, isStanding: false, rows: [] },
    },
    'api/settings/fan-outs/route.ts DELETE': { body: { brandId, slug: 'talk' } },
    'api/settings/file/route.ts GET': { query: { brand: 'moor' } },
    'api/settings/file/route.ts POST': form(brandId, 'a.json', EMPTY_FILE),
    'api/settings/prep/route.ts POST': { body: { brandId, subject: 'photo', lines: [] } },
    'api/settings/prep/route.ts DELETE': { body: { brandId, subject: 'photo' } },
    'api/settings/themes/route.ts POST': { body: { ...THEME, brandId } },
    'api/settings/themes/route.ts DELETE': { body: { ...known, kind: 'pillars' } },
    'api/settings/writing/route.ts POST': { body: { brandId, address: 'https://mine.example/', key: null } },
    'api/settings/writing/route.ts DELETE': { body: { brandId } },
    'api/shelf/route.ts GET': { query },
    'api/shelf/route.ts POST': {
      body: { brandId, known: null, kind: 'hashtags', title: 'Mine', text: '#mine', source: '' },
    },
    'api/shelf/route.ts DELETE': { body: { ...known, dropped: true } },
    'api/shelf/use/route.ts POST': { body: { itemId: NOBODYS, postId } },
    'api/take-away/route.ts GET': { query: { post: postId } },
    'api/steps/[id]/route.ts PATCH': { params: { id: stepId }, body: { version: 1, title: 'Mine' } },
    'api/steps/[id]/route.ts POST': { params: { id: stepId }, body: { done: true } },
    'api/steps/[id]/route.ts DELETE': { params: { id: stepId } },
    'api/steps/hand/route.ts POST': { body: { ids: [stepId], personId: STRANGER } },
  };
};

/** Routes that take in a file before they ask whose brand it is for; `uploads.test.ts` and the use cases hold them. */
const TAKES_FILES = [
  'api/library/route.ts POST',
  'api/pieces/[id]/media/route.ts POST',
  'api/posts/[id]/media/route.ts POST',
];

type Handler = Door<Record<string, string>>;
const doors = await Promise.all(
  (readdirSync(ROOT, { recursive: true }) as string[])
    .filter((path) => path.split('/').at(-1) === 'route.ts' && statSync(join(ROOT, path)).isFile())
    .sort()
    .map(async (path) => {
      const module = (await import(join(ROOT, path))) as Record<string, unknown>;
      return METHODS.flatMap((method) =>
        module[method] ? [{ name: `${path} ${method}`, method, handler: module[method] as Handler }] : [],
      );
    }),
).then((all) => all.flat());
const ofBrands = doors.filter(({ handler: { deed } }) => deed !== null && RIGHTS[deed as Deed].of === 'brand');

let app: TestApp;
let asks: Record<string, Asked>;
beforeAll(async () => {
  app = await makeApp();
  const { brandId, otherBrandId, work } = app;
  await insertPerson(app.db, { id: STRANGER, slug: 'fera', name: 'Fera', role: 'manager', position: 9 }, [
    otherBrandId,
  ]);
  const post = await app.makePost('glassrow');
  const before = (await maybePiece(app.db, post.pieceId))!;
  const piece = valueOf(await editPiece(work, post.pieceId, before.version, { sourceText: 'The rings are thin.' }));
  const step = valueOf(await addStep(work, { postId: post.id }, STEP));
  const extract = valueOf(
    await keepExtract(work, post.pieceId, { kind: 'point', state: 'accepted', start: 0, end: 9, reason: '' }),
  );
  const channelId = app.channels.glassrow;
  const repeat = valueOf(
    await startRepeat(work, brandId, { ...SERIES, channelId, postId: null, pieceId: null, firstNumber: 1 }),
  );
  const batch = valueOf(
    await makeBatchDay(work, brandId, {
      ...{ work: 'recording', name: 'Dome', day: '2026-12-01', startsAt: '10:00', stepIds: [step.id] },
    }),
  );
  const view = valueOf(await saveView(work, { brandId, name: 'Mine', shared: true, address: '?as=list' }));
  asks = asksOf({
    ...{ brandId, channelId, postId: post.id, version: (await app.post(post.id)).version, pieceId: piece.id },
    ...{ pieceVersion: piece.version, stepId: step.id, extractId: extract.id, batchId: batch.id },
    repeatId: repeat.id,
    viewId: (view as { id: string }).id,
  });
  app.actAs(STRANGER);
}, 60_000);
afterAll(() => app.close());

/** All that stands in the database but what answers and the past are known by. */
async function everything(): Promise<string> {
  const tables = await app.db.rows<{ name: string }>(
    `select table_name as name from information_schema.tables where table_schema = 'public'
       and table_type = 'BASE TABLE' and table_name <> 'answered_writes' order by table_name`,
  );
  const digests = await app.db.rows<{ digest: string }>(
    tables
      .map(
        ({ name }) =>
          `select '${name} ' || coalesce(md5(string_agg(t::text, '|' order by t::text)), '') as digest from "${name}" t`,
      )
      .join(' union all '),
  );
  return digests.map(({ digest }) => digest).join('\n');
}

const ask = (handler: Handler, method: string, { params = {}, query, body, headers = {} }: Asked): Promise<Response> =>
  handler(
    new Request(`http://127.0.0.1:4310/api?${new URLSearchParams(query)}`, {
      method,
      headers: { host: '127.0.0.1:4310', origin: 'http://127.0.0.1:4310', ...headers },
      ...(method === 'GET' ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body ?? {}) }),
    }),
    { params: Promise.resolve(params) },
  );

it('every route of a brand is asked', () => {
  expect(ofBrands.length).toBeGreaterThan(70);
  expect([...Object.keys(asks), ...TAKES_FILES].sort()).toEqual(ofBrands.map(({ name }) => name).sort());
});

describe('somebody of another brand', () => {
  let before: string;
  beforeAll(async () => void (before = await everything()));

  it.each(ofBrands.filter(({ name }) => !TAKES_FILES.includes(name)).map((door) => [door.name, door] as const))(
    '%s refuses, or knows nothing',
    async (name, { handler, method }) => {
      expect([403, 404]).toContain((await ask(handler, method, asks[name]!)).status);
    },
  );

  it('has written nothing by all that', async () => expect(await everything()).toBe(before));
});
