import { HOLD_AFTER_MS, isLeaving } from '@/core/delivery/delivery';
import type { ParcelPicture } from '@/core/delivery/network';
import { sentWordsOf, differsFromParcel, makeParcel } from '@/core/delivery/parcel';
import { AS_IT_IS } from '@/core/media/fit';
import { localOf, msBetween, type Instant } from '@/core/time/plan';
import type { Delivery } from '@/data/delivery/deliveries';
import { noteAccepted, noteOut } from '@/data/delivery/doubts';
import type { Picture } from '@/data/media/media';
import { factsOf, takePost, type OpenPost } from '../posts/takePosts';
import type { Acting } from '../useCase';
import type { PostWrite } from '../posts/checkWrites';
import { changePost } from '../posts/writePosts';

/**
 * Writes that a copy of a post is out, whatever was done to the post or the copy since it was made: the post is published with the
 * words, pictures and plan that left, on the channel they left on. What stood on its sheet instead is kept beside it, and a
 * copy that waits to leave is withdrawn. A post that was published otherwise stays as it is, and the history says both.
 *
 * @returns whether it was written; not, while another copy of the post is being sent: then this one stays unsure
 */
export async function publishCopy(
  act: Acting,
  left: Pick<Delivery, 'id' | 'postId' | 'parcel' | 'channelId' | 'dueAt'>,
  out: { at: Instant; address: string },
): Promise<boolean> {
  const { id, postId } = left;
  const taken = await takePost(act, postId, 'send', { deleted: true });
  const { delivery, post } = taken;
  const isCurrent = delivery?.id === id;
  if (isCurrent && delivery.state === 'sent') return true;
  await noteAccepted(act.tx, id, out.at, act.now);
  if (delivery && !isCurrent && isLeaving(delivery)) return false;
  const now = isCurrent ? { ...taken, delivery: { ...delivery, state: 'sent' as const, unsure: false } } : taken;
  const open = { ...now, facts: factsOf(now, act.now) };
  if (post.stage === 'published')
    await act.note({ brandId: post.brandId, subject: 'delivery', subjectId: id, deed: 'out besides', detail: out });
  else {
    // What left about when it was due keeps its planned minute.
    const isOnTime = Math.abs(msBetween(left.dueAt, out.at)) <= HOLD_AFTER_MS;
    const placeLeft = localOf(isOnTime ? left.dueAt : out.at, open.brand.zone);
    await changePost(act, {
      open,
      change: {
        ...whatLeft(act, open, left),
        ...placeLeft,
        stage: 'published',
        stageBefore: null,
        setAsideReason: '',
        deletedAt: null,
        publishedAt: out.at,
        address: out.address,
      },
      out: 'told',
      deed: 'published',
      detail: { address: out.address },
    });
  }
  if (!isCurrent) await noteOut(act.tx, id, out.at);
  return true;
}

/** The words, pictures and channel of a copy that left, and what stood on the sheet instead; nothing where they are the same. */
export function whatLeft(
  act: Pick<Acting, 'ids'>,
  { post, pictures, channel }: OpenPost,
  { parcel, channelId }: Pick<Delivery, 'parcel' | 'channelId'>,
): PostWrite['change'] {
  if (channelId === post.channelId && !differsFromParcel({ ...post, pictures }, parcel)) return {};
  return {
    ...sentWordsOf(parcel.words),
    format: parcel.format,
    channelId,
    pictures: parcel.pictures.map((picture, index) => pictureOf(act, picture, post.id, index)),
    notSent: {
      channelId: post.channelId,
      date: post.date,
      time: post.time,
      copy: makeParcel({ ...post, pictures }, channel),
    },
  };
}

/** A picture of a copy as a picture of its post. */
export function pictureOf(
  { ids }: Pick<Acting, 'ids'>,
  picture: ParcelPicture,
  postId: string,
  index: number,
): Picture {
  const { id = ids(), sha256, mime, alt, fileName, bytes, width = 0, height = 0 } = picture;
  const { durationMs = null, recipe = AS_IT_IS } = picture;
  return { id, postId, position: index + 1, sha256, mime, alt, fileName, bytes, width, height, durationMs, ...recipe };
}
