import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { Delivers } from '@/core/delivery/carrier';
import { SHIPPED_RULE_SHEETS } from '@/core/rulesheets/shipped';
import { oneBrand } from '@/data/brands/brands';
import { oneChannel } from '@/data/brands/channels';
import { maybeDeliveryOfPost } from '@/data/delivery/deliveries';
import { editBrand, makeBrand } from '../brands/brands';
import { saveRuleSheet } from '../brands/ruleSheets';
import { codeOf, deliveryWork, fakeNetwork, makeWorld, valueOf, type FakeNetwork, type TestWorld } from '../testWorld';
import { deliverDue } from './testDeliver';
import { loadDepartures } from './loadDepartures';
import { giveToHand, schedulePost, tryAgain } from './schedule';

let world: TestWorld;
let network: FakeNetwork;
beforeEach(async () => {
  world = await makeWorld();
  network = fakeNetwork();
});
afterEach(() => world.close());

const DUE = '2026-11-26T14:30:00.000Z';
const BRAND = { name: 'Moor', zone: 'Europe/Lisbon', weekStart: 1, daysOff: [] };
const delivers = async (delivers: Delivers) => {
  await world.db.run('delete from setting_versions');
  return editBrand({ ...world.work, seen: 0 }, world.brandId, { ...BRAND, delivers });
};
const delivery = async (id: string) => (await maybeDeliveryOfPost(world.db, id))!;
async function scheduled(): Promise<string> {
  const post = await world.makePost('pithline');
  valueOf(await schedulePost(world.work, post.id, post.version));
  return post.id;
}
async function deliverThen() {
  world.goTo(DUE);
  await deliverDue(deliveryWork(world, network));
}
const departure = async (id: string) =>
  (await loadDepartures(world.db, await oneBrand(world.db, world.brandId), DUE)).find(({ slip }) => slip.id === id)!;

describe('a brand whose posts are posted by hand', () => {
  it('is what a new one is, and sends nothing by itself', async () => {
    expect(valueOf(await makeBrand(world.work, { ...BRAND, name: 'New' })).delivers).toBe('byHand');
    const before = await scheduled();
    expect(valueOf(await delivers('byHand'))).toMatchObject({ copiedAnew: 1 });
    const after = await scheduled();
    expect((await oneChannel(world.db, world.channels.pithline)).sheet.automatic).toBe(false);
    await deliverThen();
    expect(network.accepted.size).toBe(0);
    for (const id of [before, after]) {
      expect(await delivery(id)).toMatchObject({ mode: 'byHand', isPractice: false });
      expect(await departure(id)).toMatchObject({ fitness: 'handOver' });
    }
  });

  it('may not be said to have real networks', async () => {
    valueOf(await delivers('byHand'));
    expect(codeOf(await delivers('networks'))).toBe('badDelivers');
    expect(codeOf(await makeBrand(world.work, { ...BRAND, delivers: 'networks' }))).toBe('badDelivers');
  });
});

describe('a brand that practises', () => {
  it('sends to made-up networks, and what was sent says so, later as well', async () => {
    valueOf(await delivers('practice'));
    const id = await scheduled();
    await deliverThen();
    expect(network.accepted.size).toBe(1);
    expect(await delivery(id)).toMatchObject({ mode: 'automatic', state: 'sent', isPractice: true });
    expect((await departure(id)).slip.delivery).toMatchObject({ isPractice: true });
    valueOf(await delivers('byHand'));
    expect(await delivery(id)).toMatchObject({ state: 'sent', isPractice: true });
  });
});

describe('a rule sheet that was copied', () => {
  it('names a network that is nowhere, so nothing is sent there', async () => {
    const copy = {
      ...SHIPPED_RULE_SHEETS.find(({ slug }) => slug === 'pithline')!,
      slug: 'our-line',
      name: 'Our line',
    };
    expect(codeOf(await saveRuleSheet(world.work, null, copy))).toBe('nobodyAnswers');
    valueOf(await saveRuleSheet(world.work, null, { ...copy, automatic: false }));
  });
});

describe('a delivery that failed', () => {
  it('is given to a person, once, with the same words', async () => {
    const id = await scheduled();
    await world.db.run(`update deliveries set state = 'failed', words = 'refused' where post_id = $1`, [id]);
    const { version } = await world.post(id);
    const failed = await delivery(id);
    valueOf(await giveToHand(world.work, id, version));
    expect(await delivery(id)).toMatchObject({
      mode: 'byHand',
      state: 'waiting',
      dueAt: failed.dueAt,
      parcel: failed.parcel,
    });
    expect(codeOf(await giveToHand(world.work, id, version))).toBe('notFailed');
    expect(codeOf(await tryAgain(world.work, id, version))).toBe('notScheduled');
    await deliverThen();
    // It stays theirs when rules change: nothing is sent of what somebody posts by hand.
    valueOf(await delivers('practice'));
    expect(await delivery(id)).toMatchObject({ mode: 'byHand', state: 'waiting' });
    await deliverThen();
    expect(network.accepted.size).toBe(0);
    expect((await departure(id)).handOver?.texts[0]?.text).toContain('The dome is open from eight.');
  });

  it('stays Bimlo’s while it is under way, or while nobody knows whether it is out', async () => {
    const id = await scheduled();
    const { version } = await world.post(id);
    expect(codeOf(await giveToHand(world.work, id, version))).toBe('notFailed');
    await world.db.run(`update deliveries set state = 'unknown', unsure_since = now() where post_id = $1`, [id]);
    expect(codeOf(await giveToHand(world.work, id, version))).toBe('notFailed');
  });
});
