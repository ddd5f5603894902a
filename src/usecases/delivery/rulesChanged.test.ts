import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { listRuleSheets, oneChannel } from '@/data/brands/channels';
import { maybeDeliveryOfPost } from '@/data/delivery/deliveries';
import type { RuleSheet } from '@/core/rulesheets/types';
import { deliverDue } from './testDeliver';
import { listPictures } from '@/data/media/media';
import { insertRenditions } from '@/data/media/renditions';
import { attachPicture, removePicture, setRecipe } from '../media/pictures';
import { changePosts } from '../calendar/changePosts';
import { schedulePost, tryAgain } from './schedule';
import { saveChannel } from '../brands/channels';
import { saveRuleSheet } from '../brands/ruleSheets';
import { bringPostBack, putAtStage, setPostAside } from '../posts/stages';
import { codeOf, deliveryWork, fakeNetwork, makeWorld, valueOf, type FakeNetwork, type TestWorld } from '../testWorld';

let world: TestWorld;
let network: FakeNetwork;
beforeEach(async () => {
  world = await makeWorld();
  network = fakeNetwork();
});
afterEach(() => world.close());

const DUE = '2026-11-26T14:30:00.000Z';
const deliver = () => deliverDue(deliveryWork(world, network));
const delivery = async (id: string) => (await maybeDeliveryOfPost(world.db, id))!;
const sheetOf = async (slug: string) => (await listRuleSheets(world.db)).find((sheet) => sheet.slug === slug)!;

async function scheduled(): Promise<string> {
  const post = await world.makePost('pithline');
  valueOf(await schedulePost(world.work, post.id, post.version));
  return post.id;
}

/** Lets the rules of a network be others. */
async function changeRules(slug: string, change: (sheet: RuleSheet) => RuleSheet) {
  const { id, rules } = await sheetOf(slug);
  return valueOf(await saveRuleSheet(world.work, id, change(rules)));
}

const takeAtMost = (limit: number) => (sheet: RuleSheet) => ({
  ...sheet,
  fields: sheet.fields.map((field) => (field.name === 'caption' ? { ...field, limit, fold: null } : field)),
});

async function goByOtherSheet(slug: string) {
  const { name, callSign, account, aimDays } = await oneChannel(world.db, world.channels.pithline);
  const fields = { name, callSign, account, aimDays, color: '#2E7D50', ruleSheetId: (await sheetOf(slug)).id };
  return valueOf(await saveChannel(world.work, world.brandId, world.channels.pithline, fields));
}

describe('a channel that goes by another rule sheet', () => {
  it('is sent nothing on its old network: the copy goes by the new rules', async () => {
    const id = await scheduled();
    expect(await goByOtherSheet('benchfeed')).toMatchObject({ copiedAnew: 1, held: 0 });
    expect(await delivery(id)).toMatchObject({ state: 'waiting', dueAt: DUE, parcel: { network: 'benchfeed' } });
    world.goTo(DUE);
    await deliver();
    expect([...network.accepted.values()].map((parcel) => parcel.network)).toEqual(['benchfeed']);
  });

  it('waits for a person where the new network takes posts by hand only', async () => {
    const id = await scheduled();
    await goByOtherSheet('homestoop');
    expect(await delivery(id)).toMatchObject({ mode: 'byHand', state: 'waiting' });
    world.goTo(DUE);
    await deliver();
    expect(network.calls).toBe(0);
  });

  it('holds what the new network would refuse, with the reason', async () => {
    const id = await scheduled();
    expect(await goByOtherSheet('glassrow')).toMatchObject({ held: 1, copiedAnew: 0 });
    expect(await delivery(id)).toMatchObject({ state: 'held' });
    expect((await delivery(id)).words).toMatch(/Glassrow/);
    valueOf(await tryAgain(world.work, id, (await world.post(id)).version));
    await deliver();
    expect([network.calls, (await delivery(id)).state]).toEqual([0, 'held']);
  });
});

it('a rule sheet that is saved as it was lets everything wait as it did', async () => {
  const id = await scheduled();
  const before = await delivery(id);
  expect(await changeRules('pithline', (sheet) => sheet)).toMatchObject({ held: 0, tookBack: 0, copiedAnew: 0 });
  expect(await delivery(id)).toEqual(before);
});

describe('a rule sheet that was made stricter', () => {
  it('holds what is scheduled, and takes back what is ready', async () => {
    const id = await scheduled();
    const ready = await world.makePost('pithline');
    valueOf(await putAtStage(world.work, ready.id, ready.version, 'ready'));
    expect(await changeRules('pithline', takeAtMost(10))).toMatchObject({ held: 1, tookBack: 1 });
    expect((await delivery(id)).words).toContain('takes 10');
    expect(await world.post(ready.id)).toMatchObject({ stage: 'production', version: ready.version + 2 });
  });

  it('is asked again at departure, by whatever road it came', async () => {
    const id = await scheduled();
    await world.db.run(
      `update rule_sheets set rules = jsonb_set(rules, '{fields,0,limit}', '10') where slug = 'pithline'`,
    );
    world.goTo(DUE);
    await deliver();
    expect([network.calls, await delivery(id)]).toMatchObject([0, { state: 'held' }]);
  });

  it('lets nothing be ready that comes back from being set aside', async () => {
    const post = await world.makePost('pithline');
    valueOf(await putAtStage(world.work, post.id, post.version, 'ready'));
    valueOf(await setPostAside(world.work, post.id, post.version + 1, 'Rain'));
    await changeRules('pithline', takeAtMost(10));
    expect(valueOf(await bringPostBack(world.work, post.id, post.version + 2))).toMatchObject({ tookBack: true });
    expect((await world.post(post.id)).stage).toBe('production');
  });
});

it('a ready post that loses its picture is not ready any more, and that is said', async () => {
  const post = await world.makePost('glassrow');
  const file = { sha256: 'a'.repeat(64), mime: 'image/jpeg', width: 1_200, height: 1_200, bytes: 90_000 };
  const added = valueOf(
    await attachPicture(world.work, post.id, { ...file, fileName: 'a.jpg', durationMs: null }, 'A dome'),
  );
  valueOf(await putAtStage(world.work, post.id, post.version + 1, 'ready'));
  const removed = valueOf(await removePicture(world.work, post.id, added.pictureId));
  expect(removed).toMatchObject({ tookBack: true, missing: expect.stringContaining('needs a picture') });
  expect((await world.post(post.id)).stage).toBe('production');
});

it('the bytes that leave are the bytes that are checked: a picture that is not what it was taken for is held', async () => {
  const post = await world.makePost('glassrow');
  const file = { sha256: 'a'.repeat(64), mime: 'image/jpeg', width: 1_200, height: 1_200, bytes: 90_000 };
  valueOf(await attachPicture(world.work, post.id, { ...file, fileName: 'a.jpg', durationMs: null }, 'A dome'));
  valueOf(await schedulePost(world.work, post.id, post.version + 1));
  world.goTo(DUE);
  network.readsPictures = true;
  await deliverDue({
    ...deliveryWork(world, network),
    readPicture: async (picture) => ({
      bytes: new Uint8Array(),
      picture: { ...picture, width: 1_200, height: 100, recipe: undefined },
    }),
  });
  expect([network.accepted.size, await delivery(post.id)]).toMatchObject([0, { state: 'held' }]);
  expect((await delivery(post.id)).words).toContain('takes pictures of');
});

describe('pictures are checked by what they came to', () => {
  const file = { sha256: 'a'.repeat(64), mime: 'image/png', width: 1_200, height: 1_200, bytes: 90_000 };
  const attached = async () => {
    const post = await world.makePost('glassrow');
    const { pictureId } = valueOf(
      await attachPicture(world.work, post.id, { ...file, fileName: 'a.png', durationMs: null }, 'A dome'),
    );
    return { id: post.id, pictureId };
  };
  /** Making ready that finds pictures of so many bytes. */
  const madeReady = (bytes: number) => async (postIds: readonly string[]) => {
    const rows = await world.db.rows<{ sha256: string; recipe: string }>(
      'select distinct sha256, recipe from media where post_id = any($1::uuid[])',
      [postIds],
    );
    await insertRenditions(
      world.db,
      rows.map((row) => ({ ...row, mime: 'image/jpeg', width: 1_200, height: 1_200, bytes })),
    );
    return new Set<string>();
  };

  it('one that came out larger than its network takes is not scheduled', async () => {
    const { id } = await attached();
    const work = { ...world.work, measurePictures: madeReady(900_000_000) };
    expect(codeOf(await schedulePost(work, id, (await world.post(id)).version))).toBe('blocked');
  });

  it('one whose file is lost is not scheduled, alone or with others, and named', async () => {
    const { id } = await attached();
    const { sha256 } = (await listPictures(world.db, id))[0]!;
    const work = { ...world.work, measurePictures: async () => new Set([sha256]) };
    const alone = await schedulePost(work, id, (await world.post(id)).version);
    expect(!alone.ok && alone.refusal).toMatchObject({ code: 'lostFile', message: expect.stringContaining('“') });
    const other = await world.makePost('pithline');
    const targets = [id, other.id].map(async (one) => ({ id: one, version: (await world.post(one)).version }));
    const change = { kind: 'stage', stage: 'scheduled' } as const;
    const both = valueOf(await changePosts(work, world.brandId, await Promise.all(targets), change));
    expect([both.postIds, both.refused.map(({ postId }) => postId)]).toEqual([[other.id], [id]]);
  });

  it('one that was never made ready is not scheduled, and after it is fitted it is made ready anew', async () => {
    const { id, pictureId } = await attached();
    const never = { ...world.work, measurePictures: async () => new Set<string>() };
    expect(codeOf(await schedulePost(never, id, (await world.post(id)).version))).toBe('notMeasured');
    const work = { ...world.work, measurePictures: madeReady(90_000) };
    valueOf(await schedulePost(work, id, (await world.post(id)).version));
    const crop = { x: 0, y: 0, width: 1, height: 0.9 };
    valueOf(await setRecipe(world.work, id, pictureId, { crop, toMime: 'image/jpeg', toBytes: null }));
    expect(codeOf(await schedulePost(never, id, (await world.post(id)).version))).toBe('notMeasured');
    valueOf(await schedulePost(work, id, (await world.post(id)).version));
  });
});
