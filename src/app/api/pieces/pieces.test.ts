import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { Slip } from '@/core/calendar/slip';
import type { SheetStep } from '@/core/posts/sheet';
import { BLANK_STEP } from '@/core/prep/step';
import type { Piece } from '@/data/pieces/pieces';
import { ask, makeApp, refusalIn, type TestApp } from '../testApp';
import { GET as search } from '../find/route';
import { POST as tickStep } from '../steps/[id]/route';
import { POST as doDeed } from './[id]/deeds/route';
import { POST as plan } from './[id]/plan/route';
import { PATCH as edit } from './[id]/route';
import { PATCH as orderSteps, POST as addStep, PUT as renewPrep } from './[id]/steps/route';
import { POST as catchIdea } from './route';

interface Present {
  piece: Piece;
  steps: SheetStep[];
  refusal?: { code: string; field?: string; message: string };
  current?: { piece: Piece; steps: SheetStep[] };
}

let app: TestApp;
let idea: Piece;
beforeEach(async () => {
  app = await makeApp();
  idea = (await ask<Piece>(catchIdea, { body: { brandId: app.brandId, title: 'Rings that vanish' } })).body;
});
afterEach(() => app.close());

const NOBODY = '00000000-0000-4000-8000-000000000000';
const params = {
  get id() {
    return idea.id;
  },
};
const write = async (change: object, version = idea.version) => {
  const answer = await ask<Present>(edit, { params, body: { version, ...change } });
  if (answer.status === 200) idea = answer.body.piece;
  return answer;
};

describe('catching an idea', () => {
  it('needs a title and nothing else', async () => {
    expect(idea).toMatchObject({ title: 'Rings that vanish', note: '', kind: 'message', ownerId: app.work.actorId });
  });

  it('takes note, link and channels', async () => {
    const { body } = await ask<Piece>(catchIdea, {
      body: {
        brandId: app.brandId,
        title: ' Dome  night ',
        note: 'Soon',
        link: 'https://moor.example',
        channelIds: [app.channels.pithline],
      },
    });
    expect(body).toMatchObject({ title: 'Dome night', note: 'Soon', suggestedChannelIds: [app.channels.pithline] });
  });

  it.each([
    ['no title', { title: ' ' }, 422, 'emptyTitle', 'title'],
    ['a title that is missing', { title: undefined }, 422, 'badField', 'title'],
    ['a link that is none', { link: 'moor' }, 422, 'badLink', 'link'],
    ['a channel of another brand', { channelIds: [NOBODY] }, 422, 'foreignChannel', 'channels'],
    ['a brand that is no identifier', { brandId: 'moor' }, 422, 'badField', 'brandId'],
    ['a brand one does not work for', { brandId: NOBODY }, 403, 'notYours', undefined],
  ])('refuses %s', async (_name, change, status, code, field) => {
    const answer = await ask(catchIdea, { body: { brandId: app.brandId, title: 'Dome', ...change } });
    expect([answer.status, ...refusalIn(answer)!]).toEqual([status, code, field]);
  });
});

describe('editing a piece', () => {
  it('writes one field and answers with the whole', async () => {
    const { body } = await write({ note: 'Edge on in March' });
    expect(body.piece).toMatchObject({ note: 'Edge on in March', title: 'Rings that vanish' });
  });

  it('shows the present state to whoever comes too late', async () => {
    await write({ note: 'Mine' });
    const late = await ask<Present>(edit, { params, body: { version: 1, note: 'Theirs' } });
    expect([late.status, late.body.current!.piece.note]).toEqual([409, 'Mine']);
  });

  it.each([
    ['a source text of over a million characters', { sourceText: 'x'.repeat(1_000_001) }, 'textTooLong', 'sourceText'],
    ['a kind that does not exist', { kind: 'opera' }, 'badField', 'kind'],
    ['a day that no calendar has', { prepDay: '2026-02-31' }, 'badField', 'prepDay'],
  ])('refuses %s', async (_name, change, code, field) => {
    expect(refusalIn(await write(change))).toEqual([code, field]);
  });
});

describe('the prep of a piece', () => {
  const STEP = { ...BLANK_STEP, title: 'Ask the curator', lead: 2, leadIn: 'calendar' };

  it('comes with its kind, is added to, put in order, ticked, and taken anew', async () => {
    const { body } = await write({ kind: 'talk', prepDay: '2026-12-18' });
    expect(body.steps.map(({ title }) => title)).toContain('Record the talk');
    const added = await ask<Present>(addStep, { params, body: STEP });
    expect(added.body.steps.at(-1)).toMatchObject({ title: 'Ask the curator', day: '2026-12-16' });
    const ids = added.body.steps.map(({ id }) => id).reverse();
    expect((await ask<Present>(orderSteps, { params, body: { ids } })).body.steps[0]!.title).toBe('Ask the curator');
    const ticked = await ask<Present>(tickStep, { params: { id: ids[0]! }, body: { done: true } });
    expect(ticked.body.steps[0]).toMatchObject({ title: 'Ask the curator', doneOn: '2026-11-23' });
    const anew = await ask<Present>(renewPrep, { params });
    expect(anew.body.steps.filter(({ doneOn }) => doneOn === null).map(({ title }) => title)).toContain(
      'Record the talk',
    );
  });

  it('refuses what is no step, and a piece that is not there', async () => {
    expect(refusalIn(await ask(addStep, { params, body: { ...STEP, title: '' } }))).toEqual(['noTitle', 'title']);
    for (const [handler, body] of [
      [addStep, STEP],
      [orderSteps, { ids: [] }],
      [renewPrep, undefined],
    ] as const) {
      expect((await ask(handler, { params: { id: NOBODY }, body })).status).toBe(404);
      expect((await ask(handler, { params: { id: 'x' }, body })).status).toBe(404);
    }
  });
});

describe('planning a piece', () => {
  it('makes a post for each channel and answers with their slips', async () => {
    const { body } = await ask<{ slips: Slip[] }>(plan, {
      params,
      body: { channelIds: [app.channels.pithline, app.channels.glassrow], date: '2026-12-01', time: '10:00' },
    });
    expect(body.slips.map(({ callSign, date, time }) => [callSign, date, time]).sort()).toEqual([
      ['GR', '2026-12-01', '10:00'],
      ['PL', '2026-12-01', '10:00'],
    ]);
  });

  it.each([
    ['no channel', { channelIds: [] }, 'noChannel', 'channels'],
    ['a channel that is no identifier', { channelIds: ['PL'] }, 'badField', 'channelIds[0]'],
    ['a day that has passed', { date: '2026-11-01' }, 'past', 'date'],
    ['a time without a date', { date: null, time: '10:00' }, 'timeWithoutDate', 'date'],
    ['a format that does not exist', { format: 'opera' }, 'badField', 'format'],
  ])('refuses %s', async (_name, change, code, field) => {
    const body = { channelIds: [app.channels.pithline], date: '2026-12-01', time: null, ...change };
    expect(refusalIn(await ask(plan, { params, body }))).toEqual([code, field]);
  });
});

describe('a deed on a piece', () => {
  const deed = (body: object) => ask<Piece & { refusal?: { code: string; field?: string } }>(doDeed, { params, body });

  it('sets it aside and brings it back, deletes and restores it', async () => {
    expect((await deed({ deed: 'setAside', reason: 'Rain' })).body.setAsideReason).toBe('Rain');
    expect((await deed({ deed: 'bringBack' })).body.setAsideAt).toBeNull();
    expect((await deed({ deed: 'delete' })).body.deletedAt).not.toBeNull();
    expect((await deed({ deed: 'restore' })).body.deletedAt).toBeNull();
  });

  it('does not delete what has posts', async () => {
    await ask(plan, { params, body: { channelIds: [app.channels.pithline], date: null, time: null } });
    expect(refusalIn(await deed({ deed: 'delete' }))).toEqual(['hasPosts', undefined]);
  });

  it('has to exist, as the piece has', async () => {
    expect(refusalIn(await deed({ deed: 'burn' }))).toEqual(['badField', 'deed']);
    expect((await ask(doDeed, { params: { id: 'x' }, body: { deed: 'delete' } })).status).toBe(404);
    expect((await ask(doDeed, { params: { id: NOBODY }, body: { deed: 'delete' } })).status).toBe(404);
  });
});

describe('finding', () => {
  const found = async (query: string) =>
    (await ask<{ kind: string; title: string }[]>(search, { query })).body.map(({ kind, title }) => [kind, title]);

  it('looks for words in the posts and pieces of a brand', async () => {
    await app.makePost('pithline');
    expect(await found(`brand=${app.brandId}&words=rings`)).toEqual([['piece', 'Rings that vanish']]);
    expect(await found(`brand=${app.brandId}&words=dome`)).toEqual([
      ['post', 'Dome night'],
      ['piece', 'Dome night'],
    ]);
    expect(await found(`brand=${app.otherBrandId}&words=rings`)).toEqual([]);
  });

  it('finds nothing for no words and no brand', async () => {
    expect(await found(`brand=${app.brandId}&words=`)).toEqual([]);
    expect(await found('brand=moor&words=rings')).toEqual([]);
  });
});
