import { isLeaving } from '@/core/delivery/delivery';
import { groupBy } from '@/core/group';
import { blocksOf } from '@/core/posts/readiness';
import { allowsOf, may, type Deed } from '@/core/rights/may';
import { signOffState } from '@/core/posts/signOff';
import { unreadOf } from '@/core/posts/unread';
import { neededOf, wantsOf } from '@/core/posts/wants';
import { refuse, type Refusal, type Result } from '@/core/refusal';
import type { MoveFacts } from '@/core/stages/moves';
import type { Instant } from '@/core/time/plan';
import type { Brand } from '@/data/brands/brands';
import type { Channel } from '@/data/brands/channels';
import type { Delivery } from '@/data/delivery/deliveries';
import type { Picture } from '@/data/media/media';
import {
  lockDeliveriesOf,
  lockPosts,
  readSurroundings,
  type PostSurroundings,
  type ReadinessStep,
} from '@/data/posts/lockPosts';
import type { Post } from '@/data/posts/posts';
import { must, NOT_YOURS, notFound, refused, STALE, type Acting } from '../useCase';

/** A post with all that decides about it, locked until the transaction ends. */
export interface OpenPost {
  post: Post;
  /** The title of its piece. */
  pieceTitle: string;
  brand: Brand;
  channel: Channel;
  pictures: Picture[];
  steps: ReadinessStep[];
  /** Its current delivery. */
  delivery: Delivery | undefined;
  /** Earlier deliveries that were withdrawn and may be out all the same. */
  maybeOut: Delivery[];
  facts: MoveFacts;
  /** Whether who acts may do something of its brand. */
  may(deed: Deed): Result<true>;
}

/**
 * Takes posts for a change: they are there, who acts may do that of their brands, and nobody else writes to them meanwhile.
 * First the posts are locked, then their deliveries; everybody who locks both does it in this order. However many they
 * are, it takes three statements.
 *
 * @param deed what is to be done with them
 * @returns by id, each post or why it was not taken
 */
export async function takePosts(
  act: Acting,
  ids: readonly string[],
  deed: Deed,
  options: { deleted?: boolean } = {},
): Promise<Map<string, Result<OpenPost>>> {
  const posts = new Map((await lockPosts(act.tx, ids)).map((post) => [post.id, post]));
  const present = [...posts.keys()];
  const deliveries = groupBy(await lockDeliveriesOf(act.tx, present), ({ postId }) => postId);
  const surroundings = new Map(
    (await readSurroundings(act.tx, present, act.actorId)).map((around) => [around.id, around]),
  );
  const taken = new Map<string, Result<OpenPost>>();
  for (const id of ids) {
    const post = posts.get(id);
    const around = surroundings.get(id);
    if (!post || !around || (post.deletedAt !== null && !options.deleted))
      taken.set(id, { ok: false, refusal: notFound('post') });
    else {
      const mayDo = asker(act, around);
      const allowed = mayDo(deed);
      if (!allowed.ok) {
        taken.set(id, allowed);
        continue;
      }
      const own = deliveries.get(id) ?? [];
      const open = {
        ...around,
        post,
        delivery: own.find(({ state }) => state !== 'withdrawn'),
        maybeOut: own.filter(({ state }) => state === 'withdrawn'),
      };
      taken.set(id, { ok: true, value: { ...open, facts: factsOf(open, act.now), may: mayDo } });
    }
  }
  return taken;
}

/** What who acts may do of a post's brand; Bimlo itself may. */
function asker({ actorId }: Acting, { role, isTheirs, brand }: PostSurroundings): OpenPost['may'] {
  const actor = role && { role, brandIds: isTheirs ? [brand.id] : [] };
  const subject = { brandId: brand.id, allows: allowsOf(brand) };
  return (deed) => (actorId !== null && !actor ? { ok: false, refusal: NOT_YOURS } : may(actor, deed, subject));
}

/** Takes a post for a change. @param deed what is to be done with it */
export async function takePost(
  act: Acting,
  id: string,
  deed: Deed,
  options: { deleted?: boolean } = {},
): Promise<OpenPost> {
  return must((await takePosts(act, [id], deed, options)).get(id)!);
}

/** Takes a post for a change that was decided looking at a certain version of it. @param deed what is to be done with it */
export async function takePostAt(act: Acting, id: string, version: number, deed: Deed): Promise<OpenPost> {
  const open = await takePost(act, id, deed);
  if (open.post.version !== version) refused(STALE);
  return open;
}

/** What moves of a post depend on. Blocks and wants are worked out when they are asked for: a move by a day asks for neither. */
export function factsOf(
  open: Pick<OpenPost, 'post' | 'brand' | 'channel' | 'pictures' | 'steps' | 'delivery'>,
  now: Instant,
): MoveFacts {
  const { post, brand, channel, pictures, steps, delivery } = open;
  let blocks: MoveFacts['blocks'] | undefined;
  let wants: MoveFacts['wants'] | undefined;
  return {
    stage: post.stage,
    get blocks() {
      return (blocks ??= blocksOf({ ...post, pictures }, channel.sheet));
    },
    get wants() {
      return (wants ??= wantsOf(
        {
          pictures,
          neededSteps: neededOf(steps),
          signOff: signOffState(brand.asksSignOff, post.signOff, { ...post, pictures }),
          unread: unreadOf(post, post.drafted).length,
        },
        post.waived,
      ));
    },
    date: post.date,
    time: post.time,
    until: post.until,
    zone: brand.zone,
    now,
    leaving: isLeaving(delivery ?? null),
  };
}

/** The refusal of a change to what is leaving right now. */
export const LEAVING: Refusal = {
  code: 'leaving',
  message: 'This post is leaving right now. Wait until the network has answered, then look again.',
};

/** The refusal of changes to what is published. */
export const refusePublished = (): Result<never> =>
  refuse('published', 'This post is published. What is published stays as it was; it can be archived.');
