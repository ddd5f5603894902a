import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { saidBy } from '@/core/drafts/draft';
import type { Piece } from '@/data/pieces/pieces';
import { closePool } from '@/data/pool/pool';
import type { FanOutAsk, FanOutPlan } from '@/usecases/fanOut/planFanOut';
import type { ChosenPost, MadeFanOut } from '@/usecases/fanOut/makeFanOut';
import { setRhythm } from '@/usecases/rhythm/rhythms';
import { keepShelfItem } from '@/usecases/shelf/shelf';
import { ask, makeApp, refusalIn, send, type TestApp } from '../testApp';
import { POST as doDeed } from '../posts/[id]/deeds/route';
import { PATCH as editPost } from '../posts/[id]/route';
import { POST as undo } from '../calendar/undo/route';
import { GET as read } from './[id]/extracts/route';
import type { PieceFile } from '@/usecases/exchange/exportPiece';
import { GET as exportPiece } from './[id]/export/route';
import { POST as make } from './[id]/fan-out/route';
import { POST as preview } from './[id]/fan-out/preview/route';
import { POST as bringIn } from './[id]/source/route';
import { POST as catchIdea } from './route';

const VTT = readFileSync('demo/fennel-moor/transcripts/rings-that-vanish.vtt');
const ASK: FanOutAsk = { fanOut: 'talk', only: null, anchor: null, chosen: {}, on: null, under: null, seed: 1 };

let app: TestApp;
let piece: Piece;
beforeAll(async () => void (app = await makeApp()));
afterAll(async () => {
  await closePool();
  await app.close();
});

async function talk(): Promise<void> {
  const made = (
    await ask<Piece>(catchIdea, {
      body: { brandId: app.brandId, title: 'Rings that vanish', link: 'https://moor.example/rings' },
    })
  ).body;
  const headers = { 'x-file-name': 'talk.vtt', 'if-match': `"${made.version}"` };
  piece = ((await (await send(bringIn, { params: { id: made.id }, body: VTT, headers })).json()) as { piece: Piece })
    .piece;
}
const plan = async (part: Partial<FanOutAsk> = {}) =>
  (await ask<FanOutPlan>(preview, { params: { id: piece.id }, body: { ask: { ...ASK, ...part } } })).body;
const chosenOf = (posts: FanOutPlan['posts']): ChosenPost[] =>
  posts.map(({ key, date, time, drafts }) => ({
    key,
    draft: 0,
    shown: saidBy(drafts[0]),
    date,
    time,
    isMoved: false,
  }));
const making = (posts: ChosenPost[], part: Partial<FanOutAsk> = {}) =>
  ask<MadeFanOut>(make, { params: { id: piece.id }, body: { ask: { ...ASK, ...part }, posts } });
const postsOfPiece = () =>
  app.db.rows<{
    id: string;
    format: string;
    date: string | null;
    caption: string;
    parts: unknown[];
    title: string;
    channelId: string;
  }>(
    `select id, format, plan_date as date, caption, parts, title, channel_id as "channelId" from posts where piece_id = $1 and deleted_at is null order by plan_date`,
    [piece.id],
  );

describe('a fan-out', () => {
  it('shows every post with its draft and date before anything is made', async () => {
    await talk();
    const { rows, posts, anchor } = await plan();
    expect(anchor).toBe('2026-11-24');
    const on = rows.filter(({ isOn }) => isOn);
    expect(on.map(({ network }) => network)).toEqual(
      expect.arrayContaining(['microblog', 'photoFeed', 'pictureBoard', 'personalProfile']),
    );
    expect(rows.find(({ network }) => network === 'longVideo')).toMatchObject({
      isOn: false,
      note: 'no channel of this brand takes it',
    });
    expect(posts.filter(({ format }) => format === 'boardPicture')).toHaveLength(5);
    for (const post of posts) {
      expect(post.drafts.length).toBeGreaterThan(0);
      expect(post.date! > '2026-11-23').toBe(true);
    }
    expect(await postsOfPiece()).toEqual([]);
  });

  it('makes what was chosen in one step, with prep for checking, and knows from which extracts; undone in one step', async () => {
    await talk();
    const { posts } = await plan();
    const made = (await making(chosenOf(posts))).body;
    expect(made.postIds).toHaveLength(posts.length);
    const stand = await postsOfPiece();
    expect(stand).toHaveLength(posts.length);
    const thread = stand.find(({ format }) => format === 'thread')!;
    expect(thread.caption).toMatch(/ 1\/\d/);
    expect(thread.parts.length).toBeGreaterThan(1);
    const steps = await app.db.rows<{ title: string }>('select title from steps where post_id = $1 order by position', [
      thread.id,
    ]);
    expect(steps.map(({ title }) => title)).toEqual(['Check the draft', 'Reply to comments']);
    const kept = (await ask<{ kept: { state: string }[] }>(read, { params: { id: piece.id } })).body.kept;
    const used = new Set(posts.flatMap(({ from }) => from.map(({ kind, start }) => `${kind === 'clip'}-${start}`)));
    expect(kept).toHaveLength(used.size);
    expect(kept.every(({ state }) => state === 'accepted')).toBe(true);

    // What was edited since stays, and is named.
    const edited = stand[0]!;
    await app.db.run('update posts set version = version + 1 where id = $1', [edited.id]);
    const undone = (
      await ask<{ outcome: { refused: { postId: string }[] } }>(undo, {
        body: { brandId: app.brandId, changeId: made.changeId },
      })
    ).body;
    expect(undone.outcome.refused.map(({ postId }) => postId)).toEqual([edited.id]);
    expect((await postsOfPiece()).map(({ id }) => id)).toEqual([edited.id]);
    // What was accepted by making them is not accepted any more, but for what still is a post.
    const left = (await ask<{ kept: { usedIn: { postId: string }[] }[] }>(read, { params: { id: piece.id } })).body
      .kept;
    expect(left.length).toBeLessThan(kept.length);
    expect(left.flatMap(({ usedIn }) => usedIn.map(({ postId }) => postId))).toEqual(left.map(() => edited.id));
  });

  it('marks what is not the piece’s own until it is changed or said to be right; nothing unread is called ready', async () => {
    const fits = { networks: ['pithline', 'benchfeed', 'homestoop'] };
    const call = { kind: 'callToAction' as const, title: 'Come up', text: 'Come up on Saturday.', source: '', fits };
    await keepShelfItem(app.work, app.brandId, null, call);
    const pieces: string[] = [];
    for (const seed of [1, 2]) {
      await talk();
      pieces.push(piece.id);
      const { posts } = await plan({ seed });
      await making(chosenOf(posts), { seed });
    }
    const marked = await app.db.rows<{
      id: string;
      version: number;
      drafted: { field: string; text: string; origin: string }[];
      caption: string;
    }>(
      `select id, version, caption, (select jsonb_agg(d) from jsonb_array_elements(drafted) d where d ->> 'origin' in ('phrase', 'shelf')) as drafted
       from posts where piece_id = any($1::uuid[]) and deleted_at is null and format = 'text'
         and drafted @? '$[*] ? (@.origin == "phrase" || @.origin == "shelf")' order by id`,
      [pieces],
    );
    expect(marked.length).toBeGreaterThan(0);
    const { id, version, drafted, caption } = marked[0]!;
    expect(caption).toContain(drafted[0]!.text);
    const deed = (body: object) =>
      ask<{ refusal?: { code: string; message: string }; version?: number }>(doDeed, { params: { id }, body });
    const refusedReady = await deed({ deed: 'stage', version, stage: 'ready' });
    expect(refusedReady.body.refusal?.message).toMatch(/drafted sentences?/);
    expect((await deed({ deed: 'looksRight', version })).status).toBe(200);
    expect((await deed({ deed: 'stage', version: version + 1, stage: 'ready' })).status).toBe(200);
    const edited = marked[1]!;
    const words = edited.caption.replace(edited.drafted[0]!.text, 'In words of ours.');
    await ask(editPost, { params: { id: edited.id }, body: { version: edited.version, caption: words } });
    const ready = await ask(doDeed, {
      params: { id: edited.id },
      body: { deed: 'stage', version: edited.version + 1, stage: 'ready' },
    });
    expect(ready.status).toBe(200);
  });

  it('of a piece half used leaves out the rows whose posts exist, and passes over what a channel had', async () => {
    await talk();
    const first = await plan();
    const boards = first.posts.filter(({ format }) => format === 'boardPicture').slice(0, 2);
    await making(chosenOf(boards), {});
    const again = await plan();
    const row = again.rows.findIndex(({ format }) => format === 'boardPicture');
    expect(again.rows[row]).toMatchObject({ isOn: false, note: expect.stringMatching(/has 2 of this piece already/) });
    const more = await plan({ on: [row] });
    const used = boards.map(({ from }) => from[0]!.start);
    expect(more.posts.length).toBe(5);
    for (const { from } of more.posts) expect(used).not.toContain(from[0]!.start);
    const days = more.posts.map(({ date }) => date);
    for (const { date } of boards) expect(days).not.toContain(date);
  });

  it('takes the openings of a rhythm, keeps dates that were moved by hand, and makes nothing where a date has changed', async () => {
    await talk();
    const thursday = { kind: 'weekly', weekday: 4, every: 1 } as const;
    const entry = {
      recurrence: thursday,
      time: '14:00',
      format: null,
      theme: '',
      pillarId: null,
      from: null,
      to: null,
    };
    const set = await setRhythm({ ...app.work, seen: 0 }, app.channels.corkwall, [entry], []);
    expect(set.ok).toBe(true);
    const { posts } = await plan();
    const boards = posts.filter(({ format }) => format === 'boardPicture');
    const thursdays = boards.map(({ date, time }) => [new Date(`${date}T12:00Z`).getUTCDay(), time]);
    expect(thursdays.every(([day, time]) => day === 4 && time === '14:00')).toBe(true);
    const [one, two] = chosenOf(boards);
    expect(refusalIn((await making([{ ...one!, date: '2027-05-05' }])) as never)).toEqual(['changed', undefined]);
    expect(await postsOfPiece()).toEqual([]);
    for (const odd of [[one!, one!], [{ ...one!, shown: 'Other words.' }]])
      expect(refusalIn((await making(odd)) as never)).toEqual(['changed', undefined]);
    const past = { ...one!, date: '2026-11-01', time: null, isMoved: true };
    expect((await making([past])).status).toBe(422);
    expect(await postsOfPiece()).toEqual([]);
    const moved = await making([
      one!,
      { ...two!, date: '2027-05-05', time: null, isMoved: true, words: { caption: 'By hand.' } },
    ]);
    expect(moved.status).toBe(200);
    expect((await postsOfPiece()).map(({ date, caption }) => [date, caption === 'By hand.'])).toEqual([
      [one!.date, false],
      ['2027-05-05', true],
    ]);
  });

  it('is changed before it is made, in its texts and parts as in its caption; not in how many parts it has', async () => {
    await talk();
    const { posts } = await plan();
    const thread = chosenOf(posts.filter(({ format }) => format === 'thread'))[0]!;
    const { parts, words } = posts.find(({ format }) => format === 'thread')!.drafts[0]!;
    const own = parts.with(1, 'A part of our own.');
    expect(refusalIn((await making([{ ...thread, parts: own.slice(1) }])) as never)).toEqual(['changed', undefined]);
    const tooLong = own.map(() => 'x'.repeat(2_000));
    expect(refusalIn((await making([{ ...thread, parts: tooLong }])) as never)?.[0]).toBe('tooLong');
    const made = (await making([{ ...thread, parts: own, words: { firstComment: 'By us.' } }])).body;
    const post = await app.post(made.postIds[0]!);
    expect(post.parts!.map(({ text }) => text)).toEqual(own);
    expect(post).toMatchObject({ caption: words.caption, firstComment: 'By us.' });
    const odd = { ...thread, words: { stage: 'published' } as object };
    expect((await making([odd])).status).toBe(422);
  });

  it('goes out as JSON with where each drafted sentence is from; what somebody wrote is none of them', async () => {
    await talk();
    const { posts } = await plan();
    const { postIds } = (await making(chosenOf(posts))).body;
    const [own] = (await postsOfPiece()).filter(({ format }) => format === 'text');
    const { version } = await app.post(own!.id);
    await ask(editPost, { params: { id: own!.id }, body: { version, caption: 'By hand, all of it.' } });
    const response = await send(exportPiece, { params: { id: piece.id } });
    expect(response.headers.get('content-disposition')).toContain('.json');
    await send(exportPiece, { params: { id: piece.id }, query: 'file=md' });
    const noted = await app.db.rows<{ detail: string }>(`select detail from audit where kind = 'exported' order by id`);
    expect(noted.map(({ detail }) => detail)).toEqual([`${piece.title}.json`, `${piece.title}.md`]);
    const file = (await response.json()) as PieceFile;
    expect(file.posts.map(({ id }) => id).sort()).toEqual([...postIds].sort());
    expect(file.extracts.flatMap(({ posts: made }) => made).length).toBeGreaterThan(3);
    const origins = new Set(file.posts.flatMap(({ sentences }) => sentences.map(({ origin }) => origin)));
    expect(origins).toContain('piece');
    const edited = file.posts.find(({ id }) => id === own!.id)!;
    expect(edited.caption).toBe('By hand, all of it.');
    expect(edited.sentences.filter(({ field }) => field === 'caption')).toEqual([]);
    for (const { sentences, ...words } of file.posts)
      for (const { field, text } of sentences)
        expect(field === 'parts' ? words.parts.map((part) => part.text).join('\n') : words[field]).toContain(text);
  });

  it('makes one post alone for an empty place of the coverage, of a piece without a text from its note', async () => {
    piece = (
      await ask<Piece>(catchIdea, {
        body: { brandId: app.brandId, title: 'Frost', note: 'The dome was white with frost at six this morning.' },
      })
    ).body;
    const only = { channelId: app.channels.pithline, format: 'text' as const };
    const { rows, posts } = await plan({ fanOut: '', only });
    expect(rows.map(({ channelId, format, makes }) => [channelId, format, makes])).toEqual([
      [only.channelId, 'text', 1],
    ]);
    expect(posts[0]!.drafts[0]!.words.caption).toContain('white with frost');
    expect(posts[0]!.from).toEqual([]);
    expect((await making(chosenOf(posts), { fanOut: '', only })).body.postIds).toHaveLength(1);
    const foreign = { channelId: app.otherChannelId, format: 'text' as const };
    expect(
      refusalIn((await ask(preview, { params: { id: piece.id }, body: { ask: { ...ASK, only: foreign } } })) as never),
    ).toEqual(['noChannel', 'only']);
  });

  it('is refused for another brand, without posts, and where it is no fan-out', async () => {
    await talk();
    expect(refusalIn((await making([])) as never)).toEqual(['nothing', undefined]);
    expect(
      refusalIn((await ask(preview, { params: { id: piece.id }, body: { ask: { ...ASK, fanOut: 'x' } } })) as never),
    ).toEqual(['noFanOut', 'fanOut']);
    expect(
      refusalIn(
        (await ask(preview, { params: { id: piece.id }, body: { ask: { ...ASK, anchor: '2026-13-01' } } })) as never,
      )?.[1],
    ).toBe('ask.anchor');
    const foreign = (await ask<Piece>(catchIdea, { body: { brandId: app.otherBrandId, title: 'Ferry' } })).body;
    app.actAs(app.otherWork.actorId);
    expect((await ask(preview, { params: { id: foreign.id }, body: { ask: ASK } })).status).toBe(403);
    expect((await ask(make, { params: { id: foreign.id }, body: { ask: ASK, posts: [] } })).status).toBe(403);
    app.actAs(app.work.actorId);
  });
});
