import { isDeepStrictEqual } from 'node:util';
import { isLeaving } from '@/core/delivery/delivery';
import type { Parcel } from '@/core/delivery/network';
import { makeParcel, measuresOf } from '@/core/delivery/parcel';
import type { RulesOutcome } from '@/core/posts/outcome';
import type { Channel } from '@/data/brands/channels';
import { holdDeliveries } from '@/data/delivery/claims';
import { insertDeliveries, withdrawDeliveries, type Delivery, type NewDelivery } from '@/data/delivery/deliveries';
import { listReadyOrScheduledOn } from '@/data/posts/posts';
import { takePosts, type OpenPost } from '../posts/takePosts';
import type { Acting } from '../useCase';
import { blocksOfCopy, checkWrites, newDelivery } from '../posts/checkWrites';
import { writePosts } from '../posts/writePosts';

/** Posts looked at in one go, so that a brand with thousands takes no more room than one with hundreds. */
const SLICE = 500;

/**
 * After the rules of channels changed, or which rules they go by: holds what waits to leave against the new ones, and lets
 * nothing wait for a network that its channel is not on any more. What was copied when it was scheduled stays what is
 * sent. Posts that are ready and do not fit any more go back.
 */
export async function followRules(act: Acting, channelIds: readonly string[]): Promise<RulesOutcome> {
  const outcome: RulesOutcome = { tookBack: 0, held: 0, copiedAnew: 0 };
  const ids = await listReadyOrScheduledOn(act.tx, channelIds);
  for (let from = 0; from < ids.length; from += SLICE) {
    const taken = await takePosts(act, ids.slice(from, from + SLICE), 'manageBrand');
    const open = [...taken.values()].flatMap((one) => (one.ok ? [one.value] : []));
    await followScheduled(act, open, outcome);
    await takeBackUnfit(act, open, outcome);
  }
  return outcome;
}

async function followScheduled(act: Acting, open: readonly OpenPost[], outcome: RulesOutcome): Promise<void> {
  const held: (Delivery & { why: string })[] = [];
  const copies: NewDelivery[] = [];
  const withdraws: string[] = [];
  for (const { post, channel, delivery } of open) {
    if (post.stage !== 'scheduled' || !delivery || delivery.state === 'sent' || isLeaving(delivery)) continue;
    const parcel = copiedAnew(delivery.parcel, channel);
    const [block] = blocksOfCopy({ parcel }, channel);
    if (block) {
      if (delivery.state !== 'unknown') held.push({ ...delivery, why: block.message });
      continue;
    }
    // What a person has to post by now is theirs: they may be posting it this very moment.
    if (delivery.mode === 'byHand' && delivery.dueAt <= act.now) continue;
    const mode = channel.sheet.automatic ? 'automatic' : 'byHand';
    if (mode === delivery.mode && isSame(parcel, delivery.parcel)) continue;
    withdraws.push(delivery.id);
    copies.push({ ...newDelivery(act, { brandId: post.brandId, postId: post.id }, channel, delivery.dueAt), parcel });
  }
  await withdrawDeliveries(act.tx, withdraws, act.now);
  await insertDeliveries(act.tx, copies);
  await holdDeliveries(act.tx, held);
  await act.note(
    ...held.map(({ id, brandId, why }) => ({
      brandId,
      subject: 'delivery' as const,
      subjectId: id,
      deed: 'held',
      detail: { why },
    })),
    ...copies.map(({ id, brandId }) => ({
      brandId,
      subject: 'delivery' as const,
      subjectId: id,
      deed: 'copied anew for other rules',
    })),
  );
  outcome.held += held.length;
  outcome.copiedAnew += copies.length;
}

/** Whether two parcels are the same as they are kept, whatever the order of their fields. */
const isSame = (one: Parcel, kept: Parcel): boolean => isDeepStrictEqual(JSON.parse(JSON.stringify(one)), kept);

/** The same words and pictures as they would be sent by the rules of a channel. */
const copiedAnew = ({ words, format, pictures }: Parcel, channel: Channel): Parcel =>
  makeParcel(
    {
      ...words,
      format,
      pictures: pictures.map((picture) => ({
        ...measuresOf(picture),
        sha256: picture.sha256,
        alt: picture.alt,
        fileName: picture.fileName,
      })),
    },
    channel,
  );

async function takeBackUnfit(act: Acting, open: readonly OpenPost[], outcome: RulesOutcome): Promise<void> {
  const unfit = open.filter(({ post, facts }) => post.stage === 'ready' && facts.blocks.length > 0);
  const checked = await checkWrites(
    act,
    unfit.map((one) => ({ open: one, change: {}, deed: 'taken back by other rules' })),
  );
  const fine = checked.flatMap((one) => (one.ok ? [one.value] : []));
  await writePosts(act, fine);
  outcome.tookBack += fine.length;
}
