import ICAL from 'ical.js';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { PrepLine } from '@/core/prep/step';
import type { Post } from '@/data/posts/posts';
import { changePosts } from '../calendar/changePosts';
import { addStep } from '../prep/prep';
import { codeOf, makeWorld, valueOf, type TestWorld } from '../testWorld';
import { readFeed } from './feedText';
import { endFeed, loadFeeds, makeFeed } from './feeds';

let world: TestWorld;
beforeEach(async () => {
  world = await makeWorld();
});
afterEach(() => world.close());

/** The events of a feed as another parser reads them, by what they are called. */
async function eventsOf(key: string) {
  const text = (await readFeed(world.work, key))!;
  const calendar = new ICAL.Component(ICAL.parse(text) as ConstructorParameters<typeof ICAL.Component>[0]);
  return new Map(
    calendar.getAllSubcomponents('vevent').map((part) => {
      const event = new ICAL.Event(part);
      const alarm = part.getFirstSubcomponent('valarm')?.getFirstPropertyValue('trigger');
      return [
        event.summary,
        {
          uid: event.uid,
          sequence: event.sequence,
          start: event.startDate.toString(),
          status: part.getFirstPropertyValue('status'),
          alarm: alarm ? String(alarm) : null,
        },
      ];
    }),
  );
}
const keyOf = async (brandId: string | null, work = world.work) => valueOf(await makeFeed(work, brandId)).key;
const change = async ({ id }: Post, to: Parameters<typeof changePosts>[3]) =>
  valueOf(await changePosts(world.work, world.brandId, [{ id, version: (await world.post(id)).version }], to));
const titled = async (channel: 'pithline' | 'homestoop', title: string, time: string | null = '14:30') => {
  const post = await world.makePost(channel, { date: '2026-11-26', time });
  await world.db.run('update posts set title = $2 where id = $1', [post.id, title]);
  return post;
};

describe('the feed of a brand', () => {
  it('gives its posts at their instants, by hand with an alarm at the lead, whole days without a time', async () => {
    await titled('pithline', 'Rings');
    await titled('homestoop', 'Come up');
    await titled('pithline', 'Some day', null);
    await world.db.run('update channels set lead_minutes = 15 where id = $1', [world.channels.homestoop]);
    const events = await eventsOf(await keyOf(world.brandId));
    const named = (title: string) => [...events].find(([summary]) => summary.endsWith(title))![1];
    expect(named('Rings')).toMatchObject({ start: '2026-11-26T14:30:00Z', alarm: null });
    expect(named('Come up').alarm).toBe('-PT15M');
    expect(named('Some day').start).toBe('2026-11-26');
  });

  it('follows what is changed: the same entry with a higher number, cancelled where it is off', async () => {
    const post = await titled('pithline', 'Rings');
    const key = await keyOf(world.brandId);
    const [before] = (await eventsOf(key)).values();
    expect(await readFeed(world.work, key)).toBe(await readFeed(world.work, key));
    await change(post, { kind: 'place', date: '2026-11-27', time: '09:00' });
    const [moved] = (await eventsOf(key)).values();
    expect(moved).toMatchObject({ uid: before!.uid, start: '2026-11-27T09:00:00Z' });
    expect(moved!.sequence).toBeGreaterThan(before!.sequence);
    await change(post, { kind: 'setAside', reason: 'Clouds' });
    expect([...(await eventsOf(key)).values()]).toMatchObject([{ uid: before!.uid, status: 'CANCELLED' }]);
  });

  it('is nothing for a key that was guessed or revoked, nor when one works for the brand no more', async () => {
    const key = await keyOf(world.brandId, world.otherWork);
    expect(await readFeed(world.work, key)).not.toBeNull();
    expect(await readFeed(world.work, `${key.slice(0, -1)}!`)).toBeNull();
    await world.db.run('delete from brand_people where person_id = $1', [world.otherWork.actorId]);
    expect(await readFeed(world.work, key)).toBeNull();
    const own = await keyOf(world.brandId);
    const [feed] = await loadFeeds(world.db, world.work.actorId);
    expect(codeOf(await endFeed(world.otherWork, feed!.id))).toBe('notFound');
    valueOf(await endFeed(world.work, feed!.id));
    expect(await readFeed(world.work, own)).toBeNull();
  });

  it('is made for a brand that one works for, and its key is not kept', async () => {
    expect((await makeFeed(world.otherWork, world.otherBrandId)).ok).toBe(false);
    const key = await keyOf(world.brandId);
    expect(key).toMatch(/^[\w-]{43}$/);
    const [row] = await world.db.rows<{ row: string }>('select f::text as row from feeds f');
    expect(row!.row).not.toContain(key);
  });
});

it('one’s own feed gives one’s own posts and steps, and says when it was read last', async () => {
  const post = await titled('pithline', 'Mine');
  const others = await titled('pithline', 'Theirs');
  await world.db.run('update posts set owner_id = $2 where id = $1', [others.id, world.otherWork.actorId]);
  const step: PrepLine = {
    ...{ title: 'Cut', work: 'editing', ownerId: world.work.actorId, craft: null, lead: 1, leadIn: 'working' },
    ...{ minutes: null, note: '', needed: false, ticksItself: false },
  };
  valueOf(await addStep(world.work, { postId: post.id }, step));
  const key = await keyOf(null);
  const summaries = [...(await eventsOf(key)).keys()];
  expect(summaries.filter((one) => one.includes(' · '))).toHaveLength(1);
  expect(summaries).toContain('Cut: Mine');
  expect(summaries.filter((one) => one.includes(' · '))[0]).toMatch(/Mine$/);
  expect((await loadFeeds(world.db, world.work.actorId))[0]!.usedAt).toBe(world.work.clock.now());
});
