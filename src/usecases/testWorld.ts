import { randomUUID } from 'node:crypto';
import type { Format } from '@/core/rulesheets/types';
import type { HeldPost, Network, Parcel, PublishAnswer } from '@/core/delivery/network';
import { SHIPPED_RULE_SHEETS } from '@/core/rulesheets/shipped';
import type { Instant } from '@/core/time/plan';
import { insertBrand } from '@/data/brands/brands';
import { insertChannel, insertRuleSheets } from '@/data/brands/channels';
import type { Db } from '@/data/database/db';
import { insertPerson } from '@/data/people/people';
import { maybePost, type Post } from '@/data/posts/posts';
import { openTestDb } from '@/data/database/testDb';
import type { DeliveryWork } from './delivery/deliver';
import { catchIdea } from './pieces/pieces';
import { planPiece } from './posts/planPosts';
import type { Work } from './useCase';
import { editPost } from './captions/editPost';

/** A small made-up world: two brands, a manager of both, a maker of the first. */
export interface TestWorld {
  db: Db;
  work: Work;
  /** A maker who works for the first brand only. */
  otherWork: Work;
  brandId: string;
  otherBrandId: string;
  /** Ids of the first brand's channels by network. */
  channels: Record<'pithline' | 'glassrow' | 'corkwall' | 'homestoop', string>;
  otherChannelId: string;
  /** Moves the clock. */
  goTo(instant: Instant): void;
  /** Makes a post on a channel, planned and written. */
  makePost(
    network: keyof TestWorld['channels'],
    plan?: { date: string | null; time: string | null },
    caption?: string,
  ): Promise<Post>;
  /** The post as it stands. */
  post(id: string): Promise<Post>;
  close(): Promise<void>;
}

/** The instant the world begins at: a Monday morning, in Lisbon the same time on the wall. */
export const START: Instant = '2026-11-23T09:00:00.000Z';

/** Makes the world in a database of its own. */
export async function makeWorld(): Promise<TestWorld> {
  const db = await openTestDb();
  let now = START;
  const clock = { now: () => now };
  const [brandId, otherBrandId, managerId, makerId, otherChannelId] = Array.from(
    { length: 5 },
    () => randomUUID() as string,
  ) as [string, string, string, string, string];
  await insertRuleSheets(
    db,
    SHIPPED_RULE_SHEETS.map((sheet) => ({ id: randomUUID(), sheet })),
  );
  const brand = {
    slug: 'moor',
    name: 'Moor',
    zone: 'Europe/Lisbon',
    weekStart: 1,
    position: 0,
    delivers: 'networks' as const,
  };
  await insertBrand(db, { ...brand, id: brandId });
  await insertBrand(db, { ...brand, slug: 'ferry', id: otherBrandId });
  await insertPerson(db, { id: managerId, slug: 'mana', name: 'Mana', role: 'manager', position: 0 }, [
    brandId,
    otherBrandId,
  ]);
  await insertPerson(db, { id: makerId, slug: 'maki', name: 'Maki', role: 'maker', position: 1 }, [brandId]);
  const signs = { pithline: 'PL', glassrow: 'GR', corkwall: 'CW', homestoop: 'HS' };
  const channels = {} as TestWorld['channels'];
  for (const [network, callSign] of Object.entries(signs) as [keyof typeof signs, string][]) {
    channels[network] = randomUUID();
    await insertChannel(db, {
      id: channels[network],
      brandId,
      name: network,
      callSign,
      color: '#123456',
      account: '@moor',
      ruleSheetSlug: network,
      position: 0,
    });
  }
  await insertChannel(db, {
    id: otherChannelId,
    brandId: otherBrandId,
    name: 'p',
    callSign: 'PL',
    color: '#123456',
    account: '@f',
    ruleSheetSlug: 'pithline',
    position: 0,
  });
  const work: Work = { db, clock, ids: randomUUID, actorId: managerId, seen: 0 };
  const post = async (id: string) => (await maybePost(db, id))!;
  return {
    db,
    work,
    otherWork: { ...work, actorId: makerId },
    brandId,
    otherBrandId,
    channels,
    otherChannelId,
    goTo: (instant) => void (now = instant),
    makePost: async (
      network,
      plan = { date: '2026-11-26', time: '14:30' },
      caption = 'The dome is open from eight.',
    ) => {
      const idea = valueOf(await catchIdea(work, { brandId, title: 'Dome night' }));
      const [id] = valueOf(await planPiece(work, idea.id, [channels[network]], plan)).postIds;
      const made = await post(id!);
      valueOf(
        await editPost(work, id!, made.version, { caption, headline: 'Dome night', format: textFormat(network) }),
      );
      return post(id!);
    },
    post,
    close: () => db.close(),
  };
}

const textFormat = (network: string): Format =>
  network === 'glassrow' ? 'photo' : network === 'corkwall' ? 'boardPicture' : 'text';

/** The value of a result that has to be one. */
export function valueOf<T>(result: { ok: true; value: T } | { ok: false; refusal: { message: string } }): T {
  if (!result.ok) throw new Error(`refused: ${result.refusal.message}`);
  return result.value;
}

/** The code of a result that has to be a refusal. */
export function codeOf(result: { ok: true } | { ok: false; refusal: { code: string } }): string {
  if (result.ok) throw new Error('was not refused');
  return result.refusal.code;
}

/** A network in memory that answers as it is told, and counts what it accepted. */
export interface FakeNetwork extends Network {
  /** Answers to come, first to last; when there is none it accepts. `acceptThenSilent` accepts and gives no answer. */
  answers: (PublishAnswer | 'acceptThenSilent')[];
  accepted: Map<string, Parcel>;
  /** What it holds of this house, with when it took it; `publish` adds to it. */
  held: HeldPost[];
  /** What its clock shows. */
  now: Instant;
  /** How often it was asked to publish. */
  calls: number;
  asked: number;
  /** It gives no answer when it is asked what it has. */
  isMute: boolean;
  /** It takes nothing down. */
  keepsAll: boolean;
  /** Keys that it was asked to take down. */
  takenDown: string[];
  /** It reads the pictures of what it is asked to publish, as a real one does. */
  readsPictures: boolean;
}

export function fakeNetwork(): FakeNetwork {
  const accepted = new Map<string, Parcel>();
  const network: FakeNetwork = {
    answers: [],
    accepted,
    held: [],
    now: START,
    calls: 0,
    asked: 0,
    isMute: false,
    readsPictures: false,
    keepsAll: false,
    takenDown: [],
    publish: async (parcel, { key, postId }, readPicture) => {
      network.calls++;
      if (network.readsPictures) for (const picture of parcel.pictures) await readPicture(picture);
      const answer = network.answers.shift() ?? { kind: 'accepted', address: `/standins/x/${key}` };
      if ((answer === 'acceptThenSilent' || answer.kind === 'accepted') && !accepted.has(key)) {
        accepted.set(key, parcel);
        const { words: _words, ...sent } = parcel;
        network.held.push({ key, postId, parcel: sent, at: network.now, address: `/standins/x/${key}` });
      }
      return answer === 'acceptThenSilent' ? { kind: 'unknown', words: 'no answer' } : answer;
    },
    find: async (_network, key) => {
      network.asked++;
      if (network.isMute) return { kind: 'unknown', words: 'silence' };
      return accepted.has(key) ? { kind: 'found', address: `/standins/x/${key}` } : { kind: 'notFound' };
    },
    takeDown: async (_network, key) => {
      if (network.isMute) return { kind: 'unknown', words: 'silence' };
      if (network.keepsAll) return { kind: 'cannot' };
      network.takenDown.push(key);
      return { kind: 'gone' };
    },
    heldSince: async ({ network: name, account }, since) => {
      if (network.isMute) return { kind: 'unknown', words: 'silence' };
      const ofAccount = network.held.filter(({ parcel }) => parcel.network === name && parcel.account === account);
      return { kind: 'told', posts: ofAccount.filter(({ at }) => at >= since) };
    },
    heldOf: async (_account, postId) =>
      network.isMute
        ? { kind: 'unknown', words: 'silence' }
        : { kind: 'told', posts: network.held.filter((post) => post.postId === postId) },
    pictureOf: async () => null,
  };
  return network;
}

/** What delivering needs, in this world. */
export const deliveryWork = (world: TestWorld, network: Network): DeliveryWork => ({
  db: world.db,
  clock: world.work.clock,
  ids: randomUUID,
  chance: () => 0,
  network,
  readPicture: async (picture) => ({ bytes: new Uint8Array(), picture }),
  keepPicture: async () => undefined,
  holder: { id: randomUUID(), stopped: () => [] },
});
