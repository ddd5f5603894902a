import { slipOf, type Slip } from '@/core/calendar/slip';
import { mayBeOut } from '@/core/delivery/delivery';
import { differsFromParcel } from '@/core/delivery/parcel';
import { partsOf } from '@/core/posts/parts';
import type { PostSheet, SheetStep } from '@/core/posts/sheet';
import { neededOf } from '@/core/posts/wants';
import { signOffState } from '@/core/posts/signOff';
import { writtenOf } from '@/core/posts/written';
import type { Db } from '@/data/database/db';
import { oneBrand } from '@/data/brands/brands';
import { listChannelsById, oneChannel, type Channel } from '@/data/brands/channels';
import { maybeDeliveryOfPost, type Delivery } from '@/data/delivery/deliveries';
import { listMaybeOut } from '@/data/delivery/doubts';
import { listPictures } from '@/data/media/media';
import { maybePiece } from '@/data/pieces/pieces';
import { listPostLines, type PostLine } from '@/data/posts/postLines';
import { countPublishedOfPiece, maybePost } from '@/data/posts/posts';
import { listStepsOf, type Step } from '@/data/prep/steps';

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
  const post = await maybePost(db, id);
  if (!post) return undefined;
  const [brand, channel, pictures, delivery, withdrawn, piece, steps, pieceSaid] = await Promise.all([
    oneBrand(db, post.brandId),
    oneChannel(db, post.channelId),
    listPictures(db, id),
    maybeDeliveryOfPost(db, id),
    listMaybeOut(db, id),
    maybePiece(db, post.pieceId),
    listStepsOf(db, [id, post.pieceId]),
    countPublishedOfPiece(db, post.pieceId),
  ]);
  return {
    id,
    pieceId: post.pieceId,
    pieceTitle: piece?.title ?? '',
    pieceSaid,
    channelId: post.channelId,
    format: post.format,
    title: post.title,
    ...writtenOf(post),
    parts: partsOf({ ...post, pictures }, channel.sheet),
    date: post.date,
    time: post.time,
    stage: post.stage,
    setAsideReason: post.setAsideReason,
    ownerId: post.ownerId,
    pillarId: post.pillarId,
    campaignId: post.campaignId,
    seriesNumber: post.seriesNumber,
    publishedAt: post.publishedAt,
    address: post.address,
    version: post.version,
    deleted: post.deletedAt !== null,
    archived: post.archivedAt !== null,
    pictures: pictures.map(({ postId: _post, position: _position, ...picture }) => picture),
    steps: steps.filter(({ postId }) => postId === id).map(sheetStep),
    pieceNeeds: neededOf(steps)
      .filter(({ postId }) => postId === null)
      .map((step) => ({ id: step.id, title: step.title, ofPiece: true })),
    drafted: post.drafted,
    waived: post.waived,
    signOff: {
      state: signOffState(brand.asksSignOff, post.signOff, { ...post, pictures }),
      last: post.signOff && { by: post.signOff.by, at: post.signOff.at },
    },
    maybeOut: await maybeOutOf(db, [...(delivery ? [delivery] : []), ...withdrawn].filter(mayBeOut)),
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

async function maybeOutOf(db: Db, deliveries: readonly Delivery[]): Promise<PostSheet['maybeOut']> {
  if (deliveries.length === 0) return [];
  const channels = new Map(
    (
      await listChannelsById(
        db,
        deliveries.map(({ channelId }) => channelId),
      )
    ).map((channel) => [channel.id, channel]),
  );
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
