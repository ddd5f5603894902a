import { readFileSync } from 'node:fs';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { closePool } from '@/data/pool/pool';
import { listAllContents, listKnownContents } from '@/data/media/library';
import { listPictures } from '@/data/media/media';
import { saidBy } from '@/core/drafts/draft';
import type { PieceMedium } from '@/data/media/pieceMedia';
import type { Piece } from '@/data/pieces/pieces';
import type { FanOutPlan } from '@/usecases/fanOut/planFanOut';
import type { MadeFanOut } from '@/usecases/fanOut/makeFanOut';
import { ask, makeApp, refusalIn, send, type TestApp } from '../testApp';
import { GET as getFile } from '../media/[sha]/route';
import { POST as make } from './[id]/fan-out/route';
import { POST as preview } from './[id]/fan-out/preview/route';
import { DELETE as remove, PATCH as change } from './[id]/media/[picture]/route';
import { POST as add } from './[id]/media/route';
import { POST as catchIdea } from './route';

let app: TestApp;
beforeAll(async () => void (app = await makeApp()));
afterAll(async () => {
  await closePool();
  await app.close();
});

const piece = async (kind = 'talk') =>
  (
    await ask<Piece>(catchIdea, {
      body: { brandId: app.brandId, title: 'Star night', kind, note: 'A clear night on the hill.' },
    })
  ).body;
const adding = async (id: string, bytes: Uint8Array, name: string) => {
  const response = await send(add, { params: { id }, body: new Uint8Array(bytes), headers: { 'x-file-name': name } });
  return { status: response.status, body: (await response.json()) as PieceMedium[] };
};
const picture = (shade: number) =>
  sharp({ create: { width: 1400, height: 1400, channels: 3, background: { r: shade, g: 0, b: 0 } } })
    .jpeg()
    .toBuffer();
const VIDEO = readFileSync('demo/videos/talk-wide.mp4');

/** A sound as WAV: a second of silence, 8 kHz, 16 bits. */
function wav(): Uint8Array {
  const data = Buffer.alloc(44 + 16_000);
  data.write('RIFF', 0);
  data.writeUInt32LE(36 + 16_000, 4);
  data.write('WAVEfmt ', 8);
  data.writeUInt32LE(16, 16);
  data.writeUInt16LE(1, 20);
  data.writeUInt16LE(1, 22);
  data.writeUInt32LE(8_000, 24);
  data.writeUInt32LE(16_000, 28);
  data.writeUInt16LE(2, 32);
  data.writeUInt16LE(16, 34);
  data.write('data', 36);
  data.writeUInt32LE(16_000, 40);
  return data;
}

describe('media of a piece', () => {
  it('are pictures in their order, described and moved, and one recording', async () => {
    const { id } = await piece();
    await adding(id, await picture(10), 'one.jpg');
    await adding(id, VIDEO, 'talk.mp4');
    const { body } = await adding(id, await picture(20), 'two.jpg');
    expect(body.map(({ fileName, mime }) => [fileName, mime])).toEqual([
      ['one.jpg', 'image/jpeg'],
      ['talk.mp4', 'video/mp4'],
      ['two.jpg', 'image/jpeg'],
    ]);
    const moved = await ask<PieceMedium[]>(change, {
      params: { id, picture: body[2]!.id },
      body: { place: 0, alt: 'The red tent' },
    });
    expect(moved.body.map(({ fileName, alt, position }) => [fileName, alt, position])).toEqual([
      ['two.jpg', 'The red tent', 1],
      ['one.jpg', '', 2],
      ['talk.mp4', '', 3],
    ]);
    const sound = (await adding(id, wav(), 'talk.wav')).body;
    expect(sound.map(({ fileName }) => fileName)).toEqual(['two.jpg', 'one.jpg', 'talk.wav']);
    expect(sound[2]).toMatchObject({ mime: 'audio/wav', durationMs: 1000, width: 0 });
    const gone = await ask<PieceMedium[]>(remove, { params: { id, picture: sound[0]!.id }, body: {} });
    expect(gone.body.map(({ fileName }) => fileName)).toEqual(['one.jpg', 'talk.wav']);
  });

  it('are kept as long as the piece has them or that can be undone, and played in stretches', async () => {
    const { id } = await piece();
    const [sound] = (await adding(id, wav(), 'talk.wav')).body;
    expect([...(await listKnownContents(app.db, [sound!.sha256]))]).toEqual([sound!.sha256]);
    const part = await send(getFile, { params: { sha: sound!.sha256 }, headers: { range: 'bytes=0-3' } });
    expect([part.status, part.headers.get('content-type'), await part.text()]).toEqual([206, 'audio/wav', 'RIFF']);
    await ask(remove, { params: { id, picture: sound!.id }, body: {} });
    // The other test has the same sound.
    await app.db.run('delete from piece_media where sha256 = $1', [sound!.sha256]);
    expect((await listKnownContents(app.db, [sound!.sha256])).size).toBe(1);
    expect(await listAllContents(app.db)).toContain(sound!.sha256);
    await app.db.run('delete from changes', []);
    expect((await listKnownContents(app.db, [sound!.sha256])).size).toBe(0);
    expect(await listAllContents(app.db)).not.toContain(sound!.sha256);
  });

  it('refuse what is none, and whoever may not', async () => {
    const { id } = await piece();
    expect(refusalIn((await adding(id, Buffer.from('no picture at all'), 'x.jpg')) as never)?.[0]).toBe('notAPicture');
    expect(refusalIn((await adding(id, wav().subarray(0, 40), 'cut.wav')) as never)?.[0]).toBe('brokenPicture');
    app.actAs(app.otherWork.actorId);
    await app.db.run('delete from brand_people where person_id = $1', [app.otherWork.actorId]);
    expect(refusalIn((await adding(id, await picture(30), 'x.jpg')) as never)?.[0]).toBe('notYours');
    app.actAs(app.work.actorId);
  });
});

describe('a photo set', () => {
  it('deals its pictures out in order, each once on a channel, and drafts from what is said of them', async () => {
    const { id } = await piece('photoSet');
    for (const [at, alt] of [
      'The dome at dusk',
      'A red torch',
      'Frost on the rail',
      'Orion over the hill',
      'Tea at two',
    ].entries()) {
      const { body } = await adding(id, await picture(at * 40), `${at}.jpg`);
      await ask(change, { params: { id, picture: body.at(-1)!.id }, body: { alt } });
    }
    const asked = { fanOut: 'photo-set', only: null, anchor: null, chosen: {}, on: null, under: null, seed: 1 };
    const { posts, rows } = (await ask<FanOutPlan>(preview, { params: { id }, body: { ask: asked } })).body;
    const counts = posts.map(({ format, pictures }) => `${format} ${pictures!.length}`);
    // A picture says the same on another channel, so its post is not made there; two together say something else than each alone.
    expect(counts).toEqual([
      'carousel 2',
      ...['photo 1', 'photo 1', 'photo 1'],
      ...['boardPicture 1', 'boardPicture 1', 'photo 1'],
    ]);
    const said = posts.map(({ drafts }) => drafts[0]!.words.caption);
    expect(new Set(said).size).toBe(said.length);
    expect(rows[2]!.note).toBe('3 not made: nothing of their own is said of the pictures');
    const photos = posts.filter(({ row }) => row === 1);
    expect(photos.map(({ drafts }) => drafts[0]!.words.caption!.split(/[.\n]/)[0])).toEqual([
      'Frost on the rail',
      'Orion over the hill',
      'Tea at two',
    ]);
    const chosen = posts.map(({ key, date, time, drafts }) => ({
      ...{ key, draft: 0, shown: saidBy(drafts[0]), date, time, isMoved: false },
    }));
    const made = (await ask<MadeFanOut>(make, { params: { id }, body: { ask: asked, posts: chosen } })).body;
    const carousel = await app.post(made.postIds[0]!);
    const shown = await listPictures(app.db, carousel.id);
    expect(shown.map(({ alt }) => alt)).toEqual(['The dome at dusk', 'A red torch']);
    expect(carousel.parts.map(({ pictureId }) => pictureId)).toEqual(shown.map((one) => one.id));
  });

  it('with too few pictures makes fewer and says so', async () => {
    const { id } = await piece('photoSet');
    await adding(id, await picture(5), 'one.jpg');
    const asked = { fanOut: 'photo-set', only: null, anchor: null, chosen: {}, on: null, under: null, seed: 1 };
    const { posts, rows } = (await ask<FanOutPlan>(preview, { params: { id }, body: { ask: asked } })).body;
    expect(rows[0]!.note).toBe('no picture is left for 1');
    expect(rows[2]!.note).toContain('pictures for only 1 are left for 5');
    expect(posts.every(({ pictures }) => pictures!.length === 1)).toBe(true);
  });
});
