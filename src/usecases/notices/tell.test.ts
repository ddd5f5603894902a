import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { isFresh } from '@/core/notices/notice';
import { insertBrandHold } from '@/data/delivery/brandHolds';
import { changePosts } from '../calendar/changePosts';
import { saveChannel } from '../brands/channels';
import { listRuleSheets } from '@/data/brands/channels';
import { declareOut, schedulePost } from '../delivery/schedule';
import { codeOf, makeWorld, valueOf, type TestWorld } from '../testWorld';
import { loadFresh, loadNotices, markRead } from './notices';
import { tellPeople } from './tell';

let world: TestWorld;
beforeEach(async () => {
  world = await makeWorld();
});
afterEach(() => world.close());

/** A post to be posted by hand at 14:30 of the day, in Lisbon. */
async function byHand() {
  const post = await world.makePost('homestoop', { date: '2026-11-23', time: '14:30' });
  valueOf(await schedulePost(world.work, post.id, post.version));
  return world.post(post.id);
}
const mine = () => loadNotices(world.db, world.work.actorId);
const tell = (at: string) => {
  world.goTo(`2026-11-23T${at}:00.000Z`);
  return tellPeople(world.work);
};
async function lead(leadMinutes: number) {
  const sheet = (await listRuleSheets(world.db)).find(({ slug }) => slug === 'homestoop')!;
  const own = { name: 'Homestoop', callSign: 'HS', color: '#3B6E7A', account: '@moor', aimDays: 14 };
  const work = { ...world.work, seen: 0 };
  return saveChannel(work, world.brandId, world.channels.homestoop, { ...own, ruleSheetId: sheet.id, leadMinutes });
}

describe('what is due by hand', () => {
  it('is told once, at its time, and again where it was moved', async () => {
    const post = await byHand();
    expect(await tell('14:29')).toBe(0);
    expect(await tell('14:30')).toBe(1);
    expect(await tell('14:31')).toBe(0);
    expect(await mine()).toMatchObject([{ kind: 'dueByHand', postId: post.id, readAt: null, isSettled: false }]);
    const at = { kind: 'place', date: '2026-11-23', time: '16:00' } as const;
    valueOf(await changePosts(world.work, world.brandId, [{ id: post.id, version: post.version }], at));
    expect((await mine())[0]!.isSettled).toBe(true);
    expect(await tell('16:00')).toBe(1);
    expect((await mine()).map(isFresh)).toEqual([true, false]);
  });

  it('is told before by the lead of its channel, which is no more than a day', async () => {
    expect(codeOf(await lead(1441))).toBe('badLead');
    valueOf(await lead(15));
    await byHand();
    expect(await tell('14:14')).toBe(0);
    expect(await tell('14:15')).toBe(1);
  });

  it('is settled when it is out, and read when somebody says so', async () => {
    const post = await byHand();
    await tell('14:30');
    expect((await loadFresh(world.db, world.work.actorId)).count).toBe(1);
    valueOf(await markRead(world.otherWork, null));
    expect((await loadFresh(world.db, world.work.actorId)).count).toBe(1);
    valueOf(await markRead(world.work, [(await mine())[0]!.id]));
    expect(await loadFresh(world.db, world.work.actorId)).toEqual({ count: 0, notices: [] });
    const { version } = await world.post(post.id);
    valueOf(await declareOut(world.work, post.id, version, ''));
    expect((await mine())[0]!.isSettled).toBe(true);
  });

  it('is not told while all of the brand is on hold', async () => {
    await byHand();
    const hold = { reason: 'A bad day', since: world.work.clock.now(), personId: world.work.actorId };
    await insertBrandHold(world.db, world.brandId, hold);
    expect(await tell('14:30')).toBe(0);
  });

  it('is told to its owner, and to the managers where they may not send', async () => {
    const post = await byHand();
    await world.db.run('update posts set owner_id = $2 where id = $1', [post.id, world.otherWork.actorId]);
    await world.db.run('update brands set makers_send = false where id = $1', [world.brandId]);
    expect(await tell('14:30')).toBe(2);
    expect(await loadNotices(world.db, world.otherWork.actorId)).toHaveLength(1);
    expect(await mine()).toHaveLength(1);
  });
});

it('what was not sent is told to its owner until it is dealt with', async () => {
  const post = await world.makePost('pithline', { date: '2026-11-23', time: '14:30' });
  valueOf(await schedulePost(world.work, post.id, post.version));
  await world.db.run("update deliveries set state = 'failed', attempts = 3 where post_id = $1", [post.id]);
  expect(await tell('14:40')).toBe(1);
  expect(await mine()).toMatchObject([{ kind: 'notSent', isSettled: false }]);
  await world.db.run("update deliveries set state = 'waiting' where post_id = $1", [post.id]);
  expect(await mine()).toMatchObject([{ isSettled: true }]);
});
