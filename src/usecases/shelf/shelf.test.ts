import { randomUUID } from 'node:crypto';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import {
  dropAsset,
  dropName,
  dropShelfItem,
  keepAsset,
  keepName,
  keepShelfItem,
  loadShelf,
  noteShelfUse,
} from './shelf';
import { codeOf, makeWorld, START, valueOf, type TestWorld } from '../testWorld';

let world: TestWorld;
beforeEach(async () => {
  world = await makeWorld();
});
afterEach(() => world.close());

const SET = { kind: 'hashtags' as const, title: 'Night sky', text: 'NightSky #Stars', source: '' };

describe('the shelf', () => {
  it('counts an item once for each post, and says when it was used last', async () => {
    const [item] = valueOf(await keepShelfItem(world.work, world.brandId, null, SET));
    expect(item).toMatchObject({ text: '#NightSky #Stars', uses: 0, lastUsedAt: null });
    const [one, two] = [await world.makePost('pithline'), await world.makePost('glassrow')];
    for (const post of [one, one, two]) valueOf(await noteShelfUse(world.work, item!.id, post.id));
    const { items } = await loadShelf(world.db, world.brandId);
    expect(items).toMatchObject([{ uses: 2, lastUsedAt: START }]);
  });

  it('refuses a change that was based on an older state', async () => {
    const [item] = valueOf(await keepShelfItem(world.work, world.brandId, null, SET));
    valueOf(await keepShelfItem(world.work, world.brandId, item!, { ...SET, title: 'Stars' }));
    expect(codeOf(await keepShelfItem(world.work, world.brandId, item!, { ...SET, title: 'Moon' }))).toBe('stale');
  });

  it('takes an item away and puts it back', async () => {
    const [item] = valueOf(await keepShelfItem(world.work, world.brandId, null, SET));
    expect(valueOf(await dropShelfItem(world.work, world.brandId, item!.id, true))).toEqual([]);
    expect(codeOf(await dropShelfItem(world.work, world.brandId, item!.id, true))).toBe('notFound');
    expect(valueOf(await dropShelfItem(world.work, world.brandId, item!.id, false))).toMatchObject(
      [SET.title].map((title) => ({ title })),
    );
  });

  it('is a brand’s own', async () => {
    const [item] = valueOf(await keepShelfItem(world.work, world.brandId, null, SET));
    expect((await loadShelf(world.db, world.otherBrandId)).items).toEqual([]);
    expect(codeOf(await keepShelfItem(world.otherWork, world.otherBrandId, null, SET))).toBe('notYours');
    expect(codeOf(await dropShelfItem(world.work, world.otherBrandId, item!.id, true))).toBe('notFound');
    expect(codeOf(await noteShelfUse(world.work, randomUUID(), (await world.makePost('pithline')).id))).toBe(
      'notFound',
    );
  });
});

describe('names', () => {
  const WEN = { kind: 'person' as const, name: 'Wen', handles: { pithline: 'wensato' } };

  it('are kept with their handles, changed, taken away and put back', async () => {
    const [name] = valueOf(await keepName(world.work, world.brandId, null, WEN));
    expect(name!.handles).toEqual({ pithline: '@wensato' });
    valueOf(await keepName(world.work, world.brandId, name!, { ...WEN, handles: { glassrow: '@wen' } }));
    expect(codeOf(await keepName(world.work, world.brandId, name!, WEN))).toBe('stale');
    valueOf(await dropName(world.work, world.brandId, name!.id, true));
    expect((await loadShelf(world.db, world.brandId)).names).toEqual([]);
    expect(valueOf(await dropName(world.work, world.brandId, name!.id, false))).toMatchObject([
      { name: 'Wen', handles: { glassrow: '@wen' } },
    ]);
  });
});

describe('the brand sheet', () => {
  const FILE = { sha256: 'b'.repeat(64), mime: 'image/png', bytes: 400, fileName: 'dome.png' };

  it('holds colours by value and logos by file, in the order they came', async () => {
    valueOf(await keepAsset(world.work, world.brandId, { kind: 'colour', name: 'Night', value: '#141c33' }, null));
    const assets = valueOf(await keepAsset(world.work, world.brandId, { kind: 'logo', name: 'Dome', value: '' }, FILE));
    expect(assets).toMatchObject([
      { kind: 'colour', value: '#141C33', sha256: null },
      { kind: 'logo', ...FILE },
    ]);
    expect(valueOf(await dropAsset(world.work, world.brandId, assets[0]!.id))).toHaveLength(1);
  });

  it('refuses a logo without a file and a colour that is none', async () => {
    const keep = (kind: 'logo' | 'colour') =>
      keepAsset(world.work, world.brandId, { kind, name: 'x', value: 'x' }, null);
    expect(codeOf(await keep('logo'))).toBe('noFile');
    expect(codeOf(await keep('colour'))).toBe('badColour');
  });
});
