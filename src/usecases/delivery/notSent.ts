import { quoted } from '@/core/calendar/change';
import { blocksOf } from '@/core/posts/readiness';
import { refuse, type Result } from '@/core/refusal';
import { localOf } from '@/core/time/plan';
import { maybeChannel } from '@/data/brands/channels';
import { addPosts, NOT_TAKEN_OVER, type NewPost } from '../posts/addPosts';
import { takePostAt, type OpenPost } from '../posts/takePosts';
import { pictureOf } from './publish';
import { doing, must, notFound, refused, type Work } from '../useCase';
import { changePost } from '../posts/writePosts';
import { changedPost, madePosts, noteChange } from '../undo/noteChange';

/** Leaves a published post as it went out: the words that did not leave are let go. They stay among its versions. */
export function leaveAsSent(work: Work, postId: string, version: number): Promise<Result<true>> {
  return doing(work, async (act) => {
    const open = await takePostAt(act, postId, version, 'send');
    notSentOf(open);
    const undoneAs = `Kept what was sent of ${quoted(open.post.title)}`;
    await changePost(act, { open, change: { notSent: null }, deed: 'left as it went out', undoneAs });
    return true as const;
  });
}

/**
 * Makes a post of its own out of the words that did not leave with a published post, so that they can be sent too. It is
 * ready where its channel takes it, and keeps its plan where that is still to come.
 *
 * @returns the new post's id
 */
export function sendAnew(work: Work, postId: string, version: number): Promise<Result<{ postId: string }>> {
  return doing(work, async (act) => {
    const open = await takePostAt(act, postId, version, 'send');
    const { post, brand } = open;
    const { channelId, copy, date, time } = notSentOf(open);
    const channel = (await maybeChannel(act.tx, channelId)) ?? refused(notFound('channel'));
    const id = act.ids();
    const pictures = copy.pictures.map((picture, index) => pictureOf(act, picture, id, index));
    const words = { ...copy.words, parts: copy.words.parts ?? [], format: copy.format };
    const isToCome = date !== null && date >= localOf(act.now, brand.zone).date;
    const isFit = blocksOf({ ...words, pictures }, channel.sheet).length === 0;
    const made: NewPost = {
      ...post,
      ...words,
      id,
      channelId,
      date: isToCome ? date : null,
      time: isToCome ? time : null,
      stage: isFit ? 'ready' : 'production',
      ...NOT_TAKEN_OVER,
      createdAt: act.now,
      pictures,
    };
    await addPosts(act, [made]);
    await changePost(act, { open, change: { notSent: null }, deed: 'sent anew', detail: { as: id } });
    await noteChange(act, {
      ...{ brandId: post.brandId, label: `Made a post of what was not sent of ${quoted(post.title)}` },
      items: [changedPost(post, { ...post, notSent: null }), ...madePosts([id])],
    });
    await act.note({ brandId: post.brandId, subject: 'post', subjectId: id, deed: 'made of what was not sent' });
    return { postId: id };
  });
}

const notSentOf = ({ post }: OpenPost) =>
  post.notSent ?? must(refuse('nothing', 'It went out as its sheet shows it: there is nothing to decide.'));
