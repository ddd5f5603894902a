import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { Slip } from '@/core/calendar/slip';
import type { Post } from '@/data/posts/posts';
import type { ChangeOutcome } from '@/core/calendar/changeOutcome';
import { ask, makeApp, refusalIn, send, type TestApp } from '../testApp';
import { POST as change } from './changes/route';
import { DELETE as dropDates, POST as bringDates } from './dates/route';
import { GET as takeOut } from './export/route';
import { DELETE as stopImport, GET as howImportStands } from './import/[id]/route';
import { POST as bringIn } from './import/route';
import { runImport } from '@/usecases/exchange/longImport';
import { DELETE as forget, POST as keep } from './views/route';
import { POST as undo } from './undo/route';

interface Changed {
  outcome: ChangeOutcome;
  slips: Slip[];
  gone: string[];
  refusal?: { code: string; field?: string; message: string };
}

let app: TestApp;
let posts: Post[];
beforeEach(async () => {
  app = await makeApp();
  posts = [await app.makePost('pithline'), await app.makePost('glassrow', { date: '2026-11-27', time: null })];
});
afterEach(() => app.close());

const NOBODY = '00000000-0000-4000-8000-000000000000';
const make = async (what: object, of = posts) =>
  ask<Changed>(change, {
    body: {
      brandId: app.brandId,
      posts: await Promise.all(of.map(async ({ id }) => ({ id, version: (await app.post(id)).version }))),
      change: what,
    },
  });

describe('a change on the calendar', () => {
  it.each([
    ['moves by days', { kind: 'shift', days: 3 }, (now: Post) => now.date, ['2026-11-29', '2026-11-30']],
    ['gives a time', { kind: 'time', time: '18:00' }, (now: Post) => now.time, ['18:00', '18:00']],
    ['gives a stage', { kind: 'stage', stage: 'production' }, (now: Post) => now.stage, ['production', 'production']],
    ['gives a title', { kind: 'title', title: 'Fog' }, (now: Post) => now.title, ['Fog', 'Fog']],
    ['sets aside', { kind: 'setAside', reason: 'Rain' }, (now: Post) => now.setAsideReason, ['Rain', 'Rain']],
    ['takes the pillar', { kind: 'pillar', pillarId: null }, (now: Post) => now.pillarId, [null, null]],
  ])('%s, of many at once, and is undone', async (_name, what, read, expected) => {
    const before = posts.map(read);
    const { status, body } = await make(what);
    expect(status).toBe(200);
    const states = async () => Promise.all(posts.map(async ({ id }) => read(await app.post(id))));
    expect(await states()).toEqual(expected);
    const undone = await ask<Changed>(undo, { body: { brandId: app.brandId, changeId: body.outcome.changeId } });
    expect(undone.status).toBe(200);
    expect(await states()).toEqual(before);
  });

  it('names what is no post and stays as it is, since it was changed meanwhile', async () => {
    const id = `${app.brandId} launch`;
    const after = { fan_outs: [{ brand_id: app.brandId, slug: 'launch', name: 'Launch' }] };
    await app.db.run(
      `insert into changes (id, brand_id, actor_id, at, label, items) values (gen_random_uuid(), $1, $2, now(), 'Set a fan-out', $3::jsonb)`,
      [app.brandId, app.work.actorId, JSON.stringify([{ subject: 'fanOut', id, before: null, after }])],
    );
    // It is in another state than the change left it in: there is a fan-out of that name with other rows.
    await app.db.run(`insert into fan_outs (brand_id, slug, name, rows) values ($1, 'launch', 'Other', '[]')`, [
      app.brandId,
    ]);
    const undone = await ask<Changed>(undo, { body: { brandId: app.brandId, changeId: null } });
    expect([undone.status, undone.body.outcome.refused]).toEqual([
      200,
      [{ postId: null, title: 'Launch', message: 'It was changed since, so it stays as it is.' }],
    ]);
  });

  it('hands to another owner', async () => {
    await make({ kind: 'owner', ownerId: app.otherWork.actorId });
    expect((await app.post(posts[0]!.id)).ownerId).toBe(app.otherWork.actorId);
  });

  it('places one post on a day of its lane', async () => {
    const { body } = await make({ kind: 'place', date: '2026-12-03', time: '07:45' }, [posts[0]!]);
    expect(body.slips[0]).toMatchObject({ date: '2026-12-03', time: '07:45' });
  });

  it('copies posts to later days', async () => {
    const { body } = await make({ kind: 'copy', days: 7, channelIds: null });
    expect(body.outcome.postIds).toHaveLength(2);
    expect(body.slips.map(({ date }) => date).sort()).toEqual(['2026-12-03', '2026-12-04']);
  });

  it('says which posts the calendar shows no more', async () => {
    const { body } = await make({ kind: 'setAside', reason: 'Rain' });
    expect([body.slips, body.gone.sort()]).toEqual([[], posts.map(({ id }) => id).sort()]);
  });

  it('names what may not be, and does the rest', async () => {
    const { body } = await make({ kind: 'stage', stage: 'ready' });
    expect(body.outcome.refused.map(({ postId }) => postId)).toEqual([posts[1]!.id]);
    expect(body.outcome.refused[0]!.message).toContain('needs a picture');
    expect((await app.post(posts[0]!.id)).stage).toBe('ready');
  });

  it.each([
    ['there is none of', { kind: 'melt' }, 'change'],
    ['to a stage nobody chooses', { kind: 'stage', stage: 'published' }, 'change.stage'],
    ['to 31 February', { kind: 'place', date: '2026-02-31' }, 'change.date'],
    ['by half a day', { kind: 'shift', days: 0.5 }, 'change.days'],
    ['with a field too many', { kind: 'time', time: null, colour: 'red' }, 'change'],
  ])('%s is refused', async (_name, what, field) => {
    expect(refusalIn(await make(what))).toEqual(['badField', field]);
  });

  it('needs a post, and not more than 500', async () => {
    expect(refusalIn(await make({ kind: 'shift', days: 1 }, []))).toEqual(['nothing', undefined]);
    const many = Array.from({ length: 501 }, () => ({ id: NOBODY, version: 1 }));
    const body = { brandId: app.brandId, posts: many, change: { kind: 'shift', days: 1 } };
    expect(refusalIn(await ask(change, { body }))).toEqual(['badField', 'posts']);
  });

  it('of one post that changed meanwhile is refused as such', async () => {
    const body = {
      brandId: app.brandId,
      posts: [{ id: posts[0]!.id, version: 0 }],
      change: { kind: 'shift', days: 1 },
    };
    const answer = await ask(change, { body });
    expect([answer.status, ...refusalIn(answer)!]).toEqual([409, 'stale', undefined]);
  });
});

describe('a saved view', () => {
  it('is kept under a name, and forgotten by whoever kept it', async () => {
    const savedView = { brandId: app.brandId, name: 'Gaps', shared: true, address: '?lacks=picture' };
    const { body } = await ask<{ id: string; name: string }>(keep, { body: savedView });
    expect(body.name).toBe('Gaps');
    app.actAs(app.otherWork.actorId);
    expect((await ask(forget, { body: { id: body.id } })).status).toBe(404);
    app.actAs(app.work.actorId);
    expect((await ask(forget, { body: { id: body.id } })).status).toBe(200);
  });

  it.each([
    ['without a name', { name: ' ' }, 'emptyTitle', 'name'],
    ['with an address without end', { address: 'x'.repeat(4_001) }, 'textTooLong', 'address'],
    ['shared or not, who knows', { shared: 'perhaps' }, 'badField', 'shared'],
  ])('%s is refused', async (_name, part, code, field) => {
    const savedView = { brandId: app.brandId, name: 'Gaps', shared: true, address: '', ...part };
    expect(refusalIn(await ask(keep, { body: savedView }))).toEqual([code, field]);
  });
});

const form = (fields: Record<string, string | Blob>): FormData => {
  const data = new FormData();
  for (const [name, value] of Object.entries(fields)) data.set(name, value);
  return data;
};
const asFile = (text: string, name: string) => new File([text], name);

describe('dates to plan around', () => {
  const EVENTS = `BEGIN:VCALENDAR\r
VERSION:2.0\r
PRODID:-//Moor//EN\r
BEGIN:VEVENT\r
UID:1\r
DTSTAMP:20261101T000000Z\r
DTSTART;VALUE=DATE:20261213\r
DTEND;VALUE=DATE:20261215\r
SUMMARY:Geminids\r
END:VEVENT\r
END:VCALENDAR\r
`;
  const bring = async (text: string, brandId = app.brandId) => {
    const response = await send(bringDates, {
      body: form({ file: asFile(text, 'sky.ics'), brandId, name: 'The sky' }),
    });
    return { status: response.status, body: (await response.json()) as { id?: string; refusal?: { code: string } } };
  };

  it('come in as a calendar file and go out again', async () => {
    expect(await bring(EVENTS)).toMatchObject({ status: 200, body: { name: 'The sky', count: 1, bad: [] } });
    const rows = await app.db.rows<{ title: string }>('select title from known_dates');
    expect(rows).toEqual([{ title: 'Geminids' }]);
    const [file] = await app.db.rows<{ id: string }>('select id from date_files');
    expect((await ask(dropDates, { body: { brandId: app.brandId, id: file!.id } })).status).toBe(200);
    expect(await app.db.rows('select 1 from known_dates')).toEqual([]);
  });

  it('are refused where the file is none, or nobody’s', async () => {
    expect((await bring('Moon')).body.refusal).toBeDefined();
    expect((await bring(EVENTS, 'moor')).status).toBe(404);
    const noFile = await send(bringDates, { body: form({ brandId: app.brandId }) });
    expect(((await noFile.json()) as { refusal: { code: string } }).refusal.code).toBe('noFile');
    const noForm = await send(bringDates, { body: 'x', headers: { 'content-type': 'text/plain' } });
    expect(((await noForm.json()) as { refusal: { code: string } }).refusal.code).toBe('notForm');
  });
});

describe('posts as a file', () => {
  it('go out as a table and as a calendar, under a name with the day', async () => {
    const csv = await send(takeOut, { query: 'brand=moor&file=csv' });
    expect(csv.headers.get('content-disposition')).toBe('attachment; filename="moor-posts-2026-11-23.csv"');
    expect((await csv.text()).split('\n').filter((line) => line.includes('Dome night'))).toHaveLength(2);
    const ics = await send(takeOut, { query: 'brand=moor&file=ics' });
    expect(ics.headers.get('content-type')).toBe('text/calendar; charset=utf-8');
    expect(await ics.text()).toContain('SUMMARY:');
    expect((await send(takeOut, { query: 'brand=nowhere&file=csv' })).status).toBe(404);
  });

  it('come in again: shown first, then changed by their ids', async () => {
    const text = await (await send(takeOut, { query: 'brand=moor&file=csv' })).text();
    const bring = async (more: Record<string, string>) => {
      const response = await send(bringIn, {
        body: form({ file: asFile(text, 'posts.csv'), brandId: app.brandId, ...more }),
      });
      return { status: response.status, body: (await response.json()) as Record<string, unknown> };
    };
    const shown = await bring({});
    expect(shown.status).toBe(200);
    const mapping = JSON.stringify(shown.body.mapping);
    expect((await bring({ mapping, apply: 'whole' })).status).toBe(200);
    expect(await app.db.rows('select count(*)::int as count from posts')).toEqual([{ count: 2 }]);
    for (const [more, field] of [
      [{ mapping, apply: 'some' }, 'apply'],
      [{ apply: 'whole' }, 'mapping'],
      [{ mapping: '{' }, 'mapping'],
      [{ mapping: '{"columns":{}}' }, 'mapping.'],
    ] as const) {
      const { status, body } = await bring(more);
      expect([status, (body.refusal as { field: string }).field]).toEqual([422, expect.stringContaining(field)]);
    }
  });

  it('come in by a job where they are many, which says how far it is and can be stopped', async () => {
    const text = ['title,channel', ...Array.from({ length: 150 }, (_, n) => `Row ${n},pithline`)].join('\n');
    const fields = { file: asFile(text, 'many.csv'), brandId: app.brandId };
    const shown = (await (await send(bringIn, { body: form(fields) })).json()) as { mapping: object };
    const mapping = JSON.stringify(shown.mapping);
    const begun = await send(bringIn, { body: form({ ...fields, mapping, apply: 'whole' }) });
    const { running } = (await begun.json()) as { running: { id: string } };
    expect([begun.status, running]).toMatchObject([202, { state: 'waiting', rowCount: 150, fileName: 'many.csv' }]);
    expect(await ask(howImportStands, { params: running })).toMatchObject({ status: 200, body: { doneCount: 0 } });
    await runImport(app.work, running.id);
    expect(await ask(howImportStands, { params: running })).toMatchObject({
      body: { state: 'done', doneCount: 150, outcome: { made: 150 } },
    });
    expect(await ask(stopImport, { params: running })).toMatchObject({ status: 200, body: { stopAsked: false } });
    expect((await ask(howImportStands, { params: { id: NOBODY } })).status).toBe(404);
    expect((await ask(stopImport, { params: { id: 'x' } })).status).toBe(404);
  });

  it('come in nowhere where the brand is none, or the table', async () => {
    const response = await send(bringIn, { body: form({ file: asFile('a,b', 'x.csv'), brandId: NOBODY }) });
    expect(response.status).toBe(404);
  });
});
