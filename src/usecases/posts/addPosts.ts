import { groupBy } from '@/core/group';
import type { PrepLine } from '@/core/prep/step';
import { readTitle } from '@/core/pieces/piece';
import { readPictures, readWords } from '@/core/posts/readPost';
import { blocksOf } from '@/core/posts/readiness';
import { dueInstant } from '@/core/time/plan';
import { listBrandsById } from '@/data/brands/brands';
import { listChannelsById } from '@/data/brands/channels';
import { insertPictures, type Picture } from '@/data/media/media';
import { insertPosts } from '@/data/posts/posts';
import { recountPiecesOf } from '../prep/countPrep';
import { givePrep, isTold, prepOfPost, type ToldStep } from '../prep/givePrep';
import { keepNumbers } from '../repeats/keepNumbers';
import { must, refused, type Acting } from '../useCase';

/** A post to be made, with the pictures it shares with others, and steps of its own where it shall not have those of its format. */
export type NewPost = Parameters<typeof insertPosts>[1][number] & {
  pictures?: readonly Picture[];
  prep?: readonly (PrepLine | ToldStep)[];
};

/** What a post made of another does not take over: what became of that one, and what it was signed off as. */
export const NOT_TAKEN_OVER = {
  publishedAt: null,
  address: '',
  repeatId: null,
  repeatNumber: null,
  signOff: null,
  encoreOf: null,
} as const;

/**
 * Adds posts with the prep of their formats, counted back from their days. What is published already gets none but those it is told to have. What must
 * hold of a post holds from the first: texts that can be kept, a time that exists, fit where it is called ready.
 */
export async function addPosts(act: Acting, posts: readonly NewPost[]): Promise<void> {
  if (posts.length === 0) return;
  const checked = (await checkPosts(act, posts)).map((post) => withOwnPictures(act, post));
  const createdBy = act.actorId ?? undefined;
  await insertPosts(
    act.tx,
    checked.map((post) => ({ ...post, ...(createdBy && { createdBy }) })),
  );
  await keepNumbers(
    act,
    checked.flatMap(({ repeatId }) => repeatId ?? []),
  );
  await insertPictures(
    act.tx,
    checked.flatMap(({ id: postId, brandId, pictures = [] }) =>
      pictures.map((picture) => ({ ...picture, postId, brandId, addedAt: act.now })),
    ),
  );
  for (const [brandId, own] of groupBy(checked, (post) => post.brandId)) {
    await givePrep(
      act,
      brandId,
      own
        .filter(({ stage, prep }) => prep?.some(isTold) || (stage !== 'published' && stage !== 'setAside'))
        .map(prepOfPost),
    );
    await recountPiecesOf(
      act.tx,
      brandId,
      own.map(({ id }) => id),
      act.now,
    );
  }
}

async function checkPosts(act: Acting, posts: readonly NewPost[]): Promise<NewPost[]> {
  const ids = <K extends 'channelId' | 'brandId'>(key: K) => [...new Set(posts.map((post) => post[key]))];
  const channels = new Map((await listChannelsById(act.tx, ids('channelId'))).map((channel) => [channel.id, channel]));
  const zones = new Map((await listBrandsById(act.tx, ids('brandId'))).map(({ id, zone }) => [id, zone]));
  return posts.map((post) => {
    const { sheet } = channels.get(post.channelId)!;
    const { pictures = [] } = post;
    must(readPictures(pictures));
    const read = { ...post, ...must(readWords(post, sheet)), title: must(readTitle(post.title)) };
    if (post.date !== null && post.time !== null && post.stage !== 'published')
      must(dueInstant(post.date, post.time, zones.get(post.brandId)!));
    const [missing] = post.stage === 'ready' ? blocksOf({ ...read, pictures }, sheet) : [];
    if (missing) refused({ code: 'blocked', field: missing.field, message: `Not ready yet. ${missing.message}` });
    if (post.stage === 'scheduled') throw new Error('a post is scheduled once it is there');
    return read;
  });
}

/** The post with rows of its own for the pictures it shares, shown by its parts as they are by those they were taken from. */
function withOwnPictures(act: Acting, post: NewPost): NewPost {
  if (!post.pictures?.length) return post;
  const ownId = new Map(post.pictures.map(({ id }) => [id, act.ids()]));
  return {
    ...post,
    pictures: post.pictures.map((picture) => ({ ...picture, id: ownId.get(picture.id)! })),
    ...(post.parts && {
      parts: post.parts.map((part) => ({
        ...part,
        pictureId: part.pictureId === null ? null : (ownId.get(part.pictureId) ?? null),
      })),
    }),
  };
}
