import { randomUUID } from 'node:crypto';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { HeldAnswer } from '@/core/delivery/network';
import { oneBrand } from '@/data/brands/brands';
import { insertChannel } from '@/data/brands/channels';
import { listDeliveriesOfPost } from '@/data/delivery/testDeliveries';
import { listAccountsToAsk } from '@/data/delivery/restores';
import { openDb, type Db } from '@/data/database/db';
import { maybePost } from '@/data/posts/posts';
import { changePosts } from '../calendar/changePosts';
import { editPost } from '../captions/editPost';
import { movePost } from '../posts/planPosts';
import { setPostAside } from '../posts/stages';
import { codeOf, deliveryWork, fakeNetwork, makeWorld, valueOf, type FakeNetwork, type TestWorld } from '../testWorld';
import { askAccounts, letAccountsBeAsked } from './askAccounts';
import { askUnsure } from './askNetworks';
import { deliverDue } from './testDeliver';
import { loadDepartures } from './loadDepartures';
import { loadRestore, noteRestored, releaseRestored } from './restores';
import { publishNow, sayNotOut, schedulePost } from './schedule';

let world: TestWorld;
let network: FakeNetwork;
beforeEach(async () => {
  world = await makeWorld();
  network = fakeNetwork();
});
afterEach(() => world.close());

const DUE = '2026-11-26T14:30:00.000Z';
/** The post as the database has it that is open by now. */
const postOf = async (id: string) => (await maybePost(world.db, id))!;
const versionOf = async (id: string) => (await postOf(id)).version;
const deliver = () => deliverDue(deliveryWork(world, network));
const goTo = (at: string) => {
  world.goTo(at);
  network.now = at;
};

async function scheduled(plan?: { date: string; time: string }, caption?: string): Promise<string> {
  const post = await world.makePost('pithline', plan, caption);
  valueOf(await schedulePost(world.work, post.id, post.version));
  return post.id;
}

/** The world as it was at an instant, to go back to: its own database, the same network. */
async function snapshot(): Promise<{ at: string; putBack: () => Promise<Db> }> {
  const [at, content] = [world.work.clock.now(), await world.db.dump()];
  return {
    at,
    putBack: async () => {
      const old = await openDb('memory', content);
      for (const work of [world.work, world.otherWork]) work.db = old;
      world.db = old;
      return old;
    },
  };
}

/** What a start on the folder does. */
async function start(lastSeen: string): Promise<void> {
  const work = deliveryWork(world, network);
  await letAccountsBeAsked(work, lastSeen);
  await askAccounts(work, lastSeen);
}

const historyOf = async (postId: string) =>
  (await world.db.rows<{ deed: string }>('select deed from history where subject_id = $1', [postId])).map(
    ({ deed }) => deed,
  );
/** Lets the channels of Pithline have no account of their own. */
const withoutAccounts = () =>
  world.db.run(
    `update channels set account = '' where rule_sheet_id = (select id from rule_sheets where slug = 'pithline')`,
  );

/** Publishes a post, and starts on a database that does not know of it. */
async function publishedSinceTheCopy() {
  const post = await world.makePost('pithline');
  const { at, putBack } = await snapshot();
  valueOf(await publishNow(world.work, post.id, post.version));
  await deliver();
  await putBack();
  await start(at);
  return post;
}

const restore = async () => loadRestore(world.db, await oneBrand(world.db, world.brandId));
const captions = () => network.held.map(({ parcel }) => parcel.texts[0]!.text).sort();

describe('a database that was put back from before', () => {
  it('sends nothing of what left since, and shows it with its real words and time', async () => {
    const edited = await scheduled(undefined, 'Old words');
    const now = await scheduled(undefined, 'Published at once');
    const usual = await scheduled(undefined, 'As planned');
    const { at, putBack } = await snapshot();
    valueOf(
      await editPost(world.work, edited, await versionOf(edited), { caption: 'New words #rings', hashtags: 'moon' }),
    );
    valueOf(await schedulePost(world.work, edited, await versionOf(edited)));
    goTo('2026-11-24T08:15:00.000Z');
    valueOf(await publishNow(world.work, now, await versionOf(now)));
    await deliver();
    goTo(DUE);
    await deliver();
    const later = await world.makePost('pithline', undefined, 'Made and sent since\nwith two lines');
    valueOf(await publishNow(world.work, later.id, later.version));
    await deliver();
    const before = captions();
    expect(before).toHaveLength(4);

    await putBack();
    goTo('2026-11-26T16:00:00.000Z');
    await start(at);
    await deliver();
    expect(captions()).toEqual(before);
    expect(await postOf(edited)).toMatchObject({
      ...{ stage: 'published', caption: 'New words #rings', hashtags: '#moon', publishedAt: DUE },
      notSent: { copy: { words: { caption: 'Old words' } } },
    });
    expect(await postOf(now)).toMatchObject({ stage: 'published', date: '2026-11-24', time: '08:15' });
    expect(await postOf(usual)).toMatchObject({ stage: 'published', publishedAt: DUE, notSent: null });
    expect(await postOf(later.id)).toMatchObject({
      ...{ stage: 'published', caption: 'Made and sent since\nwith two lines', title: 'Made and sent since' },
      publishedAt: DUE,
    });
    expect(await restore()).toMatchObject({ signs: ['networks'], takenOver: 4, waiting: [], restoredTo: at });
    // The copies that the folder knew are asked about, and were never sent: that tells of nothing more.
    for (const minutes of ['00', '01', '02', '20']) {
      goTo(`2026-11-26T16:${minutes}:30.000Z`);
      await askUnsure(deliveryWork(world, network));
    }
    expect(await restore()).toMatchObject({ takenOver: 4 });
    for (const id of [edited, now]) {
      const [known, taken, ...others] = await listDeliveriesOfPost(world.db, id);
      expect([known!.unsure, taken!.unsure, others]).toEqual([false, false, []]);
      expect((await historyOf(id)).filter((deed) => deed === 'out besides')).toEqual([]);
    }
    // The next start knows all of it.
    valueOf(await releaseRestored(world.work, world.brandId, null));
    await start('2026-11-26T16:00:00.000Z');
    expect(await restore()).toBeNull();
  });

  it('keeps back what was set aside or moved since, until a manager releases it, all or singly', async () => {
    const [aside, kept] = [await scheduled(undefined, 'Set aside'), await scheduled(undefined, 'Kept')];
    const sent = await scheduled({ date: '2026-11-24', time: '10:00' }, 'Sent');
    const { at, putBack } = await snapshot();
    valueOf(await setPostAside(world.work, aside, await versionOf(aside), 'Rain'));
    goTo('2026-11-24T10:00:00.000Z');
    await deliver();

    await putBack();
    await start(at);
    expect((await restore())!.waiting.map(({ slip }) => slip.id).sort()).toEqual([aside, kept].sort());
    // Networks are asked at once, and their “not here” is believed a minute later.
    for (const [seconds, unsure] of [
      ['00', true],
      ['59', true],
      ['60', false],
    ] as const) {
      goTo(seconds === '60' ? '2026-11-24T10:01:00.000Z' : `2026-11-24T10:00:${seconds}.000Z`);
      await askUnsure(deliveryWork(world, network));
      expect((await restore())!.waiting.map(({ isUnsure }) => isUnsure)).toEqual([unsure, unsure]);
    }
    goTo(DUE);
    await deliver();
    expect(captions()).toEqual(['Sent']);
    const brand = await oneBrand(world.db, world.brandId);
    const lines = await loadDepartures(world.db, brand, DUE);
    expect(lines.filter(({ fitness }) => fitness === 'awaitsRelease')).toHaveLength(2);
    expect((await postOf(sent)).stage).toBe('published');

    expect(codeOf(await releaseRestored(world.otherWork, world.brandId, kept))).toBe('notYours');
    expect(valueOf(await releaseRestored(world.work, world.brandId, kept))).toEqual({ released: 1 });
    await deliver();
    expect(captions()).toEqual(['Kept', 'Sent']);
    // What waits can be set aside all the same, without being released.
    valueOf(await setPostAside(world.work, aside, await versionOf(aside), 'Rain'));
    expect((await restore())!.waiting).toEqual([]);
    expect(valueOf(await releaseRestored(world.work, world.brandId, null))).toEqual({ released: 0 });
    expect(codeOf(await releaseRestored(world.work, world.brandId, null))).toBe('nothing');
  });

  it('puts what missed its time on hold when it is released, and sends the rest at its time', async () => {
    const [missed, coming] = [await scheduled(), await scheduled({ date: '2026-11-28', time: '10:00' })];
    goTo('2026-11-27T09:00:00.000Z');
    await noteRestored(deliveryWork(world, network), ['said'], '2026-11-23T09:00:00.000Z');
    goTo('2026-11-27T09:02:00.000Z');
    valueOf(await releaseRestored(world.work, world.brandId, null));
    await deliver();
    expect([(await postOf(missed)).stage, (await postOf(coming)).stage]).toEqual(['scheduled', 'scheduled']);
    expect(await listDeliveriesOfPost(world.db, missed)).toMatchObject([{ state: 'held', unsure: false }]);
    goTo('2026-11-28T10:00:00.000Z');
    await deliver();
    expect((await postOf(coming)).stage).toBe('published');
  });

  it('asks a person where the network does not say, and goes on once that is answered', async () => {
    const id = await scheduled();
    await noteRestored(deliveryWork(world, network), ['copied'], null);
    network.isMute = true;
    goTo('2026-11-24T09:00:00.000Z');
    await askUnsure(deliveryWork(world, network));
    expect((await restore())!.waiting).toMatchObject([{ isUnsure: true, isByHand: false }]);
    valueOf(await sayNotOut(world.work, id, await versionOf(id)));
    expect((await restore())!.waiting).toMatchObject([{ isUnsure: false }]);
    valueOf(await releaseRestored(world.work, world.brandId, null));
    network.isMute = false;
    goTo(DUE);
    await deliver();
    expect((await postOf(id)).stage).toBe('published');
  });

  it('keeps back by-hand posts whose time has come, since somebody may have posted them', async () => {
    const due = await world.makePost('homestoop');
    const later = await world.makePost('homestoop', { date: '2026-11-28', time: '10:00' });
    for (const post of [due, later]) valueOf(await schedulePost(world.work, post.id, await versionOf(post.id)));
    goTo('2026-11-27T09:00:00.000Z');
    await noteRestored(deliveryWork(world, network), ['older'], DUE);
    expect((await restore())!.waiting).toMatchObject([{ slip: { id: due.id }, isByHand: true }]);
  });
});

describe('before an account has told what it holds', () => {
  it('nothing leaves there, and everything after', async () => {
    const id = await scheduled();
    network.isMute = true;
    await start(DUE);
    goTo(DUE);
    expect(await deliver()).toBe(0);
    network.isMute = false;
    expect(await askAccounts(deliveryWork(world, network), null)).toBe(0);
    await deliver();
    expect([(await postOf(id)).stage, await restore()]).toEqual(['published', null]);
  });

  it('what broke off with the process is taken over, and is no sign of a restore', async () => {
    const id = await scheduled();
    goTo(DUE);
    network.answers = ['acceptThenSilent'];
    await deliver();
    await start(DUE);
    expect([(await postOf(id)).stage, await restore()]).toEqual(['published', null]);
  });

  it('an account that cannot be taken over from holds up no other', async () => {
    const id = await scheduled();
    const broken = { key: 'k', postId: randomUUID(), at: DUE, address: '/x', parcel: { pictures: [] } };
    const work = deliveryWork(world, {
      ...network,
      heldSince: async ({ network: slug }) =>
        slug === 'glassrow'
          ? ({ kind: 'told', posts: [broken] } as unknown as HeldAnswer)
          : { kind: 'told', posts: [] },
    });
    await letAccountsBeAsked(work, DUE);
    await expect(askAccounts(work, DUE)).rejects.toThrow(AggregateError);
    expect((await listAccountsToAsk(world.db)).map(({ channelId }) => channelId)).toEqual([world.channels.glassrow]);
    valueOf(await releaseRestored(world.work, world.brandId, null));
    goTo(DUE);
    await deliver();
    expect((await postOf(id)).stage).toBe('published');
  });

  it('what carries no identifier of a post holds up nothing', async () => {
    const id = await scheduled();
    const parcel = {
      network: 'pithline',
      account: '@moor',
      format: 'text' as const,
      texts: [],
      link: '',
      hashtags: [],
      pictures: [],
    };
    network.held.push({ key: 'k', postId: 'not one of ours', at: DUE, address: '/x', parcel });
    await start(DUE);
    goTo(DUE);
    await deliver();
    expect([(await postOf(id)).stage, await restore()]).toEqual(['published', null]);
  });

  it('a network that cannot tell is as good as one that did', async () => {
    const id = await scheduled();
    const cannot = { ...network, heldSince: async () => ({ kind: 'cannot' }) as const };
    await letAccountsBeAsked(deliveryWork(world, cannot), DUE);
    await askAccounts(deliveryWork(world, cannot), null);
    goTo(DUE);
    await deliver();
    expect((await postOf(id)).stage).toBe('published');
  });
});

it('a post is not sent whose network holds it under a key that is not known, also where it cannot list what it holds', async () => {
  const id = await scheduled();
  await noteRestored(deliveryWork(world, network), ['said'], null);
  const { idempotencyKey: _key, ...copy } = (await listDeliveriesOfPost(world.db, id))[0]!;
  const { words: _words, ...parcel } = { ...copy.parcel, texts: [{ name: 'caption' as const, text: 'Other words' }] };
  network.held.push({
    key: randomUUID(),
    postId: id,
    at: '2026-11-24T10:00:00.000Z',
    address: '/standins/x/1',
    parcel,
  });
  valueOf(await movePost(world.work, id, await versionOf(id), { date: '2026-11-27', time: '10:00' }));
  valueOf(await releaseRestored(world.work, world.brandId, null));
  goTo('2026-11-27T10:00:00.000Z');
  await deliver();
  expect(network.calls).toBe(0);
  expect(await postOf(id)).toMatchObject({ stage: 'published', caption: 'Other words', date: '2026-11-24' });
});

it('an earlier copy that is out after another one counts is noted beside it', async () => {
  const id = await scheduled();
  goTo(DUE);
  network.answers = [{ kind: 'unknown', words: 'silence' }];
  network.isMute = true;
  await deliver();
  goTo('2026-11-26T16:00:00.000Z');
  network.isMute = false;
  await deliver();
  const [first] = await listDeliveriesOfPost(world.db, id);
  const target = [{ id, version: await versionOf(id) }];
  valueOf(await changePosts(world.work, world.brandId, target, { kind: 'place', date: '2026-11-27', time: '10:00' }));
  valueOf(await schedulePost(world.work, id, await versionOf(id)));
  goTo('2026-11-27T10:00:00.000Z');
  await deliver();
  const { words: _words, ...parcel } = first!.parcel;
  const late = { key: first!.idempotencyKey, postId: id, at: DUE, address: '/standins/x/late', parcel };
  network.held.push(late);
  for (let n = 0; n < 2; n++) await start('2026-11-27T10:00:00.000Z');
  expect(await postOf(id)).toMatchObject({ stage: 'published', date: '2026-11-27' });
  const kept = (await listDeliveriesOfPost(world.db, id)).map(({ state, tookAt }) => [state, tookAt !== null]);
  expect(kept.sort()).toEqual([
    ['sent', true],
    ['withdrawn', true],
  ]);
});

it('two channels of one account, of two brands, are no sign of a restore for one another', async () => {
  await withoutAccounts();
  const post = await world.makePost('pithline');
  valueOf(await publishNow(world.work, post.id, post.version));
  await deliver();
  await start(world.work.clock.now());
  expect(await restore()).toBeNull();
  expect(await loadRestore(world.db, await oneBrand(world.db, world.otherBrandId))).toBeNull();
  expect(await historyOf(post.id)).not.toContain('out besides');
});

it('what an account of two brands holds is taken over once, by the brand whose post it is', async () => {
  await withoutAccounts();
  const post = await publishedSinceTheCopy();
  expect(await postOf(post.id)).toMatchObject({ stage: 'published', brandId: world.brandId });
  expect(await restore()).toMatchObject({ takenOver: 1 });
  const other = await loadRestore(world.db, await oneBrand(world.db, world.otherBrandId));
  expect(other?.takenOver ?? 0).toBe(0);
  expect(await historyOf(post.id)).not.toContain('out besides');
});

it('what an account of two channels holds is taken over on the channel of its post', async () => {
  await withoutAccounts();
  const first = randomUUID();
  await insertChannel(world.db, {
    ...{ id: first, brandId: world.brandId, name: 'Second', callSign: 'PT', color: '#123456', account: '' },
    ...{ ruleSheetSlug: 'pithline', position: -1 },
  });
  const post = await publishedSinceTheCopy();
  expect(await postOf(post.id)).toMatchObject({
    stage: 'published',
    channelId: world.channels.pithline,
  });
  expect(await restore()).toMatchObject({ takenOver: 1 });
});
