import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Piece } from '@/data/pieces/pieces';
import { closePool } from '@/data/pool/pool';
import type { PieceReading, ShownExtract } from '@/usecases/extracts/reading';
import { PROGRESS_TYPE } from '@/ui/progress';
import { ask, makeApp, refusalIn, send, type TestApp } from '../testApp';
import { GET as clips } from '../pieces/[id]/clips/route';
import { GET as read, POST as keep } from '../pieces/[id]/extracts/route';
import { PATCH as edit } from '../pieces/[id]/route';
import { POST as bringIn } from '../pieces/[id]/source/route';
import { POST as catchIdea } from '../pieces/route';
import { DELETE as remove, PATCH as change } from './[id]/route';

const TALK = [
  'Every fifteen years the planet tips far enough that we look along the plane of its rings.',
  'The sheet of rings is thin, and in places it is only ten metres thick.',
  'A small telescope on the terrace shows a planet with nothing round it at all.',
  'The log book of the observatory holds sixty years of evenings in pencil.',
  'Would you have written a thread in the log book of the observatory?',
  'Children count the moons that the glare of the rings hides in other years.',
];
const at = (seconds: number) => `00:0${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}.000`;
const VTT = `WEBVTT\n\n${TALK.map((line, index) => `${at(index * 8)} --> ${at(index * 8 + 7)}\n${line}`).join('\n\n')}`;

let app: TestApp;
let piece: Piece;
beforeAll(async () => void (app = await makeApp()));
afterAll(async () => {
  await closePool();
  await app.close();
});

const params = () => ({ id: piece.id });
const begin = async (brandId = app.brandId) =>
  void (piece = (await ask<Piece>(catchIdea, { body: { brandId, title: 'Rings' } })).body);
const bring = async (body: BodyInit, name: string, version = piece.version) => {
  const response = await send(bringIn, {
    params: params(),
    body,
    headers: { 'x-file-name': encodeURIComponent(name), 'if-match': `"${version}"` },
  });
  const answer = {
    status: response.status,
    body: (await response.json()) as { piece: Piece; refusal?: { code: string } },
  };
  if (answer.status === 200) piece = answer.body.piece;
  return answer;
};
const reading = async () => (await ask<PieceReading>(read, { params: params() })).body;
const verdict = (one: object, state = 'accepted') =>
  ask<ShownExtract>(keep, { params: params(), body: { reason: '', state, ...one } });
const stretch = (text: string, words: string) => ({
  start: text.indexOf(words),
  end: text.indexOf(words) + words.length,
});

describe('a text that is brought in', () => {
  it('becomes the source of its piece: subtitles with their times, a page without its tags, Markdown as it is', async () => {
    await begin();
    await bring(VTT, 'talk.vtt');
    expect(piece.sourceText).toBe(TALK.join(' '));
    expect((await reading()).isTimed).toBe(true);
    await bring(
      `<html><body><article><h2>Rings</h2><p>${TALK[0]}</p><script>x()</script></article></body></html>`,
      'page.html',
    );
    expect(piece.sourceText).toContain('Every fifteen years');
    expect(piece.sourceText).not.toContain('x()');
    expect((await reading()).isTimed).toBe(false);
    await bring(Buffer.from(`\uFEFF# Rings\n\n${TALK[0]}`, 'utf16le'), 'notes.md');
    expect(piece.sourceText).toContain(TALK[0]!);
  });

  it('is refused at an older version, without one, without text, and where it is too large', async () => {
    await begin();
    expect((await bring(VTT, 'talk.vtt', 0)).body.refusal?.code).toBe('stale');
    expect((await send(bringIn, { params: params(), body: VTT })).status).toBe(428);
    expect((await bring('WEBVTT\n\nno times', 'talk.vtt')).body.refusal?.code).toBe('noCues');
    expect((await bring(' \n ', 'empty.txt')).body.refusal?.code).toBe('noText');
    expect((await bring(new Uint8Array(12_000_001), 'huge.txt')).status).toBe(413);
    expect(piece.sourceText).toBe('');
  });
});

describe('extracts of a piece', () => {
  it('are proposed, kept and rejected; what is either is not proposed again', async () => {
    await begin();
    await bring(VTT, 'talk.vtt');
    const { proposed, text } = await reading();
    expect(proposed.length).toBeGreaterThan(1);
    await verdict({
      kind: proposed[0]!.kind,
      start: proposed[0]!.start,
      end: proposed[0]!.end,
      reason: proposed[0]!.reason,
    });
    await verdict({ kind: proposed[1]!.kind, start: proposed[1]!.start, end: proposed[1]!.end }, 'rejected');
    const again = await reading();
    expect(again.kept.map(({ state, text: words }) => [state, words]).sort()).toEqual(
      [
        ['accepted', proposed[0]!.text],
        ['rejected', proposed[1]!.text],
      ].sort(),
    );
    for (const { start } of proposed.slice(0, 2)) expect(again.proposed.map((one) => one.start)).not.toContain(start);
    expect(again.kept.every(({ inMs, outMs }) => inMs! < outMs!)).toBe(true);
    // The same again changes what was said of it.
    const back = await verdict({ kind: proposed[1]!.kind, ...stretch(text, proposed[1]!.text) });
    expect((await reading()).kept).toHaveLength(2);
    await ask(remove, { params: { id: back.body.id }, body: {} });
    expect((await reading()).kept).toHaveLength(1);
  });

  it('of a long text say how far they are, to whoever asks for it', async () => {
    await begin();
    const long = Array.from({ length: 2_000 }, (_, at) => TALK[at % 6]!.replace('the', `the ${at * 7}th`)).join(' ');
    await bring(long, 'long.txt');
    const asked = await send(read, { params: params(), headers: { accept: PROGRESS_TYPE } });
    const lines = (await asked.text())
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as object);
    const shares = lines.slice(0, -1).map((line) => (line as { share: number }).share);
    expect(shares.length).toBeGreaterThan(1);
    expect([...shares].sort((one, other) => one - other)).toEqual(shares);
    expect((lines.at(-1) as { value: PieceReading }).value.proposed.length).toBeGreaterThan(3);
  }, 60_000);

  it('stand where their words stand when the text is corrected, with their times', async () => {
    await begin();
    await bring(VTT, 'talk.vtt');
    const { text } = await reading();
    const one = (await verdict({ kind: 'number', ...stretch(text, TALK[1]!) })).body;
    const gone = (await verdict({ kind: 'quote', ...stretch(text, TALK[4]!) })).body;
    const corrected = text
      .replace('Every fifteen years', 'Now, about every fourteen or fifteen years')
      .replace('metres', 'meters')
      .replace(` ${TALK[4]}`, '');
    await ask(edit, { params: params(), body: { version: piece.version, sourceText: corrected } });
    const { kept, isTimed } = await reading();
    expect(isTimed).toBe(true);
    expect(kept).toMatchObject([
      { id: one.id, text: TALK[1]!.replace('metres', 'meters'), inMs: 8_000, outMs: 15_000 },
    ]);
    expect(kept.some(({ id }) => id === gone.id)).toBe(false);
  });

  it('take other edges; edges outside the text, and clips of a text without times, are refused', async () => {
    await begin();
    await bring(TALK.join(' '), 'talk.txt');
    const { text } = await reading();
    const { body } = await verdict({ kind: 'point', ...stretch(text, TALK[2]!) });
    const wider = stretch(text, `${TALK[2]} ${TALK[3]}`);
    await ask(change, { params: { id: body.id }, body: { end: wider.end } });
    expect((await reading()).kept[0]!.text).toBe(`${TALK[2]} ${TALK[3]}`);
    expect(refusalIn(await ask(change, { params: { id: body.id }, body: { end: text.length + 5 } }))).toEqual([
      'noStretch',
      'start',
    ]);
    expect(
      refusalIn(
        await ask(keep, { params: params(), body: { kind: 'clip', state: 'accepted', reason: '', start: 0, end: 40 } }),
      ),
    ).toEqual(['noTimes', 'kind']);
    expect(
      refusalIn(
        await ask(keep, { params: params(), body: { kind: 'song', state: 'accepted', reason: '', start: 0, end: 40 } }),
      ),
    ).toEqual(['badField', 'kind']);
    expect((await ask(keep, { params: { id: 'x' }, body: {} })).status).toBe(404);
  });

  it('of another brand are nobody’s business here', async () => {
    await begin(app.otherBrandId);
    await bring(TALK.join(' '), 'talk.txt');
    const { body } = await verdict({ kind: 'point', start: 0, end: 50 });
    app.actAs(app.otherWork.actorId);
    for (const answer of [
      await ask(read, { params: params() }),
      await ask(remove, { params: { id: body.id }, body: {} }),
      await verdict({ kind: 'point', start: 0, end: 50 }),
    ])
      expect(answer.status).toBe(403);
    app.actAs(app.work.actorId);
  });
});

describe('clips', () => {
  it('go out as cut lists, and each as subtitles timed from zero', async () => {
    await begin();
    await bring(VTT, 'talk.vtt');
    const { text, proposedClips } = await reading();
    expect(proposedClips.length).toBeGreaterThan(0);
    const { body } = await verdict({ kind: 'clip', ...stretch(text, `${TALK[1]} ${TALK[2]}`) });
    const file = async (query: string) => (await send(clips, { params: params(), query })).text();
    expect(await file('as=csv')).toBe(
      `number,in,out,seconds,words\r\n1,00:00:08.000,00:00:23.000,15.000,"${TALK[1]} ${TALK[2]}"\r\n`,
    );
    expect(await file('as=edl')).toContain(
      '001  AX       B     C        00:00:08:00 00:00:23:00 00:00:00:00 00:00:15:00',
    );
    expect(await file(`as=srt&clip=${body.id}`)).toBe(
      `1\n00:00:00,000 --> 00:00:07,000\n${TALK[1]}\n\n2\n00:00:08,000 --> 00:00:15,000\n${TALK[2]}\n`,
    );
    expect(await file(`as=vtt&clip=${body.id}`)).toMatch(/^WEBVTT\n\n00:00:00.000 --> 00:00:07.000\n/);
    expect((await send(clips, { params: params(), query: 'as=srt' })).status).toBe(404);
    expect((await send(clips, { params: params(), query: 'as=constructor' })).status).toBe(404);
  });
});
