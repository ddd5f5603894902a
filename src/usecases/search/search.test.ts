import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { PIECE_FIELDS } from '@/core/pieces/texts';
import { postText, WRITTEN_FIELDS } from '@/core/posts/texts';
import { findByWords } from '@/data/search/find';
import { editPost } from '../captions/editPost';
import { catchIdea, editPiece } from '../pieces/pieces';
import { makeWorld, valueOf, type TestWorld } from '../testWorld';

let world: TestWorld;
beforeAll(async () => {
  world = await makeWorld();
  await world.makePost('pithline', { date: null, time: null }, '今夜は国立天文台の観望会です。');
  await world.makePost('pithline', { date: null, time: null }, 'आज रात हिन्दी में कार्यक्रम');
  await world.makePost('pithline', { date: null, time: null }, 'A cafe\u0301 below the dome. 東京Tower at eight.');
  valueOf(await catchIdea(world.work, { brandId: world.brandId, title: 'Na\u00efve 星空' }));
});
afterAll(() => world.close());

const found = async (words: string) => (await findByWords(world.db, world.brandId, words, 8)).map(({ kind }) => kind);

describe('what is looked for', () => {
  it.each([
    ['天文台', ['post']],
    ['天文', ['post']],
    ['文天', []],
    ['観望', ['post']],
    ['हिन्दी', ['post']],
    ['हिन्द', ['post']],
    ['कार्यक्रम', ['post']],
    ['caf\u00e9', ['post']],
    ['cafe\u0301', ['post']],
    ['tower', ['post']],
    ['東京', ['post']],
    ['nai\u0308ve', ['piece']],
    ['星空', ['piece']],
    ['星', ['piece']],
  ])('%s', async (words, kinds) => expect(await found(words)).toEqual(kinds));

  it.each(['字', 'น', '\u064b'])('a caption of “%s” and nothing else is kept at once', async (letter) => {
    const start = performance.now();
    await world.makePost('pithline', { date: null, time: null }, letter.repeat(20_000));
    // Half a minute, where each letter was counted off from the front.
    expect(performance.now() - start).toBeLessThan(5_000);
    expect(await found(letter.repeat(8))).toContain('post');
  });
});

/** A word that stands nowhere else, made of a name. */
const only = (name: string, what: string) => `only${what}${name.toLowerCase()}`;

describe('every text', () => {
  it.each(WRITTEN_FIELDS)('of a post finds it: %s', async (name) => {
    const { id, version } = await world.makePost('pithline');
    const word = only(name, 'post');
    const text = name === 'link' ? `https://moor.example/${word}-night` : postText(name).isLine ? word : `\n\n${word}`;
    valueOf(await editPost(world.work, id, version, { [name]: text }));
    expect(await findByWords(world.db, world.brandId, word, 8)).toMatchObject([{ kind: 'post', id }]);
  });

  it('of the parts of a post finds it', async () => {
    const { id, version } = await world.makePost('pithline');
    const parts = ['onlyfirstpart', 'onlysecondpart'].map((text) => ({
      id: crypto.randomUUID(),
      text,
      pictureId: null,
    }));
    valueOf(await editPost(world.work, id, version, { parts }));
    expect(await findByWords(world.db, world.brandId, 'onlysecondpart', 8)).toMatchObject([{ kind: 'post', id }]);
  });

  it.each(PIECE_FIELDS)('of a piece finds it: %s', async (name) => {
    const { id, version } = valueOf(await catchIdea(world.work, { brandId: world.brandId, title: 'Kettle at noon' }));
    const word = only(name, 'piece');
    const text = name === 'link' ? `https://moor.example/${word}?of=night` : word;
    valueOf(await editPiece(world.work, id, version, { [name]: text }));
    expect(await findByWords(world.db, world.brandId, word, 8)).toMatchObject([{ kind: 'piece', id }]);
  });

  // Each pair of letters is a word of the index, which holds a megabyte of them.
  it('may be as long as Bimlo keeps it, of letters that never come twice', async () => {
    const letters = (from: number) =>
      Array.from({ length: 20_000 }, (_, at) => String.fromCodePoint(0x20000 + from + at)).join('');
    const { id, version } = await world.makePost('pithline', undefined, letters(0));
    const edit = {
      script: letters(15_000),
      firstComment: letters(30_000).slice(0, 20_000),
      agenda: letters(39_000).slice(0, 20_000),
    };
    valueOf(await editPost(world.work, id, version, edit));
    const piece = valueOf(await catchIdea(world.work, { brandId: world.brandId, title: 'Kettle at noon' }));
    valueOf(
      await editPiece(world.work, piece.id, piece.version, { sourceText: letters(0).repeat(3) + letters(20_000) }),
    );
  });
});
