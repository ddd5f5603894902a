import fc from 'fast-check';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { proposeCrop } from '@/core/media/fit';
import { measuresOf } from '@/core/delivery/parcel';
import { blocksOf } from '@/core/posts/readiness';
import type { Format } from '@/core/rulesheets/types';
import { oneChannel } from '@/data/channels';
import { maybeDeliveryOfPost } from '@/data/deliveries';
import { listPictures } from '@/data/media';
import { listStepsOf } from '@/data/steps';
import { changePosts, undoChange } from './changes';
import { movePost } from './planning';
import { attachPicture, describePicture, removePicture, setRecipe } from './pictures';
import { tickStep } from './prep';
import { publishNow, schedulePost } from './scheduling';
import { editBrand } from './settings';
import { signPostOff, takeSignOffBack } from './signingOff';
import { bringPostBack, putAtStage, setPostAside } from './stages';
import { makeWorld, valueOf, type TestWorld } from './testWorld';
import { loadSheet } from './views';
import { waiveWants } from './waiving';
import { editPost } from './writing';

let world: TestWorld;
beforeEach(async () => {
  world = await makeWorld();
  valueOf(
    await editBrand(world.work, world.brandId, {
      name: 'Moor',
      zone: 'Europe/Lisbon',
      weekStart: 1,
      daysOff: [],
      asksSignOff: true,
    }),
  );
});
afterEach(() => world.close());

const picture = (width: number, height: number, mime = 'image/jpeg', bytes = 400_000) => ({
  sha256: 'a'.repeat(64),
  mime,
  width,
  height,
  bytes,
  fileName: 'x',
  durationMs: null,
});

/** What people do to a post, each with the version it has; refusals are as good as deeds. */
type Deed = (id: string, version: number) => Promise<unknown>;
const deeds: Record<string, Deed> = {
  writeShort: (id, version) => editPost(world.work, id, version, { caption: 'Open tonight.' }),
  writeLong: (id, version) => editPost(world.work, id, version, { caption: 'x'.repeat(5_000) }),
  writeNothing: (id, version) => editPost(world.work, id, version, { caption: ' ' }),
  linkBroken: (id, version) => editPost(world.work, id, version, { link: 'moor' }),
  linkMended: (id, version) => editPost(world.work, id, version, { link: 'https://moor.example' }),
  manyHashtags: (id, version) =>
    editPost(world.work, id, version, { hashtags: Array.from({ length: 40 }, (_, n) => `t${n}`).join(' ') }),
  noHashtags: (id, version) => editPost(world.work, id, version, { hashtags: '' }),
  asPhoto: (id, version) => editPost(world.work, id, version, { format: 'photo' as Format }),
  asText: (id, version) => editPost(world.work, id, version, { format: 'text' as Format }),
  attachSquare: (id) => attachPicture(world.work, id, picture(1200, 1200), 'The dome'),
  attachStrip: (id) => attachPicture(world.work, id, picture(3000, 500), 'A strip'),
  attachUndescribed: (id) => attachPicture(world.work, id, picture(1200, 1200), ''),
  attachGif: (id) => attachPicture(world.work, id, picture(1200, 1200, 'image/gif', 90_000_000), 'It moves'),
  describe: async (id) => {
    for (const { id: pictureId } of await listPictures(world.db, id))
      await describePicture(world.work, id, pictureId, 'Described');
  },
  crop: async (id) => {
    for (const one of await listPictures(world.db, id))
      await setRecipe(world.work, id, one.id, { crop: proposeCrop(one, 1), toMime: null, toBytes: null });
  },
  uncrop: async (id) => {
    for (const one of await listPictures(world.db, id))
      await setRecipe(world.work, id, one.id, { crop: null, toMime: null, toBytes: null });
  },
  detach: async (id) => {
    const [first] = await listPictures(world.db, id);
    if (first) await removePicture(world.work, id, first.id);
  },
  tick: async (id) => {
    for (const step of await listStepsOf(world.db, [id])) await tickStep(world.work, step.id, true);
  },
  untick: async (id) => {
    for (const step of await listStepsOf(world.db, [id])) await tickStep(world.work, step.id, false);
  },
  signOff: (id, version) => signPostOff(world.work, id, version),
  takeBack: (id, version) => takeSignOffBack(world.work, id, version),
  waive: (id, version) => waiveWants(world.work, id, version, 'She is away'),
  ready: (id, version) => putAtStage(world.work, id, version, 'ready'),
  draft: (id, version) => putAtStage(world.work, id, version, 'drafting'),
  schedule: (id, version) => schedulePost(world.work, id, version),
  publishNow: (id, version) => publishNow(world.work, id, version),
  move: (id, version) => movePost(world.work, id, version, { date: '2026-12-10', time: '09:00' }),
  undate: (id, version) => movePost(world.work, id, version, { date: null }),
  setAside: (id, version) => setPostAside(world.work, id, version, 'Rain'),
  bringBack: (id, version) => bringPostBack(world.work, id, version),
  scheduleOnCalendar: (id, version) =>
    changePosts(world.work, world.brandId, [{ id, version }], { kind: 'stage', stage: 'scheduled' }),
  shiftOnCalendar: (id, version) =>
    changePosts(world.work, world.brandId, [{ id, version }], { kind: 'shift', days: 1 }),
  toOtherLane: (id, version) =>
    changePosts(world.work, world.brandId, [{ id, version }], {
      kind: 'place',
      date: '2026-12-11',
      channelId: world.channels.pithline,
    }),
  undo: () => undoChange(world.work, world.brandId, null),
};

/** Ways that end in a schedule more often than chance would. */
const towardsFit = [
  'writeShort',
  'linkMended',
  'noHashtags',
  'describe',
  'crop',
  'tick',
  'move',
  'signOff',
  'schedule',
];

/** What would leave fits its channel; what was scheduled just now lacked nothing the team wants. */
async function mustBeFit(id: string, wasScheduled: boolean): Promise<boolean> {
  const post = await world.post(id);
  if (post.stage !== 'scheduled') return false;
  const { sheet } = await oneChannel(world.db, post.channelId);
  const { parcel } = (await maybeDeliveryOfPost(world.db, id))!;
  const leaves = { ...parcel.words, format: parcel.format, pictures: parcel.pictures.map(measuresOf) };
  expect(blocksOf(leaves, sheet)).toEqual([]);
  if (wasScheduled) return true;
  const { signOff, waived } = (await loadSheet(world.db, id))!;
  const isWaived = (key: string) => waived.some((one) => one.key === key);
  expect(signOff.state === 'given' || isWaived('signOff')).toBe(true);
  expect(parcel.pictures.every(({ alt }) => alt !== '') || isWaived('alt')).toBe(true);
  return true;
}

it('no post is ever scheduled that its network would refuse or its team still wants something of', async () => {
  let scheduled = 0;
  const one = fc.constantFrom(...Object.keys(deeds));
  const way = fc.array(
    fc.oneof({ weight: 3, arbitrary: one }, { weight: 2, arbitrary: fc.constantFrom(...towardsFit) }),
    {
      minLength: 6,
      maxLength: 14,
    },
  );
  await fc.assert(
    fc.asyncProperty(fc.constantFrom('pithline', 'glassrow'), way, async (network, names) => {
      const { id } = await world.makePost(network as 'pithline');
      let was = false;
      for (const name of [...names, ...towardsFit]) {
        await deeds[name]!(id, (await world.post(id)).version);
        const is = await mustBeFit(id, was);
        if (is && !was) scheduled++;
        was = is;
      }
    }),
    { numRuns: 20, seed: 20261123 },
  );
  // The property speaks of scheduled posts, so there have to be some.
  expect(scheduled).toBeGreaterThan(5);
}, 60_000);
