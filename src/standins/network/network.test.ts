import type { AddressInfo } from 'node:net';
import { mkdtemp, rm } from 'node:fs/promises';
import { createHash } from 'node:crypto';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Parcel } from '@/core/delivery/network';
import { networkClient } from './client';
import { drawFault, NO_FAULTS, readFaults, type Faults } from './faults';
import { createNetworkServer } from './server';
import { openNetworkStore, type NetworkStore } from './store';

// The smallest PNG there is: one transparent pixel.
const bytes = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);
const sha256 = createHash('sha256').update(bytes).digest('hex');
const parcel: Parcel = {
  network: 'pithline',
  account: '@moor',
  format: 'text',
  texts: [{ name: 'caption', text: 'Open tonight' }],
  link: '',
  hashtags: [],
  pictures: [{ sha256, mime: 'image/png', alt: 'The dome', fileName: 'dome.png', bytes: bytes.length }],
  words: { headline: '', caption: 'Open tonight', hashtags: '', link: '' },
};

let folder: string;
let store: NetworkStore;
let close: () => void;
let base: string;

async function start(faults: Partial<Faults> = {}) {
  store = await openNetworkStore(folder);
  const server = createNetworkServer({
    store,
    storeFolder: folder,
    faults: { ...NO_FAULTS, ...faults },
    frozenAt: '2026-11-23T14:30:00.000Z',
    onStop: () => undefined,
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  close = () => {
    server.closeAllConnections();
    server.close();
  };
}
beforeEach(async () => void (folder = await mkdtemp(join(tmpdir(), 'bimlo-net-'))));
afterEach(async () => {
  close();
  await store.close();
  await rm(folder, { recursive: true });
});

const client = (timeoutMs = 10_000) => networkClient(base, timeoutMs, 'our-house');
/** What is waited for where no answer is to come. */
const SHORT_MS = 500;
const publish = (key: string, change: Partial<Parcel> = {}, timeoutMs?: number) =>
  client(timeoutMs).publish({ ...parcel, ...change }, { key, postId: 'post-1' }, async (picture) => ({
    bytes,
    picture,
  }));

describe('the made-up networks', () => {
  it('take a post down, for good and however often they are asked, and still know that they took it', async () => {
    await start();
    const taken = await publish('k1');
    const { address } = taken as { address: string };
    const id = address.split('/').at(-1)!;
    expect(store.one('pithline', id)).toBeDefined();
    expect(await client().takeDown('pithline', 'k1')).toEqual({ kind: 'gone' });
    expect(await client().takeDown('pithline', 'k1')).toEqual({ kind: 'gone' });
    close();
    await store.close();
    await start();
    expect(store.one('pithline', id)).toBeUndefined();
    expect(store.list('pithline', 9)).toEqual([]);
    expect(await publish('k1')).toEqual(taken);
    expect(store.one('pithline', id)).toBeUndefined();
    expect((await client().find('pithline', 'k1')).kind).toBe('found');
  });

  it('that take nothing down say so, and one that is gone says nothing', async () => {
    await start({ slowMs: 5_000 });
    expect(await client().takeDown('lettermill', 'k1')).toEqual({ kind: 'cannot' });
    expect((await client(SHORT_MS).takeDown('pithline', 'k1')).kind).toBe('unknown');
    close();
    expect((await client().takeDown('pithline', 'k1')).kind).toBe('unknown');
  });

  it('tell what an account took of a house, since an instant or of a post, and nothing of others', async () => {
    await start();
    await publish('k1');
    await publish('k2', { account: '@other' });
    const ask = (house: string) => networkClient(base, 10_000, house);
    const account = { network: 'pithline', account: '@moor' };
    const [found] = [await ask('our-house').heldSince(account, '2026-11-23T14:30:00.000Z')];
    expect(found).toMatchObject({
      kind: 'told',
      posts: [{ key: 'k1', postId: 'post-1', at: '2026-11-23T14:30:00.000Z', parcel: { texts: parcel.texts } }],
    });
    const none = { kind: 'told', posts: [] };
    expect(await ask('our-house').heldSince(account, '2026-11-23T14:30:00.001Z')).toEqual(none);
    expect(await ask('another').heldSince(account, '2026-01-01T00:00:00.000Z')).toEqual(none);
    expect(await ask('our-house').heldOf(account, 'post-1')).toEqual(found);
    expect(await ask('our-house').heldOf(account, 'post-2')).toEqual(none);
    expect(await ask('our-house').pictureOf('pithline', sha256)).toEqual(new Uint8Array(bytes));
    expect(await ask('our-house').pictureOf('pithline', 'a'.repeat(64))).toBeNull();
  });

  it('refuse another parcel under a key they have: something is out, and that is told', async () => {
    await start();
    const first = await publish('k');
    expect(await publish('k', { texts: [{ name: 'caption', text: 'Other words' }] })).toEqual(first);
    const raw = await fetch(`${base}/networks/pithline/posts`, {
      method: 'POST',
      headers: { 'idempotency-key': 'k' },
      body: JSON.stringify({ ...parcel, texts: [] }),
    });
    expect(raw.status).toBe(409);
    expect(store.list('pithline', 10)).toHaveLength(1);
  });

  it.each([
    ['too small for the channel', {}, 'picture too small'],
    ['that are said to be larger than they are', { width: 2_000, height: 2_000 }, 'picture too small'],
  ])('look into pictures %s, whatever is said of them', async (_what, claim, words) => {
    await start();
    const pictures = [{ ...parcel.pictures[0]!, ...claim }];
    expect(await publish('k', { network: 'glassrow', format: 'photo', pictures })).toEqual({ kind: 'refused', words });
  });

  it('refuse what cannot be read as a picture', async () => {
    await start();
    const noise = Buffer.from('no picture at all');
    const pictures = [{ ...parcel.pictures[0]!, sha256: createHash('sha256').update(noise).digest('hex') }];
    const answer = await client().publish({ ...parcel, pictures }, { key: 'k', postId: 'post-1' }, async (picture) => ({
      bytes: noise,
      picture,
    }));
    expect(answer).toEqual({ kind: 'refused', words: 'picture dome.png cannot be read' });
  });

  it('take a post once for each key, and still hold it after a restart', async () => {
    await start();
    const first = await publish('k1');
    expect(await publish('k1', { texts: [{ name: 'caption', text: 'Other' }] })).toEqual(first);
    expect(first).toMatchObject({ kind: 'accepted' });
    close();
    await store.close();
    await start();
    expect(store.counts()).toEqual({ pithline: 1 });
    expect(store.list('pithline', 10)[0]!.parcel).toMatchObject({ texts: parcel.texts, pictures: parcel.pictures });
    expect(await client().find('pithline', 'k1')).toEqual({
      kind: 'found',
      address: (first as { address: string }).address,
      at: '2026-11-23T14:30:00.000Z',
    });
    expect(await store.readPicture(sha256)).toEqual(bytes);
  });

  it.each([
    [
      'a text over the limit',
      { texts: [{ name: 'caption' as const, text: 'x'.repeat(321) }] },
      'Caption too long: 321 of 320',
    ],
    ['no text', { texts: [] }, 'Caption missing'],
    ['a format it does not take', { format: 'newsletter' as const }, 'format not taken: newsletter'],
    ['a network for people only', { network: 'homestoop' }, 'Homestoop takes posts from people only'],
    ['a network that does not exist', { network: 'nowhere' }, 'no such network: nowhere'],
  ])('refuse %s', async (_name, change, words) => {
    await start();
    expect(await publish('k1', change)).toEqual({ kind: 'refused', words });
  });

  it('are not waited for where an answer begins and never ends, though nothing aborts the reading', async () => {
    await start();
    vi.stubGlobal('fetch', () => Promise.resolve(new Response(new ReadableStream(), { status: 201 })));
    try {
      const unknown = { kind: 'unknown', words: 'the network did not answer in time' };
      expect(await publish('k1', { pictures: [] }, SHORT_MS)).toEqual(unknown);
      expect(await client(SHORT_MS).find('pithline', 'k1')).toEqual(unknown);
      expect(await client(SHORT_MS).pictureOf('pithline', sha256)).toBeNull();
    } finally {
      vi.unstubAllGlobals();
    }
  });

  it('can be slow, busy, silent before or after accepting, and refuse for good', async () => {
    await start({ tryLater: 1 });
    expect(await publish('k1')).toEqual({ kind: 'tryLater', words: 'busy, try later' });
    const set = (faults: object) => fetch(`${base}/faults`, { method: 'PUT', body: JSON.stringify(faults) });
    await set({ tryLater: 0, timeOutBefore: 1 });
    expect(await publish('k2', { pictures: [] }, SHORT_MS)).toMatchObject({ kind: 'unknown' });
    expect(await client().find('pithline', 'k2')).toEqual({ kind: 'notFound' });
    await set({ timeOutBefore: 0, timeOutAfter: 1 });
    expect(await publish('k3', { pictures: [] }, SHORT_MS)).toMatchObject({ kind: 'unknown' });
    expect(await client().find('pithline', 'k3')).toMatchObject({ kind: 'found' });
    await set({ timeOutAfter: 0, refuse: 1 });
    expect(await publish('k4')).toMatchObject({ kind: 'refused' });
    await set({ refuse: 0, slowMs: 4 * SHORT_MS });
    expect(await publish('k5', { pictures: [] }, SHORT_MS)).toMatchObject({ kind: 'unknown' });
    expect((await set({ nonsense: 1 })).status).toBe(400);
  });

  it('say "try later" when nothing listens, and "unknown" when asked', async () => {
    await start();
    close();
    expect(await publish('k1', { pictures: [] })).toMatchObject({ kind: 'tryLater' });
    expect(await client().find('pithline', 'k1')).toMatchObject({ kind: 'unknown' });
  });
});

describe('faults', () => {
  const faults: Faults = {
    ...NO_FAULTS,
    seed: 7,
    tryLater: 0.1,
    timeOutBefore: 0.05,
    timeOutAfter: 0.05,
    onlyFirstCalls: 2,
  };
  const keys = Array.from({ length: 4000 }, (_, index) => `key ${index}`);

  it('are the same for a seed', () =>
    expect(keys.map((key) => drawFault(faults, key, 1))).toEqual(keys.map((key) => drawFault(faults, key, 1))));
  it('come in about their shares, on the first calls only', () => {
    const drawn = keys.map((key) => drawFault(faults, key, 2)).filter((fault) => fault !== 'none').length / keys.length;
    expect(drawn).toBeGreaterThan(0.17);
    expect(drawn).toBeLessThan(0.23);
    expect(keys.every((key) => drawFault(faults, key, 3) === 'none')).toBe(true);
  });
  it('refuse the same keys at every call', () => {
    const refusing = { ...NO_FAULTS, refuse: 0.05 };
    expect(
      keys.every((key) => (drawFault(refusing, key, 1) === 'refuse') === (drawFault(refusing, key, 9) === 'refuse')),
    ).toBe(true);
  });
  it('refuse settings that are none', () => expect(() => readFaults({ slowMs: -1 })).toThrow(RangeError));
});
