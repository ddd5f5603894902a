import type { HeldPost } from '@/core/delivery/network';
import { wordsOfHeld } from '@/core/delivery/heldWords';
import { AS_IT_IS } from '@/core/media/fit';
import { titleFrom } from '@/core/pieces/piece';
import { localOf } from '@/core/time/plan';
import { oneBrand } from '@/data/brands/brands';
import { oneChannel, type Channel } from '@/data/brands/channels';
import type { Queryable } from '@/data/database/db';
import { maybeDeliveryByKey } from '@/data/delivery/deliveries';
import { insertTaken } from '@/data/delivery/doubts';
import { countTakenOver } from '@/data/delivery/restores';
import { listPeopleOfBrand } from '@/data/people/people';
import { insertPieces } from '@/data/pieces/pieces';
import { maybePost, type Post } from '@/data/posts/posts';
import { lockPosts } from '@/data/posts/lockPosts';
import { addPosts, NOT_TAKEN_OVER } from '../posts/addPosts';
import { takePost } from '../posts/takePosts';
import { changePost } from '../posts/writePosts';
import type { Acting } from '../useCase';
import { pictureOf, publishCopy, whatLeft } from './publish';

/** How the folder knows what a network holds: `old` where it never sent it, as only a folder does not that is older than what ran last. */
type Knowledge = 'settled' | 'open' | 'old';

/** How the folder knows what an account holds: an account may be that of several channels, also of several brands. */
export async function knowledgeOf(db: Queryable, { key }: HeldPost): Promise<Knowledge> {
  const copy = await maybeDeliveryByKey(db, key);
  if (!copy) return 'old';
  if (copy.tookAt !== null) return 'settled';
  // Every try is written down before the network is called.
  return copy.attempts === 0 ? 'old' : 'open';
}

/**
 * Takes over what a network holds of this house, as published, with its real words and time: under a key that is known, the copy
 * that left; under another, the words as the network has them; of a post that is not there, a post of its own. What was taken over
 * before stays as it is.
 *
 * @param asked the channel whose account holds it; a post of another channel of that account, or of another brand, stays on its own
 * @returns whether something was taken over
 */
export async function takeOver(act: Acting, asked: Channel, held: HeldPost): Promise<boolean> {
  const copy = await maybeDeliveryByKey(act.tx, held.key);
  if (copy && copy.tookAt !== null) return false;
  const post = await maybePost(act.tx, copy?.postId ?? held.postId);
  if (post) await lockPosts(act.tx, [post.id]);
  if (copy && !(await publishCopy(act, copy, held))) return false;
  if (!copy) await publishHeld(act, await channelOf(act, post, asked), post, held);
  await countTakenOver(act.tx, post?.brandId ?? asked.brandId);
  return true;
}

/** The channel on which a post is taken over from the account of one that was asked. */
async function channelOf({ tx }: Acting, post: Post | undefined, asked: Channel): Promise<Channel> {
  if (!post || post.channelId === asked.id) return asked;
  const own = await oneChannel(tx, post.channelId);
  const isOfAccount = own.sheet.slug === asked.sheet.slug && own.account === asked.account;
  return isOfAccount || own.brandId !== asked.brandId ? own : asked;
}

/** Publishes a post as a network holds it, under a key that is not known here. */
async function publishHeld(act: Acting, channel: Channel, post: Post | undefined, held: HeldPost): Promise<void> {
  const { brandId } = channel;
  if (!post) await makeHeld(act, channel, held);
  else if (post.stage !== 'published') {
    const open = await takePost(act, post.id, 'send', { deleted: true });
    // A picture of the post itself is known by its id, which goes with it: what the network has is what that one came to.
    const pictures = held.parcel.pictures.map(
      (picture) => open.pictures.find(({ id }) => id === picture.id) ?? picture,
    );
    const parcel = { ...held.parcel, pictures, words: wordsOfHeld(held.parcel, channel.sheet) };
    await changePost(act, {
      open,
      change: {
        ...whatLeft(act, open, { parcel, channelId: channel.id }),
        ...localOf(held.at, open.brand.zone),
        stage: 'published',
        stageBefore: null,
        setAsideReason: '',
        deletedAt: null,
        publishedAt: held.at,
        address: held.address,
      },
      out: 'told',
      deed: 'published',
      detail: { address: held.address },
    });
  } else
    await act.note({
      brandId,
      subject: 'post',
      subjectId: held.postId,
      deed: 'out besides',
      detail: { at: held.at, address: held.address },
    });
  const parcel = { ...held.parcel, words: wordsOfHeld(held.parcel, channel.sheet) };
  const taken = { brandId, channelId: channel.id, postId: held.postId, parcel, tookAt: held.at, createdAt: act.now };
  await insertTaken(act.tx, { ...taken, id: act.ids(), idempotencyKey: held.key });
}

/** Makes a post, and a piece for it, of what a network holds and the folder knows nothing of. */
async function makeHeld(act: Acting, channel: Channel, { postId, at, address, parcel }: HeldPost): Promise<void> {
  const { brandId } = channel;
  const [brand, people] = [await oneBrand(act.tx, brandId), await listPeopleOfBrand(act.tx, brandId)];
  const owner = people.find(({ role }) => role === 'manager') ?? people[0];
  if (!owner) throw new Error('a brand without people has published something');
  const words = wordsOfHeld(parcel, channel.sheet);
  const title = titleFrom(words.headline || words.caption) || `Post on ${channel.name}`;
  const pieceId = act.ids();
  const piece = { id: pieceId, brandId, title, note: '', link: '', sourceText: '', ownerId: owner.id };
  await insertPieces(act.tx, [{ ...piece, createdAt: act.now }]);
  await addPosts(act, [
    {
      ...words,
      ...NOT_TAKEN_OVER,
      ...localOf(at, brand.zone),
      parts: words.parts ? [...words.parts] : [],
      id: postId,
      brandId,
      pieceId,
      channelId: channel.id,
      format: parcel.format,
      title,
      stage: 'published',
      ownerId: owner.id,
      publishedAt: at,
      address,
      createdAt: act.now,
      pictures: parcel.pictures.map((picture, index) =>
        pictureOf(act, { recipe: AS_IT_IS, ...picture }, postId, index),
      ),
    },
  ]);
  await act.note({ brandId, subject: 'post', subjectId: postId, deed: 'found on its network', detail: { address } });
}
