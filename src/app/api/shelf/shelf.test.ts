import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { listStepsForBatch } from '@/data/prep/batchDays';
import type { Name, ShelfItem } from '@/core/shelf/shelf';
import type { Shelf } from '@/usecases/shelf/shelf';
import { DELETE as callOff, PATCH as changeBatch } from '../batch/[id]/route';
import { POST as makeBatch } from '../batch/route';
import { DELETE as dropName, POST as keepName } from '../names/route';
import { ask, makeApp, refusalIn, type TestApp } from '../testApp';
import { DELETE as dropItem, GET as readShelf, POST as keepItem } from './route';
import { POST as noteUse } from './use/route';

let app: TestApp;
beforeEach(async () => {
  app = await makeApp();
});
afterEach(() => app.close());

const NOBODY = '00000000-0000-4000-8000-000000000000';

describe('an item of the shelf', () => {
  const item = (change: object = {}) => ({
    brandId: app.brandId,
    known: null,
    kind: 'hashtags',
    title: 'Night sky',
    text: 'nightsky #stars',
    source: '',
    ...change,
  });

  it('is kept, changed, used and counted, dropped and put back', async () => {
    const [made] = (await ask<ShelfItem[]>(keepItem, { body: item() })).body;
    expect(made).toMatchObject({ text: '#nightsky #stars', uses: 0, lastUsedAt: null });
    const known = { id: made!.id, version: made!.version };
    await ask(keepItem, { body: item({ known, text: '#stars' }) });
    expect(refusalIn(await ask(keepItem, { body: item({ known }) }))).toEqual(['stale', undefined]);
    const post = await app.makePost('pithline');
    await ask(noteUse, { body: { itemId: made!.id, postId: post.id } });
    const { body } = await ask<Shelf>(readShelf, { query: `brand=${app.brandId}` });
    expect(body.items).toMatchObject([{ text: '#stars', uses: 1, lastUsedAt: '2026-11-23T09:00:00.000Z' }]);
    const drop = (dropped: boolean) =>
      ask<ShelfItem[]>(dropItem, { body: { brandId: app.brandId, id: made!.id, dropped } });
    expect((await drop(true)).body).toEqual([]);
    expect((await drop(false)).body).toHaveLength(1);
  });

  it.each([
    ['of no kind', { kind: 'song' }, 'badField', 'kind'],
    ['without a title', { title: '' }, 'emptyTitle', 'title'],
    ['without a text', { text: ' ' }, 'emptyText', 'text'],
    ['without a hashtag', { text: '# !' }, 'badHashtag', 'text'],
    ['that is no link', { kind: 'link', text: 'moor' }, 'badLink', 'text'],
    ['of another brand', { brandId: NOBODY }, 'notYours', undefined],
  ])('%s is refused', async (_name, change, code, field) => {
    expect(refusalIn(await ask(keepItem, { body: item(change) }))).toEqual([code, field]);
  });

  it('is nobody’s without a brand, and used only where it is', async () => {
    expect((await ask(readShelf, { query: 'brand=moor' })).status).toBe(404);
    const post = await app.makePost('pithline');
    expect((await ask(noteUse, { body: { itemId: NOBODY, postId: post.id } })).status).toBe(404);
    expect((await ask(dropItem, { body: { brandId: app.brandId, id: NOBODY, dropped: true } })).status).toBe(404);
  });
});

describe('a name of the list', () => {
  const name = (change: object = {}) => ({
    brandId: app.brandId,
    known: null,
    kind: 'person',
    name: 'Rosa Quill',
    handles: { pithline: 'rosa', glassrow: '@rosa.q' },
    ...change,
  });

  it('is kept with what it is called on each network, and dropped', async () => {
    const [made] = (await ask<Name[]>(keepName, { body: name() })).body;
    expect(made).toMatchObject({ name: 'Rosa Quill', handles: { pithline: '@rosa', glassrow: '@rosa.q' } });
    const dropped = await ask<Name[]>(dropName, { body: { brandId: app.brandId, id: made!.id, dropped: true } });
    expect(dropped.body).toEqual([]);
  });

  it.each([
    ['neither person nor place', { kind: 'dream' }, 'kind'],
    ['with handles that are numbers', { handles: { pithline: 7 } }, 'handles'],
    ['without a name', { name: ' ' }, 'name'],
  ])('%s is refused', async (_name, change, field) => {
    expect(refusalIn(await ask(keepName, { body: name(change) }))![1]).toBe(field);
  });
});

describe('a batch day', () => {
  const make = async (change: object = {}) => {
    await app.makePost('pithline');
    const [step] = await listStepsForBatch(app.db, app.brandId, 'words');
    const batch = { work: 'words', name: 'Writing', day: '2026-11-25', startsAt: '10:00', stepIds: [step!.id] };
    return ask<{ id: string; refusal?: { code: string; field?: string } }>(makeBatch, {
      body: { brandId: app.brandId, ...batch, ...change },
    });
  };

  it('is made, changed with its version, and called off', async () => {
    const { id } = (await make()).body;
    const needs = [{ text: ' A quiet room ', done: false }];
    const changed = await ask<{ version: number; needs: unknown[] }>(changeBatch, {
      params: { id },
      body: { version: 1, needs, day: '2026-11-26' },
    });
    expect(changed.body).toMatchObject({ version: 2, needs: [{ text: 'A quiet room', done: false }] });
    expect((await ask(changeBatch, { params: { id }, body: { version: 1, name: 'x' } })).status).toBe(409);
    expect((await ask(callOff, { params: { id } })).status).toBe(200);
    expect((await ask(callOff, { params: { id } })).status).toBe(404);
  });

  it.each([
    ['without a step', { stepIds: [] }, 'noSteps', 'stepIds'],
    ['of no sort', { work: 'dreaming' }, 'badWork', 'work'],
    ['on 31 February', { day: '2026-02-31' }, 'badDate', 'day'],
    ['at 25 o’clock', { startsAt: '25:00' }, 'badTime', 'startsAt'],
    ['with a step that is none', { stepIds: ['x'] }, 'badField', 'stepIds[0]'],
  ])('%s is refused', async (_name, change, code, field) => {
    expect(refusalIn(await make(change))).toEqual([code, field]);
  });
});
