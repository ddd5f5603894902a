import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { NO_FILTER } from '@/core/calendar/filter';
import { closePool } from '@/data/pool/pool';
import { listPictures } from '@/data/media/media';
import type { Piece } from '@/data/pieces/pieces';
import { listPostsBetween } from '@/data/posts/postLines';
import { setFanOut } from '@/usecases/fanOut/fanOuts';
import { drawUpStanding } from '@/usecases/proposals/drawUp';
import { loadProposals, type KeptProposal } from '@/usecases/proposals/proposals';
import { loadCoverage } from '@/usecases/coverage/loadCoverage';
import { valueOf } from '@/usecases/testWorld';
import { ask, makeApp, refusalIn, send, type TestApp } from '../testApp';
import { POST as catchIdea } from '../pieces/route';
import { PATCH as editPiece } from '../pieces/[id]/route';
import { POST as bringIn } from '../pieces/[id]/source/route';
import { GET as picture } from './[id]/card/route';
import { POST as decide } from './[id]/route';

const VTT = readFileSync('demo/fennel-moor/transcripts/rings-that-vanish.vtt');
const ARTICLE = readFileSync('demo/fennel-moor/pieces/ring-plane-crossing.md', 'utf8').split('---').at(-1)!;
const QUOTES = {
  ...{ name: 'Five quotes', for: 'talk' as const, isStanding: true },
  rows: [
    {
      ...{ network: 'photoFeed' as const, format: 'photo' as const, count: 5, offset: 1, gap: 4 },
      source: { of: 'extracts' as const, kinds: ['quote' as const, 'point' as const] },
    },
  ],
};

let app: TestApp;
beforeAll(async () => {
  app = await makeApp();
  valueOf(await setFanOut({ ...app.work, seen: 0 }, app.brandId, null, QUOTES));
});
afterAll(async () => {
  await closePool();
  await app.close();
});
beforeEach(async () => {
  app.goTo('2026-11-23T09:00:00.000Z');
  await app.db.run(`update proposals set state = 'thrownAway' where state = 'waiting'`);
});

const make = async (kind?: string) =>
  (await ask<Piece>(catchIdea, { body: { brandId: app.brandId, title: 'Rings that vanish', ...(kind && { kind }) } }))
    .body;
async function talk(): Promise<Piece> {
  const made = await make('talk');
  const headers = { 'x-file-name': 'talk.vtt', 'if-match': `"${made.version}"` };
  return ((await (await send(bringIn, { params: { id: made.id }, body: VTT, headers })).json()) as { piece: Piece })
    .piece;
}
const waiting = () => loadProposals(app.db, app.work.actorId, app.brandId, app.work.clock.now());
const deciding = <T>(id: string, deed: string, caption?: string) =>
  ask<T>(decide, { params: { id }, body: { deed, ...(caption !== undefined && { caption }) } });
const codeOf = async (answered: Promise<unknown>) => refusalIn((await answered) as never)?.[0];
const postsOf = (pieceId: string) =>
  app.db.rows<{ id: string }>('select id from posts where piece_id = $1 and deleted_at is null', [pieceId]);

describe('a standing fan-out', () => {
  it('draws up a new talk with its transcript once: five quotes, each with a caption and a picture, and no post yet', async () => {
    const piece = await talk();
    expect(await drawUpStanding(app.work)).toBe(5);
    expect(await drawUpStanding(app.work)).toBe(0);
    const proposals = await waiting();
    expect(proposals).toHaveLength(5);
    for (const { caption, hasCard, format, pieceId, isFolded } of proposals) {
      expect([format, pieceId, hasCard, isFolded]).toEqual(['photo', piece.id, true, false]);
      expect(caption.length).toBeGreaterThan(20);
      expect(caption.length).toBeLessThanOrEqual(125);
    }
    expect(await postsOf(piece.id)).toEqual([]);
    const scope = { brandIds: [app.brandId], filter: NO_FILTER, today: '2026-11-23' };
    const onCalendar = await listPostsBetween(app.db, scope, '2026-11-01', '2027-11-01');
    expect(onCalendar.filter(({ pieceId }) => pieceId === piece.id)).toEqual([]);
    const { rows } = await loadCoverage(app.db, app.brandId, { order: 'newest', by: 'channels', after: null });
    expect(rows.find(({ id }) => id === piece.id)).toMatchObject({ live: 0, cells: {} });
    const drawn = await send(picture, { params: { id: proposals[0]!.id } });
    expect(drawn.headers.get('content-type')).toBe('image/png');
  });

  it('finds the steps behind a talk done once its transcript is there', async () => {
    const piece = await talk();
    const steps = await app.db.rows<{ title: string; done: boolean }>(
      'select title, done_at is not null as done from steps where piece_id = $1 order by position',
      [piece.id],
    );
    expect(steps.map(({ done }) => done)).toEqual([true, true, true, true, false]);
    expect(steps[3]!.title).toBe('Write down what was said');
    await drawUpStanding(app.work);
  });

  it('leaves other kinds, what was there before it stood, and a text that is still being typed', async () => {
    const message = await make();
    const typed = await make('talk');
    const type = (piece: Piece) =>
      ask(editPiece, {
        params: { id: piece.id },
        body: {
          version: piece.version,
          sourceText: ARTICLE,
        },
      });
    await type(message);
    await type(typed);
    expect(await drawUpStanding(app.work)).toBe(0);
    app.goTo('2026-11-23T09:03:00.000Z');
    expect(await drawUpStanding(app.work)).toBeGreaterThan(0);
    expect((await waiting()).every(({ pieceId }) => pieceId === typed.id)).toBe(true);
    const before = await make('episode');
    await type(before);
    valueOf(await setFanOut({ ...app.work, seen: 0 }, app.brandId, null, { ...QUOTES, name: 'Later', for: 'episode' }));
    app.goTo('2026-11-23T09:10:00.000Z');
    expect(await drawUpStanding(app.work)).toBe(0);
  });
});

describe('a proposal', () => {
  it('that is kept becomes a post: dated then, with its prep, its picture, and what it was made from', async () => {
    const piece = await talk();
    await drawUpStanding(app.work);
    app.goTo('2026-12-03T09:00:00.000Z');
    const [first, second] = await waiting();
    const kept = (await deciding<KeptProposal>(first!.id, 'keep')).body;
    expect(kept.date).toBe('2026-12-05');
    const post = await app.post(kept.postId);
    expect(post).toMatchObject({ stage: 'drafting', caption: first!.caption, pieceId: piece.id, format: 'photo' });
    const [card] = await listPictures(app.db, kept.postId);
    expect(card!.alt).toContain('Rings that vanish');
    const steps = await app.db.rows<{ title: string }>('select title from steps where post_id = $1', [kept.postId]);
    expect(steps.map(({ title }) => title)).toContain('Check the draft');
    const links = await app.db.rows('select extract_id from post_extracts where post_id = $1', [kept.postId]);
    expect(links).toHaveLength(1);
    const changed = (await deciding<KeptProposal>(second!.id, 'keep', 'In my own words.')).body;
    expect((await app.post(changed.postId)).caption).toBe('In my own words.');
    // Of one row: as far apart as the row wants it, however they were accepted.
    expect(changed.date).toBe('2026-12-09');
    expect(await waiting()).toHaveLength(3);
    expect(await codeOf(deciding(first!.id, 'keep'))).toBe('decided');
    expect(await codeOf(deciding(first!.id, 'throwAway'))).toBe('decided');
  });

  it('is thrown away, and taken back; kept by two at once it is one post', async () => {
    const piece = await talk();
    await drawUpStanding(app.work);
    const [first, second] = await waiting();
    await deciding(first!.id, 'throwAway');
    expect((await waiting()).map(({ id }) => id)).not.toContain(first!.id);
    const deeds = await app.db.rows<{ deed: string }>(
      `select deed from history where subject_id = $1 and deed like 'proposal%'`,
      [piece.id],
    );
    expect(deeds.map(({ deed }) => deed)).toEqual(['proposal rejected']);
    await deciding(first!.id, 'takeBack');
    expect(await waiting()).toHaveLength(5);
    const both = await Promise.all([deciding(second!.id, 'keep'), deciding(second!.id, 'keep')]);
    expect(both.map(({ status }) => status).sort()).toEqual([200, 422]);
    expect(await postsOf(piece.id)).toHaveLength(1);
  });

  it('is folded away after thirty days, and gone with its piece', async () => {
    const piece = await talk();
    await drawUpStanding(app.work);
    app.goTo('2026-12-24T09:00:00.000Z');
    expect((await waiting()).every(({ isFolded }) => isFolded)).toBe(true);
    await app.db.run('update pieces set deleted_at = now() where id = $1', [piece.id]);
    expect(await waiting()).toEqual([]);
  });

  it('of another brand is nobody else’s', async () => {
    await talk();
    await drawUpStanding(app.work);
    const [first] = await waiting();
    app.actAs(app.otherWork.actorId);
    await app.db.run('delete from brand_people where person_id = $1', [app.otherWork.actorId]);
    expect(await codeOf(deciding(first!.id, 'keep'))).toBe('notYours');
    expect((await send(picture, { params: { id: first!.id } })).status).toBe(403);
    app.actAs(app.work.actorId);
  });
});
