import { isLeaving } from '@/core/delivery/delivery';
import { blocksOf } from '@/core/posts/readiness';
import type { MoveFacts } from '@/core/stages/moves';
import { oneBrand, type Brand } from '@/data/brands';
import { oneChannel, type Channel } from '@/data/channels';
import { maybeDeliveryOfPost, type Delivery } from '@/data/deliveries';
import { listPictures, type Picture } from '@/data/media';
import { maybePostForUpdate, updatePost, type Post, type PostChange } from '@/data/posts';
import { listStepsOf } from '@/data/steps';
import { signOffState } from '@/core/posts/signOff';
import { neededOf, wantsOf } from '@/core/posts/wants';
import { recount, recountPiecesOf } from './counting';
import { mustWorkFor, notFound, refused, STALE, type Doing } from './work';

/** A post with all that decides about it. */
export interface OpenPost {
  post: Post;
  brand: Brand;
  channel: Channel;
  pictures: Picture[];
  delivery: Delivery | undefined;
  facts: MoveFacts;
}

/** Takes a post for a change: it is there, the actor works for its brand, and nobody else writes to it meanwhile. */
export async function takePost(act: Doing, id: string, options: { deleted?: boolean } = {}): Promise<OpenPost> {
  const post = await maybePostForUpdate(act.tx, id);
  if (!post || (post.deletedAt !== null && !options.deleted)) refused(notFound('post'));
  await mustWorkFor(act, post.brandId);
  const brand = await oneBrand(act.tx, post.brandId);
  const channel = await oneChannel(act.tx, post.channelId);
  const pictures = await listPictures(act.tx, id);
  const delivery = await maybeDeliveryOfPost(act.tx, id);
  const steps = await listStepsOf(act.tx, [id]);
  const facts: MoveFacts = {
    stage: post.stage,
    blocks: blocksOf({ ...post, pictures }, channel.sheet),
    wants: wantsOf(
      {
        pictures,
        neededSteps: neededOf(steps),
        signOff: signOffState(brand.asksSignOff, post.signOff, { ...post, pictures }),
      },
      post.waived,
    ),
    date: post.date,
    time: post.time,
    zone: brand.zone,
    now: act.now,
    leaving: isLeaving(delivery ?? null),
  };
  return { post, brand, channel, pictures, delivery, facts };
}

/** Takes a post for a change that was decided looking at a certain version of it. */
export async function takePostAt(act: Doing, id: string, version: number): Promise<OpenPost> {
  const open = await takePost(act, id);
  if (open.post.version !== version) refused(STALE);
  return open;
}

/** What of a post moves the own steps of its piece. */
const FOR_THE_PIECE = ['date', 'deletedAt', 'stage'] as const;

/** Writes a change to a taken post and a line of history. A new day counts its steps anew. */
export async function changePost(
  act: Doing,
  { post }: Pick<OpenPost, 'post'>,
  change: PostChange,
  deed: string,
  detail: object = {},
): Promise<void> {
  if (!(await updatePost(act.tx, post.id, post.version, change))) refused(STALE);
  if (change.date !== undefined && change.date !== post.date)
    await recount(act.tx, post.brandId, [post.id], act.now, { isReplanned: true });
  if (FOR_THE_PIECE.some((field) => change[field] !== undefined && change[field] !== post[field]))
    await recountPiecesOf(act.tx, post.brandId, [post.id], act.now);
  await act.note({ brandId: post.brandId, subject: 'post', subjectId: post.id, deed, detail });
}
