import { localOf, type Instant } from '@/core/time/plan';
import { makeParcel } from '@/core/delivery/parcel';
import { isWebLink } from '@/core/posts/readiness';
import { mayLeavePlan, mayPublishNow, maySchedule } from '@/core/stages/moves';
import type { Result } from '@/core/refusal';
import { closeDelivery, insertDeliveries, makeDueNow, maybeUnsureKey, withdrawDelivery } from '@/data/deliveries';
import { changePost, takePost, takePostAt, type OpenPost } from './posts';
import { doing, must, refused, type Doing, type Work } from './work';

/**
 * Schedules a post for its date and time: text, pictures, link and due instant are copied into its delivery, and only that
 * copy is sent. Scheduling again takes a new copy.
 */
export function schedulePost(work: Work, id: string, version: number): Promise<Result<{ dueAt: Instant }>> {
  return doing(work, async (act) => {
    const open = await takePostAt(act, id, version);
    const dueAt = must(maySchedule(open.facts));
    await copyIntoDelivery(act, open, dueAt);
    await changePost(act, open, { stage: 'scheduled' }, 'scheduled', { dueAt });
    return { dueAt };
  });
}

/** Schedules a post for this very moment; its date and time become now. */
export function publishNow(work: Work, id: string, version: number): Promise<Result<{ dueAt: Instant }>> {
  return doing(work, async (act) => {
    const open = await takePostAt(act, id, version);
    const dueAt = must(mayPublishNow(open.facts));
    await copyIntoDelivery(act, open, dueAt);
    await changePost(act, open, { ...localOf(dueAt, open.brand.zone), stage: 'scheduled' }, 'published now', { dueAt });
    return { dueAt };
  });
}

/**
 * Declares a post out: it was published without Bimlo, or was handed over and posted by hand. Its address is kept. A post
 * without a date takes today's.
 */
export function declareOut(work: Work, id: string, version: number, address: string): Promise<Result<true>> {
  return doing(work, async (act) => {
    const open = await takePostAt(act, id, version);
    const { post, delivery } = open;
    must(mayLeavePlan(open.facts));
    if (!isWebLink(address))
      refused({
        code: 'badAddress',
        field: 'address',
        message: 'Give the address of the published post, beginning with http:// or https://.',
      });
    if (delivery && !(await closeDelivery(act.tx, delivery.id)))
      refused({ code: 'leaving', message: 'This post is leaving right now. Wait until the network has answered.' });
    const local = localOf(act.now, open.brand.zone);
    const plan = post.date === null || post.date > local.date ? local : { date: post.date, time: post.time };
    await changePost(
      act,
      open,
      { ...plan, stage: 'published', publishedAt: act.now, address: address.trim() },
      delivery?.mode === 'byHand' ? 'hand-over confirmed' : 'declared out',
      { address: address.trim() },
    );
    return true as const;
  });
}

/** Tries a failed delivery again, sends a held one, or does not wait for the next try. */
export function tryAgain(work: Work, postId: string): Promise<Result<true>> {
  return doing(work, async (act) => {
    const open = await takePost(act, postId);
    const { delivery } = open;
    if (!delivery || delivery.mode !== 'automatic' || open.post.stage !== 'scheduled')
      refused({ code: 'notScheduled', message: 'This post is not scheduled, so there is nothing to try again.' });
    if (!(await makeDueNow(act.tx, delivery.id, act.now)))
      refused({ code: 'leaving', message: 'It is being sent at this moment.' });
    await act.note({ brandId: open.post.brandId, subject: 'delivery', subjectId: delivery.id, deed: 'tried again' });
    return true as const;
  });
}

/** Copies a taken post's words, pictures and link into a delivery due at that instant; the one it had is withdrawn. */
export async function copyIntoDelivery(act: Doing, open: OpenPost, dueAt: Instant): Promise<void> {
  const { post, channel, pictures, delivery } = open;
  if (delivery && !(await withdrawDelivery(act.tx, delivery.id)))
    refused({ code: 'leaving', message: 'This post is leaving right now. Wait until the network has answered.' });
  const id = act.ids();
  // A try whose outcome was never learnt may have reached the network: under its old key it cannot do so twice.
  const unsureKey = await maybeUnsureKey(act.tx, post.id);
  await insertDeliveries(act.tx, [
    {
      id,
      brandId: post.brandId,
      postId: post.id,
      mode: channel.sheet.automatic ? 'automatic' : 'byHand',
      state: 'waiting',
      idempotencyKey: unsureKey ?? id,
      parcel: makeParcel({ ...post, pictures }, channel),
      dueAt,
      nextTryAt: dueAt,
      attempts: 0,
      unsure: false,
      words: '',
      createdAt: act.now,
    },
  ]);
}
