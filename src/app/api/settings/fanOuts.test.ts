import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { FanOutRow } from '@/core/fanOut/fanOut';
import { SHIPPED_FAN_OUTS } from '@/core/fanOut/shipped';
import { closePool } from '@/data/pool/pool';
import type { Piece } from '@/data/pieces/pieces';
import type { FanOutPlan } from '@/usecases/fanOut/planFanOut';
import { listFanOuts } from '@/usecases/fanOut/fanOuts';
import { SEEN_HEADER } from '@/ui/api';
import { ask, makeApp, refusalIn, send, type TestApp } from '../testApp';
import { POST as catchIdea } from '../pieces/route';
import { POST as preview } from '../pieces/[id]/fan-out/preview/route';
import { DELETE as forget, POST as set } from './fan-outs/route';

let app: TestApp;
beforeAll(async () => void (app = await makeApp()));
afterAll(async () => {
  await closePool();
  await app.close();
});

const ROW: FanOutRow = {
  ...{ network: 'microblog', format: 'text', count: 2, offset: 1, gap: 3 },
  source: { of: 'extracts', kinds: ['quote'] },
};
const OWN = { slug: null, name: 'Two quotes', for: 'talk', isStanding: false, rows: [ROW] };
const write = async (handler: typeof set, body: object, seen = 0) => {
  const response = await send(handler, {
    body: JSON.stringify({ brandId: app.brandId, ...body }),
    headers: { [SEEN_HEADER]: `"${seen}"`, 'content-type': 'application/json' },
  });
  return { status: response.status, body: (await response.json()) as never };
};
const all = () => listFanOuts(app.db, app.brandId);

describe('fan-outs of a brand', () => {
  it('are the shipped ones until it sets its own, which then make its posts', async () => {
    expect((await all()).map(({ slug, isOwn }) => [slug, isOwn])).toEqual(
      SHIPPED_FAN_OUTS.map(({ slug }) => [slug, false]),
    );
    expect((await write(set, OWN)).body).toEqual({ slug: 'two-quotes' });
    expect((await all()).at(-1)).toMatchObject({ slug: 'two-quotes', isOwn: true, isShipped: false, rows: [ROW] });
    const piece = (
      await ask<Piece>(catchIdea, {
        body: { brandId: app.brandId, title: 'A talk', note: 'The dome opens at eight tonight.' },
      })
    ).body;
    const asked = { fanOut: 'two-quotes', only: null, anchor: null, chosen: {}, on: null, under: null, seed: 1 };
    const plan = (await ask<FanOutPlan>(preview, { params: { id: piece.id }, body: { ask: asked } })).body;
    expect(plan.rows).toHaveLength(1);
    expect(plan.rows[0]).toMatchObject(ROW);
  });

  it('change a shipped one for this brand, and let it hold again', async () => {
    const talk = { ...OWN, slug: 'talk', name: 'Our talk' };
    expect((await write(set, talk)).status).toBe(200);
    const ours = (await all()).find(({ slug }) => slug === 'talk')!;
    expect(ours).toMatchObject({ name: 'Our talk', isOwn: true, isShipped: true });
    expect((await listFanOuts(app.db, app.otherBrandId)).find(({ slug }) => slug === 'talk')!.name).toBe('Talk');
    expect(refusalIn(await write(set, talk))?.[0]).toBe('stale');
    expect((await write(forget, { slug: 'talk' }, 1)).status).toBe(200);
    expect((await all()).find(({ slug }) => slug === 'talk')).toMatchObject({ name: 'Talk', isOwn: false });
    expect(refusalIn(await write(forget, { slug: 'talk' }, 2))?.[0]).toBe('notFound');
  });

  it('stand for one kind of piece at most once', async () => {
    const standing = { ...OWN, name: 'By itself', isStanding: true };
    expect(refusalIn(await write(set, { ...standing, for: null }))).toEqual(['noKind', 'for']);
    expect((await write(set, standing)).status).toBe(200);
    expect(refusalIn(await write(set, { ...standing, name: 'Another' }))).toEqual(['standsAlready', 'isStanding']);
  });

  it.each<[string, object, string]>([
    ['no name', { name: ' ' }, 'name'],
    ['no rows', { rows: [] }, 'rows'],
    ['too many posts', { rows: [{ ...ROW, count: 13 }] }, 'rows'],
    ['half a post', { rows: [{ ...ROW, count: 1.5 }] }, 'rows'],
    ['no gap', { rows: [{ ...ROW, gap: 0 }] }, 'rows'],
    ['a source of its own making', { rows: [{ ...ROW, source: { of: 'thin air' } }] }, 'rows[0].source'],
    ['a source with more', { rows: [{ ...ROW, source: { of: 'whole', x: 1 } }] }, 'rows[0].source'],
  ])('are refused with %s', async (_name, part, field) => {
    expect(refusalIn(await write(set, { ...OWN, ...part }))?.[1]).toBe(field);
  });

  it('are the manager’s to set', async () => {
    app.actAs(app.otherWork.actorId);
    expect(refusalIn(await write(set, OWN))?.[0]).toBe('notYours');
    app.actAs(app.work.actorId);
  });
});
