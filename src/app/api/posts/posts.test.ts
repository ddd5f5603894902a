import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { PostSheet } from '@/core/posts/sheet';
import { BLANK_STEP } from '@/core/prep/step';
import type { Slip } from '@/core/calendar/slip';
import { SHIPPED_PREP } from '@/core/prep/shipped';
import { listStepsOf } from '@/data/prep/steps';
import type { Post } from '@/data/posts/posts';
import { ask, makeApp, refusalIn, type TestApp } from '../testApp';
import { DELETE as dropStep, PATCH as changeStep, POST as tickStep } from '../steps/[id]/route';
import { POST as handOver } from '../steps/hand/route';
import { POST as doDeed } from './[id]/deeds/route';
import { POST as move } from './[id]/move/route';
import { GET as read, PATCH as edit } from './[id]/route';
import { PATCH as orderSteps, POST as addStep } from './[id]/steps/route';
import { GET as versions } from './[id]/versions/route';
import { POST as listTexts } from './texts/route';

/** What a change of a post is answered with. */
interface Changed {
  outcome: Record<string, unknown>;
  sheet: PostSheet;
  slip: Slip;
  refusal?: { code: string; field?: string; message: string };
  current?: PostSheet;
}

let app: TestApp;
let post: Post;
beforeEach(async () => {
  app = await makeApp();
  post = await app.makePost('pithline');
});
afterEach(() => app.close());

const NOBODY = '00000000-0000-4000-8000-000000000000';
const params = (id = post.id) => ({ id });
const deed = async (what: object, id = post.id) =>
  ask<Changed>(doDeed, { params: params(id), body: { version: (await app.post(id)).version, ...what } });

describe('a post', () => {
  it('is read as its sheet', async () => {
    const { status, body } = await ask<PostSheet>(read, { params: params() });
    expect([status, body.caption, body.date, body.time]).toEqual([
      200,
      'The dome is open from eight.',
      '2026-11-26',
      '14:30',
    ]);
  });

  it.each([
    ['an address that is no identifier', 'me'],
    ['one that nothing has', NOBODY],
  ])('is not found under %s', async (_name, id) => {
    expect((await ask(read, { params: { id } })).status).toBe(404);
    expect((await ask(edit, { params: { id }, body: { version: 1, caption: 'x' } })).status).toBe(404);
    expect((await ask(doDeed, { params: { id }, body: { version: 1, deed: 'delete' } })).status).toBe(404);
    expect((await ask(move, { params: { id }, body: { version: 1, date: null } })).status).toBe(404);
  });

  it('is written field by field, each with the version it was based on', async () => {
    app.goTo('2026-11-23T09:30:00.000Z');
    const { body } = await ask<Changed>(edit, {
      params: params(),
      body: { version: post.version, caption: 'Open at nine.', hashtags: '#dome' },
    });
    expect([body.sheet.caption, body.sheet.hashtags, body.sheet.version]).toEqual([
      'Open at nine.',
      '#dome',
      post.version + 1,
    ]);
    expect(body.slip.version).toBe(post.version + 1);
    const late = await ask<Changed>(edit, { params: params(), body: { version: post.version, caption: 'Shut.' } });
    expect([late.status, late.body.refusal!.code, late.body.current!.caption]).toEqual([409, 'stale', 'Open at nine.']);
    const kept = await ask<{ words: { caption: string } }[]>(versions, { params: params() });
    expect(kept.body.map(({ words }) => words.caption)).toContain('The dome is open from eight.');
  });

  it.each([
    ['a caption of a million characters', { caption: 'x'.repeat(1_000_000) }, 'textTooLong', 'caption'],
    ['a title of 300 letters', { title: 'x'.repeat(300) }, 'longTitle', 'title'],
    ['a caption that is a number', { caption: 7 }, 'badField', 'caption'],
    ['a format the channel does not take', { format: 'newsletter' }, 'format', 'format'],
    ['a format that does not exist', { format: 'hologram' }, 'badField', 'format'],
    ['an owner that is no identifier', { ownerId: 'me' }, 'badField', 'ownerId'],
    ['an owner of nowhere', { ownerId: NOBODY }, 'foreignOwner', 'owner'],
    ['a pillar of nowhere', { pillarId: NOBODY }, 'otherBrand', 'pillarId'],
    ['parts that are none', { parts: [{ id: 1 }] }, 'badField', 'parts'],
    ['a text of a part it has not', { partTexts: { [NOBODY]: 'x' } }, 'badParts', 'parts'],
    ['a field it has not', { colour: 'red' }, 'badField', undefined],
  ])('refuses %s, names the field, and writes nothing', async (_name, change, code, field) => {
    const answer = await ask<Changed>(edit, { params: params(), body: { version: post.version, ...change } });
    expect(answer.status).toBe(422);
    expect(refusalIn(answer)).toEqual([code, field]);
    expect(await app.post(post.id)).toEqual(post);
  });

  it('is not to be changed by somebody who does not work for its brand, and is not shown to them', async () => {
    await app.db.run('delete from brand_people where person_id = $1', [app.otherWork.actorId]);
    app.actAs(app.otherWork.actorId);
    const answer = await ask<Changed & { current?: unknown }>(edit, {
      params: params(),
      body: { version: post.version, caption: 'x' },
    });
    expect([answer.status, answer.body.refusal!.code, answer.body.current]).toEqual([403, 'notYours', undefined]);
    expect((await ask(read, { params: params() })).status).toBe(403);
  });

  it.each([
    ['nobody', null],
    ['somebody unknown', NOBODY],
  ])('is not to be changed by %s', async (_who, personId) => {
    app.actAs(personId);
    const { status } = await ask(edit, { params: params(), body: { version: post.version, caption: 'x' } });
    expect(status).toBe(401);
  });
});

describe('the texts of posts', () => {
  const asked = (body: object) =>
    ask<{ posts: { id: string; version: number; texts: Record<string, string>; cut: string[] }[] }>(listTexts, {
      body,
    });

  it('are read for a list, the long ones cut', async () => {
    const long = 'Stars. '.repeat(400);
    await ask(edit, { params: params(), body: { version: post.version, caption: long, script: 'Look up.' } });
    const { body } = await asked({ ids: [post.id, NOBODY], fields: ['caption', 'script'] });
    expect(body.posts).toEqual([
      {
        ...{
          id: post.id,
          version: (await app.post(post.id)).version,
          cut: ['caption'],
          address: '',
          publishedAt: null,
        },
        texts: { caption: long.slice(0, 2_000), script: 'Look up.' },
      },
    ]);
  });

  it('are those of one’s own brands', async () => {
    await app.db.run('delete from brand_people where person_id = $1', [app.work.actorId]);
    expect((await asked({ ids: [post.id], fields: ['caption'] })).status).toBe(404);
  });

  it.each([
    [{ ids: ['x'], fields: ['caption'] }],
    [{ ids: [], fields: ['password'] }],
    [{ ids: Array.from({ length: 201 }, () => NOBODY), fields: ['caption'] }],
    [{ fields: ['caption'] }],
  ])('are refused where they are asked for wrongly', async (body) => {
    expect((await asked(body)).status).toBe(422);
  });
});

describe('the day of a post', () => {
  it('is moved, keeps its time unless another is given, and is taken away', async () => {
    const to = async (body: object) =>
      (
        await ask<Changed>(move, {
          params: params(),
          body: { version: (await app.post(post.id)).version, ...body },
        })
      ).body.sheet;
    expect(await to({ date: '2026-12-01' })).toMatchObject({ date: '2026-12-01', time: '14:30' });
    expect(await to({ date: '2026-12-02', time: '09:15' })).toMatchObject({ date: '2026-12-02', time: '09:15' });
    expect(await to({ date: null })).toMatchObject({ date: null, time: null });
  });

  it.each([
    ['31 February', { date: '2026-02-31' }, 'badField', 'date'],
    ['a day that has passed', { date: '2026-11-01' }, 'past', 'date'],
    ['no date at all', {}, 'badField', 'date'],
    ['25 o’clock', { date: '2026-12-01', time: '25:00' }, 'badField', 'time'],
    ['a time that daylight saving skips', { date: '2027-03-28', time: '01:30' }, 'skippedTime', 'time'],
  ])('refuses %s', async (_name, plan, code, field) => {
    const answer = await ask<Changed>(move, { params: params(), body: { version: post.version, ...plan } });
    expect(refusalIn(answer)).toEqual([code, field]);
    expect(await app.post(post.id)).toEqual(post);
  });
});

describe('a deed', () => {
  it('schedules, and takes back to ready, which unschedules', async () => {
    expect((await deed({ deed: 'schedule' })).body.sheet).toMatchObject({
      stage: 'scheduled',
      delivery: { state: 'waiting', dueAt: '2026-11-26T14:30:00.000Z' },
    });
    const back = await deed({ deed: 'stage', stage: 'ready' });
    expect([back.body.outcome.unscheduled, back.body.sheet.stage]).toEqual([true, 'ready']);
  });

  it('publishes now, and wakes the worker for it', async () => {
    const before = app.looks();
    expect((await deed({ deed: 'publishNow' })).body.sheet.stage).toBe('scheduled');
    expect(app.looks()).toBe(before + 1);
    expect(refusalIn(await deed({ deed: 'tryAgain' }))).toEqual(['notFailed', undefined]);
    expect(app.looks()).toBe(before + 1);
  });

  it('declares out, archives and takes out of the archive', async () => {
    expect(refusalIn(await deed({ deed: 'declareOut', address: 'on the wall' }))).toEqual(['badAddress', 'address']);
    const out = await deed({ deed: 'declareOut', address: 'https://pithline.example/1' });
    expect(out.body.sheet).toMatchObject({ stage: 'published', address: 'https://pithline.example/1' });
    expect(refusalIn(await deed({ deed: 'delete' }))).toEqual(['published', undefined]);
    expect((await deed({ deed: 'archive' })).body.sheet.archived).toBe(true);
    expect((await deed({ deed: 'unarchive' })).body.sheet.archived).toBe(false);
  });

  it('sets aside with a reason, and brings back', async () => {
    expect(refusalIn(await deed({ deed: 'setAside', reason: ' ' }))).toEqual(['noReason', 'reason']);
    expect((await deed({ deed: 'setAside', reason: 'Rain' })).body.sheet).toMatchObject({
      stage: 'setAside',
      setAsideReason: 'Rain',
    });
    expect((await deed({ deed: 'bringBack' })).body.sheet.stage).toBe('drafting');
    expect(refusalIn(await deed({ deed: 'bringBack' }))).toEqual(['notAside', undefined]);
  });

  it('deletes and restores', async () => {
    await deed({ deed: 'delete' });
    expect((await ask(read, { params: params() })).status).toBe(404);
    expect((await deed({ deed: 'restore' })).body.sheet.deleted).toBe(false);
    expect((await ask(read, { params: params() })).status).toBe(200);
  });

  it('waives what the team wants, and renews the prep', async () => {
    expect(refusalIn(await deed({ deed: 'waive', reason: 'Never mind' }))).toEqual(['nothing', undefined]);
    const { body } = await deed({ deed: 'renewPrep' });
    expect(body.sheet.steps.map(({ title }) => title)).toEqual(SHIPPED_PREP.text.map(({ title }) => title));
  });

  it('signs off only where the brand asks for it', async () => {
    expect(refusalIn(await deed({ deed: 'signOff' }))).toEqual(['notAsked', undefined]);
    expect(refusalIn(await deed({ deed: 'takeSignOffBack' }))).toEqual(['nothing', undefined]);
  });

  it.each([
    ['that does not exist', { deed: 'launch' }, 'deed'],
    ['to a stage nobody chooses', { deed: 'stage', stage: 'published' }, 'stage'],
    ['without a name', {}, 'deed'],
  ])('%s is refused', async (_name, what, field) => {
    expect(refusalIn(await deed(what))).toEqual(['badField', field]);
  });

  it('decided on an older state is refused with the present one', async () => {
    const answer = await ask<Changed>(doDeed, { params: params(), body: { version: 0, deed: 'schedule' } });
    expect([answer.status, answer.body.current!.id]).toEqual([409, post.id]);
  });
});

describe('the steps of a post', () => {
  const STEP = { ...BLANK_STEP, title: 'Ask the curator', lead: 2, leadIn: 'calendar' };
  const steps = () => listStepsOf(app.db, [post.id]);

  it('are added, changed, ticked, put in order and taken away', async () => {
    const added = await ask<Changed>(addStep, { params: params(), body: STEP });
    const own = added.body.sheet.steps.at(-1)!;
    expect(own).toMatchObject({ title: 'Ask the curator', day: '2026-11-24' });
    const changed = await ask<Changed>(changeStep, {
      params: { id: own.id },
      body: { version: own.version, lead: 1, pinned: '2026-11-25' },
    });
    expect(changed.body.sheet.steps.at(-1)).toMatchObject({ lead: 1, pinned: '2026-11-25', day: '2026-11-25' });
    const done = await ask<Changed>(tickStep, { params: { id: own.id }, body: { done: true } });
    expect(done.body.sheet.steps.at(-1)!.doneOn).toBe('2026-11-23');
    const ids = (await steps()).map(({ id }) => id).reverse();
    const ordered = await ask<Changed>(orderSteps, { params: params(), body: { ids } });
    expect(ordered.body.sheet.steps.map(({ id }) => id)).toEqual(ids);
    const dropped = await ask<Changed>(dropStep, { params: { id: own.id } });
    expect(dropped.body.sheet.steps.map(({ id }) => id)).not.toContain(own.id);
  });

  it.each([
    ['without a title', { ...STEP, title: ' ' }, 'noTitle', 'title'],
    ['of a sort nobody knows', { ...STEP, work: 'dreaming' }, 'badWork', 'work'],
    ['with a lead of 4,000 days', { ...STEP, lead: 4_000 }, 'badLead', 'lead'],
    ['of half a minute', { ...STEP, minutes: 0.5 }, 'badMinutes', 'minutes'],
    ['without a lead', { ...STEP, lead: undefined }, 'badField', 'lead'],
    ['for somebody of nowhere', { ...STEP, ownerId: NOBODY }, 'noOwner', 'ownerId'],
  ])('are refused %s', async (_name, step, code, field) => {
    const before = await steps();
    expect(refusalIn(await ask(addStep, { params: params(), body: step }))).toEqual([code, field]);
    expect(await steps()).toEqual(before);
  });

  it('are handed over, many at once', async () => {
    const ids = (await steps()).map(({ id }) => id);
    const to = app.otherWork.actorId;
    expect((await ask(handOver, { body: { ids, personId: to } })).body).toMatchObject({ count: ids.length });
    expect((await steps()).every(({ ownerId }) => ownerId === to)).toBe(true);
    expect(refusalIn(await ask(handOver, { body: { ids: [], personId: to } }))).toEqual(['nothing', undefined]);
    expect(refusalIn(await ask(handOver, { body: { ids: ['x'], personId: to } }))).toEqual(['badField', 'ids[0]']);
  });

  it.each([
    ['changed', changeStep, { version: 1 }],
    ['ticked', tickStep, { done: true }],
    ['taken away', dropStep, undefined],
  ])('that are not there are not %s', async (_name, handler, body) => {
    expect((await ask(handler, { params: { id: NOBODY }, body })).status).toBe(404);
    expect((await ask(handler, { params: { id: 'x' }, body })).status).toBe(404);
  });
});
