import type { Queryable } from '@/data/database/db';
import type { ChannelRhythm } from '@/core/rhythm/openings';
import { listRhythms } from '@/data/rhythm/rhythms';
import { windowOf } from './chooseMinutes';
import { listTakeDowns } from '@/data/delivery/takeDowns';
import type { TakenDown } from '@/core/delivery/takenDown';
import { listNamesOfRepeats } from '@/data/repeats/repeats';
import { groupBy } from '@/core/group';
import { slipOf, type Slip } from '@/core/calendar/slip';
import { mayBeOut } from '@/core/delivery/delivery';
import { differsFromParcel } from '@/core/delivery/parcel';
import { partsOf } from '@/core/posts/parts';
import type { PostSheet, SheetStep } from '@/core/posts/sheet';
import { neededOf } from '@/core/posts/wants';
import { signOffState } from '@/core/posts/signOff';
import { writtenOf } from '@/core/posts/written';
import type { Db } from '@/data/database/db';
import { listBrandsById, type Brand } from '@/data/brands/brands';
import { listChannelsById, type Channel } from '@/data/brands/channels';
import { listDeliveriesThatMatter, type Delivery } from '@/data/delivery/deliveries';
import { listPicturesOf, type Picture } from '@/data/media/media';
import { listPieceTitles } from '@/data/pieces/pieces';
import { listPostLines, type PostLine } from '@/data/posts/postLines';
import { countPublishedOfPieces, listPostsById, type Post } from '@/data/posts/posts';
import { holderOf, listStepsOf, type Step } from '@/data/prep/steps';

/** One post's slip as it stands now, if the post is there. */
export async function loadSlip(db: Db, id: string): Promise<Slip | undefined> {
  return (await loadSlips(db, [id]))[0];
}

/** The slips of posts as they stand now, in no order. */
export async function loadSlips(db: Db, ids: readonly string[]): Promise<Slip[]> {
  const posts = await listPostLines(db, ids);
  return slipsOf(posts, await listChannelsById(db, [...new Set(posts.map((post) => post.channelId))]));
}

/** The slips of those posts that the calendar shows: not deleted, archived or set aside. In no order. */
export async function loadShownSlips(db: Db, ids: readonly string[]): Promise<Slip[]> {
  const posts = await listPostLines(db, ids, { shown: true });
  return slipsOf(posts, await listChannelsById(db, [...new Set(posts.map((post) => post.channelId))]));
}

/** An open post, if it is there. A deleted one is given too, marked so. */
export async function loadSheet(db: Db, id: string): Promise<PostSheet | undefined> {
  return (await loadSheets(db, [id]))[0];
}

/** Open posts that are there, in the order asked for: as many statements as for one. */
export async function loadSheets(db: Db, ids: readonly string[]): Promise<PostSheet[]> {
  const posts = new Map((await listPostsById(db, ids)).map((post) => [post.id, post]));
  if (posts.size === 0) return [];
  const all = [...posts.values()];
  const each = (key: 'brandId' | 'pieceId') => [...new Set(all.map((post) => post[key]))];
  const [brands, pictures, deliveries, pieces, steps, said, repeats, takeDowns] = await Promise.all([
    listBrandsById(db, each('brandId')),
    listPicturesOf(db, ids),
    listDeliveriesThatMatter(db, ids),
    listPieceTitles(db, each('pieceId')),
    listStepsOf(db, [...ids, ...each('pieceId')]),
    countPublishedOfPieces(db, each('pieceId')),
    listNamesOfRepeats(
      db,
      all.flatMap(({ repeatId }) => repeatId ?? []),
    ),
    listTakeDowns(db, ids),
  ]);
  const channelIds = [...all, ...deliveries].map(({ channelId }) => channelId);
  const ground: SheetGround = {
    brands: new Map(brands.map((brand) => [brand.id, brand])),
    channels: new Map((await listChannelsById(db, [...new Set(channelIds)])).map((channel) => [channel.id, channel])),
    pictures: groupBy(pictures, ({ postId }) => postId),
    deliveries: groupBy(deliveries, ({ postId }) => postId),
    pieces,
    steps: groupBy(steps, holderOf),
    said,
    repeats,
    takeDowns,
    rhythms: await rhythmsFor(db, all),
  };
  return ids.flatMap((id) => {
    const post = posts.get(id);
    return post ? [sheetOf(post, ground)] : [];
  });
}

/** What the sheets of posts are made from, beside the posts. */
interface SheetGround {
  brands: ReadonlyMap<string, Brand>;
  channels: ReadonlyMap<string, Channel>;
  pictures: ReadonlyMap<string, readonly Picture[]>;
  deliveries: ReadonlyMap<string, readonly Delivery[]>;
  /** Titles of pieces by their ids. */
  pieces: Readonly<Record<string, string>>;
  steps: ReadonlyMap<string, readonly Step[]>;
  said: ReadonlyMap<string, number>;
  repeats: Awaited<ReturnType<typeof listNamesOfRepeats>>;
  takeDowns: ReadonlyMap<string, TakenDown>;
  rhythms: ReadonlyMap<string, ChannelRhythm>;
}

function sheetOf(post: Post, ground: SheetGround): PostSheet {
  const { id } = post;
  const channel = ground.channels.get(post.channelId)!;
  const pictures = ground.pictures.get(id) ?? [];
  const ofPost = ground.deliveries.get(id) ?? [];
  const delivery = ofPost.find(({ state }) => state !== 'withdrawn');
  const [steps, ofPiece] = [ground.steps.get(id) ?? [], ground.steps.get(post.pieceId) ?? []];
  return {
    id,
    pieceId: post.pieceId,
    pieceTitle: ground.pieces[post.pieceId] ?? '',
    pieceSaid: ground.said.get(post.pieceId) ?? 0,
    channelId: post.channelId,
    format: post.format,
    title: post.title,
    ...writtenOf(post),
    parts: partsOf({ ...post, pictures }, channel.sheet),
    date: post.date,
    time: post.time,
    window: windowOfSheet(post, ground),
    stage: post.stage,
    setAsideReason: post.setAsideReason,
    ownerId: post.ownerId,
    pillarId: post.pillarId,
    campaignId: post.campaignId,
    repeat: repeatOf(post, ground),
    publishedAt: post.publishedAt,
    address: post.address,
    takenDown: ground.takeDowns.get(id) ?? null,
    version: post.version,
    deleted: post.deletedAt !== null,
    archived: post.archivedAt !== null,
    pictures: pictures.map(({ postId: _post, position: _position, ...picture }) => picture),
    steps: steps.map(sheetStep),
    pieceNeeds: neededOf(ofPiece).map((step) => ({ id: step.id, title: step.title, ofPiece: true })),
    drafted: post.drafted,
    isBehind: post.madeOf !== null,
    waived: post.waived,
    signOff: {
      state: signOffState(ground.brands.get(post.brandId)!.asksSignOff, post.signOff, { ...post, pictures }),
      last: post.signOff && { by: post.signOff.by, at: post.signOff.at },
    },
    maybeOut: maybeOutOf(ofPost.filter(mayBeOut), ground.channels),
    notSent: post.notSent && {
      words: post.notSent.copy.words,
      format: post.notSent.copy.format,
      pictures: post.notSent.copy.pictures.length,
    },
    delivery: delivery
      ? {
          mode: delivery.mode,
          state: delivery.state,
          unsure: delivery.unsure,
          attempts: delivery.attempts,
          dueAt: delivery.dueAt,
          nextTryAt: delivery.nextTryAt,
          words: delivery.words,
          copiedAt: delivery.createdAt,
          isPractice: delivery.isPractice,
          awaitsRelease: delivery.awaitsRelease,
          differs: post.stage === 'scheduled' && differsFromParcel({ ...post, pictures }, delivery.parcel),
          copy: delivery.parcel.words,
        }
      : null,
  };
}

/** The rhythms of posts whose windows they may say; none where none of the posts is still to be scheduled. */
async function rhythmsFor(db: Queryable, posts: readonly Post[]): Promise<ReadonlyMap<string, ChannelRhythm>> {
  const brandIds = posts.flatMap(({ time, stage, brandId }) =>
    time === null || stage === 'scheduled' || stage === 'published' ? [] : brandId,
  );
  if (brandIds.length === 0) return new Map();
  const rhythms = await listRhythms(db, [...new Set(brandIds)]);
  return new Map(rhythms.map((rhythm) => [rhythm.channelId, rhythm]));
}

function windowOfSheet(post: Post, { brands, channels, rhythms }: SheetGround): PostSheet['window'] {
  if (post.windowFrom !== null && post.until !== null)
    return { from: post.windowFrom, until: post.until, isChosen: true };
  const [brand, channel] = [brands.get(post.brandId)!, channels.get(post.channelId)!];
  const window = post.stage === 'published' ? null : windowOf({ post, brand, channel }, rhythms);
  return window && { ...window, isChosen: false };
}

function repeatOf({ repeatId, repeatNumber }: Post, { repeats }: SheetGround): PostSheet['repeat'] {
  const repeat = repeatId === null ? undefined : repeats.get(repeatId);
  return repeat ? { ...repeat, number: repeatNumber! } : null;
}

function maybeOutOf(deliveries: readonly Delivery[], channels: SheetGround['channels']): PostSheet['maybeOut'] {
  return deliveries.map(({ channelId, parcel, unsureSince, attempts, askAt, state }) => ({
    network: parcel.network,
    networkName: channels.get(channelId)!.sheet.name,
    since: unsureSince!,
    isTried: attempts > 0,
    isAsked: askAt !== null || state === 'waiting' || state === 'sending',
  }));
}

/** A step as sheets and piece pages show it. */
export const sheetStep = ({
  brandId: _brand,
  postId: _post,
  pieceId: _piece,
  position: _position,
  doneAt: _at,
  ...step
}: Step): SheetStep => step;

/** The slips of posts, those of archived channels left out. */
export function slipsOf(posts: readonly PostLine[], channels: readonly Channel[]): Slip[] {
  const byId = new Map(channels.map((channel) => [channel.id, channel]));
  return posts.flatMap((post) => {
    const channel = byId.get(post.channelId);
    return channel ? [slipOf(post, channel)] : [];
  });
}
