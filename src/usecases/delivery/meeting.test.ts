import { AsyncLocalStorage } from 'node:async_hooks';
import { afterEach, beforeEach, expect, it } from 'vitest';
import type { Db, Queryable } from '@/data/database/db';
import { maybeDeliveryOfPost } from '@/data/delivery/deliveries';
import type { Result } from '@/core/refusal';
import { editPost } from '../captions/editPost';
import { changePosts } from '../calendar/changePosts';
import { movePost } from '../posts/planPosts';
import { deletePost, putAtStage, setPostAside } from '../posts/stages';
import { deliveryWork, fakeNetwork, makeWorld, valueOf, type FakeNetwork, type TestWorld } from '../testWorld';
import type { Work } from '../useCase';
import { deliverDue } from './testDeliver';
import { declareOut, schedulePost } from './schedule';

let world: TestWorld;
let network: FakeNetwork;
beforeEach(async () => {
  world = await makeWorld();
  network = fakeNetwork();
});
afterEach(() => world.close());

const DUE = '2026-11-26T14:30:00.000Z';
const LATER = { date: '2026-11-28', time: '10:00' };

/** What a person may do to a post at the minute at which it leaves. */
const DEEDS: Record<string, (work: Work, id: string, version: number) => Promise<Result<unknown>>> = {
  unschedules: (work, id, version) => putAtStage(work, id, version, 'ready'),
  'sets it aside': (work, id, version) => setPostAside(work, id, version, 'no'),
  'deletes it': deletePost,
  're-times it': (work, id, version) => movePost(work, id, version, LATER),
  'moves it with others': (work, id, version) =>
    changePosts(work, world.brandId, [{ id, version }], { kind: 'shift', days: 2 }),
  'edits it': (work, id, version) => editPost(work, id, version, { caption: 'New words.' }),
  'says that it is out': (work, id, version) => declareOut(work, id, version, 'https://example.org/1'),
};

/** A database that begins something of the other side’s before its statement of that number, in or out of a transaction. */
function meetingAt(number: number, begin: () => void): { db: Db; statements: () => number } {
  let statements = 0;
  const next = () => {
    if (++statements === number) begin();
  };
  const told = (inner: Queryable): Queryable => ({
    rows: (sql, parameters) => (next(), inner.rows(sql, parameters)),
    run: (sql, parameters) => (next(), inner.run(sql, parameters)),
  });
  const db: Db = {
    ...world.db,
    ...told(world.db),
    transaction: (work) => world.db.transaction((tx) => work(told(tx))),
  };
  return { db, statements: () => statements };
}

/** Lets a person and the deliveries meet: one begins at that statement of the other. @returns whether there was one of that number, and what the person was answered */
async function meet(deed: string, at: number, first: 'person' | 'worker') {
  network.accepted.clear();
  network.calls = 0;
  world.goTo('2026-11-23T09:00:00.000Z');
  const post = await world.makePost('pithline');
  valueOf(await schedulePost(world.work, post.id, post.version));
  const { version } = await world.post(post.id);
  world.goTo(DUE);
  let other: Promise<unknown> = Promise.resolve();
  const asSomebodyElse = AsyncLocalStorage.snapshot();
  const person = (db: Db) => DEEDS[deed]!({ ...world.work, db }, post.id, version);
  const worker = (db: Db) => deliverDue({ ...deliveryWork(world, network), db });
  const { db, statements } = meetingAt(at, () => {
    other = asSomebodyElse(() => (first === 'person' ? worker(world.db) : person(world.db)));
  });
  const own = first === 'person' ? person(db) : worker(db);
  const begun = await own;
  const met = await other;
  const answered = (first === 'person' ? begun : met) as Result<unknown> | undefined;
  return { id: post.id, reached: statements() >= at, answered };
}

const cases = Object.keys(DEEDS).flatMap((deed) =>
  (['person', 'worker'] as const).map((first) => [deed, first] as const),
);

it.each(cases)(
  'a person %s while it leaves, the %s coming first: at whichever statement they meet, the screen says what the network has',
  async (deed, first) => {
    let met = 0;
    for (let at = 1; ; at++) {
      const { id, reached, answered } = await meet(deed, at, first);
      if (!reached) break;
      met++;
      await deliverDue(deliveryWork(world, network));
      const { stage, deletedAt } = await world.post(id);
      const delivery = await maybeDeliveryOfPost(world.db, id);
      expect(network.accepted.size, `met at ${at}`).toBe(network.calls);
      const isOut = network.accepted.size === 1;
      const isShownOut = stage === 'published' && deletedAt === null;
      if (deed === 'says that it is out') expect(isShownOut).toBe(true);
      else expect([at, isShownOut]).toEqual([at, isOut]);
      if (isOut) {
        const words = [...network.accepted.values()].map(({ words: { caption } }) => caption);
        expect(words).toEqual(['The dome is open from eight.']);
        expect(delivery).toMatchObject({ state: 'sent' });
      } else if (!isShownOut) expect(answered?.ok).toBe(true);
    }
    expect(met).toBeGreaterThan(4);
  },
);
