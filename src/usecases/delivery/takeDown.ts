import { quoted } from '@/core/calendar/change';
import type { Network } from '@/core/delivery/network';
import { readTakeDownReason, type TakenDown } from '@/core/delivery/takenDown';
import type { Result } from '@/core/refusal';
import { maybeDeliveryOfPost } from '@/data/delivery/deliveries';
import { finishTakeDown, insertTakeDown, listTakeDowns } from '@/data/delivery/takeDowns';
import { maybePost } from '@/data/posts/posts';
import { mayRead } from '../rights/mustMay';
import { takePostAt, type OpenPost } from '../posts/takePosts';
import { noteChange } from '../undo/noteChange';
import { doing, notFound, refused, type Doing, type Work } from '../useCase';

/**
 * Takes a published post down. Its network is asked to where Bimlo sent it; where that cannot be, or a person posted it, a person is to do
 * it and is reminded until they say that it is gone. A network that gives no answer changes nothing: asking again does no harm.
 */
export async function takeDown(
  work: Work & { network: Network },
  postId: string,
  version: number,
  reasonTyped: string,
): Promise<Result<{ way: TakenDown['way'] }>> {
  const reason = readTakeDownReason(reasonTyped);
  if (!reason.ok) return reason;
  const post = await maybePost(work.db, postId);
  if (!post) return { ok: false, refusal: notFound('post') };
  const allowed = await mayRead(work, 'send', post.brandId);
  if (!allowed.ok) return allowed;
  // What may not be is refused before anything is asked of a network.
  const checked = await doing(work, async (act) => void (await takePublished(act, postId, version)));
  if (!checked.ok) return checked;
  const way = await askNetwork(work, postId);
  if (!way.ok) return way;
  return doing(work, async (act) => {
    const { post: taken } = await takePublished(act, postId, version);
    const isDone = way.value === 'network';
    await insertTakeDown(act.tx, {
      ...{ postId, brandId: taken.brandId, askedBy: act.actorId, askedAt: act.now },
      ...{ reason: reason.value, way: way.value, doneAt: isDone ? act.now : null },
    });
    await note(act, taken, isDone ? 'taken down' : 'to be taken down', {
      label: `${isDone ? 'Took down' : 'Asked to take down'} ${quoted(taken.title)}`,
      reason: reason.value,
    });
    return { way: way.value };
  });
}

/** Says that a post is gone from its network, which a person saw to. */
export function sayTakenDown(work: Work, postId: string, version: number): Promise<Result<true>> {
  return doing(work, async (act) => {
    const { post } = await takePostAt(act, postId, version, 'send');
    if (!(await finishTakeDown(act.tx, postId, act.now)))
      refused({ code: 'notToBeTakenDown', message: 'It is not waiting to be taken down.' });
    await note(act, post, 'taken down', { label: `Said that ${quoted(post.title)} is taken down` });
    return true as const;
  });
}

/** A post that can be taken down: it is published, and that was not said of it yet. */
async function takePublished(act: Doing, postId: string, version: number): Promise<OpenPost> {
  const open = await takePostAt(act, postId, version, 'send');
  if (open.post.stage !== 'published')
    refused({ code: 'notPublished', message: 'It is not published, so there is nothing to take down.' });
  if ((await listTakeDowns(act.tx, [postId])).size > 0)
    refused({ code: 'takenDown', message: 'It is taken down already, or waits for a person to do it.' });
  return open;
}

/** Asks the network that Bimlo sent a post to. @returns who has taken it down, or has to */
async function askNetwork(
  { db, network }: Pick<Work, 'db'> & { network: Network },
  postId: string,
): Promise<Result<TakenDown['way']>> {
  const delivery = await maybeDeliveryOfPost(db, postId);
  if (delivery?.mode !== 'automatic' || delivery.state !== 'sent') return { ok: true, value: 'byHand' };
  const answer = await network.takeDown(delivery.parcel.network, delivery.idempotencyKey);
  switch (answer.kind) {
    case 'gone':
      return { ok: true, value: 'network' };
    case 'cannot':
      return { ok: true, value: 'byHand' };
    case 'unknown':
      return {
        ok: false,
        refusal: { code: 'noAnswer', message: `Not taken down yet: ${answer.words}. Try again.` },
      };
  }
}

async function note(
  act: Doing,
  post: { id: string; brandId: string },
  deed: string,
  { label, ...detail }: { label: string; reason?: string },
): Promise<void> {
  await act.note({ brandId: post.brandId, subject: 'post', subjectId: post.id, deed, detail });
  await noteChange(act, {
    ...{ brandId: post.brandId, label, items: [] },
    final: 'What was published and taken down cannot be put back. Use it again instead.',
  });
}
