import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { findByWords } from '@/data/search/find';
import { catchIdea } from '../pieces/pieces';
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
