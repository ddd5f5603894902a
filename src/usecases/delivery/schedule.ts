import type { WriteOutcome } from '@/core/posts/outcome';
import { changeWords, quoted } from '@/core/calendar/change';
import { readSaidOut, type SaidOut } from '@/core/delivery/saidOut';
import { mayLeavePlan, mayPublishNow, maySchedule } from '@/core/stages/moves';
import type { Result } from '@/core/refusal';
import { dueInstant, localOf, type Instant } from '@/core/time/plan';
import { insertDeliveries, makeDueNow, withdrawDeliveries } from '@/data/delivery/deliveries';
import { askNow, noteNotOut } from '@/data/delivery/doubts';
import { mayBeOut } from '@/core/delivery/delivery';
import { mustNotBeHeld } from './mustNotBeHeld';
import { takePostAt, type OpenPost } from '../posts/takePosts';
import { whatLeft } from './publish';
import { doing, must, refused, type Work } from '../useCase';
import { newDelivery } from '../posts/checkWrites';
import { changePost } from '../posts/writePosts';
import { noteChange } from '../undo/noteChange';

/**
 * Schedules a post for its date and time: text, pictures, link and due instant are copied into its delivery, and only that
 * copy is sent. Scheduling again takes a new copy. Where it leaves some time of a window, its minute is chosen now, and once.
 */
export function schedulePost(
  work: Work,
  id: string,
  version: number,
): Promise<Result<WriteOutcome & { dueAt: Instant }>> {
  return doing(
    work,
    async (act) => {
      const open = await takePostAt(act, id, version, 'send');
      const dueAt = must(maySchedule(open.facts));
      const outcome = await changePost(act, {
        open,
        change: { stage: 'scheduled' },
        leavesAt: dueAt,
        deed: 'scheduled',
        detail: { dueAt },
        undoneAs: changeWords({ kind: 'stage', stage: 'scheduled' }, open.post.title),
      });
      const { chosenTime } = outcome;
      const chosen = chosenTime && must(dueInstant(open.post.date!, chosenTime, open.brand.zone));
      return { ...outcome, dueAt: chosen || dueAt };
    },
    [id],
  );
}

/** Schedules a post for this very moment; its date and time become now. */
export function publishNow(work: Work, id: string, version: number): Promise<Result<{ dueAt: Instant }>> {
  return doing(
    work,
    async (act) => {
      const open = await takePostAt(act, id, version, 'send');
      const dueAt = must(mayPublishNow(open.facts));
      await mustNotBeHeld(act, open.brand.id);
      await changePost(act, {
        open,
        change: { ...localOf(dueAt, open.brand.zone), stage: 'scheduled' },
        leavesAt: dueAt,
        leavesNow: true,
        deed: 'published now',
        detail: { dueAt },
        undoneAs: `Published ${quoted(open.post.title)} now`,
        final: 'It is on its way to its network.',
      });
      return { dueAt };
    },
    [id],
  );
}

/**
 * Marks a post as published: it went out without Bimlo, or was handed over and posted by hand. Its address is kept, if it has one, and
 * when that was: now, or on a day that passed, which is its day then. A post without a date, or with one to come, takes today's. A copy that was handed over is what went out, whatever was typed since.
 */
export function declareOut(
  work: Work,
  id: string,
  version: number,
  address: string,
  at: SaidOut['at'] = null,
): Promise<Result<true>> {
  return doing(work, async (act) => {
    const open = await takePostAt(act, id, version, 'send');
    const { post, delivery } = open;
    must(mayLeavePlan(open.facts));
    const said = must(readSaidOut({ address, at }, open.brand.zone, act.now));
    const local = localOf(said.publishedAt, open.brand.zone);
    const plan = at !== null || post.date === null || post.date > local.date ? local : {};
    const handedOver = post.stage === 'scheduled' && delivery?.mode === 'byHand' ? delivery : undefined;
    const left = handedOver ? whatLeft(act, open, handedOver) : {};
    const isOtherThanLeft = Object.keys(left).length > 0;
    await changePost(act, {
      open,
      undoneAs: `Marked ${quoted(post.title)} as published`,
      ...(isOtherThanLeft && { final: 'Its sheet shows what was posted by now.' }),
      change: {
        ...plan,
        ...left,
        stage: 'published',
        ...said,
      },
      out: 'said',
      deed: handedOver ? 'hand-over confirmed' : 'declared out',
      detail: said,
    });
    return true as const;
  });
}

/** Sends a failed or held delivery after all, however late it is by now. */
export function tryAgain(work: Work, postId: string, version: number): Promise<Result<true>> {
  return doing(work, async (act) => {
    const { post, delivery } = await takePostAt(act, postId, version, 'send');
    if (!delivery || delivery.mode !== 'automatic' || post.stage !== 'scheduled')
      refused({ code: 'notScheduled', message: 'This post is not scheduled, so there is nothing to try again.' });
    await mustNotBeHeld(act, post.brandId);
    if (!(await makeDueNow(act.tx, delivery.id, act.now)))
      refused({
        code: 'notFailed',
        message: 'It has neither failed nor is it on hold, so there is nothing to try again.',
      });
    await act.note({ brandId: post.brandId, subject: 'delivery', subjectId: delivery.id, deed: 'tried again' });
    await noteChange(act, {
      ...{ brandId: post.brandId, label: `Sent ${quoted(post.title)} again`, items: [] },
      final: 'It is on its way to its network.',
    });
    return true as const;
  });
}

/** Gives a post whose delivery failed, or is on hold, to a person: the same copy, to be posted by hand. */
export function giveToHand(work: Work, postId: string, version: number): Promise<Result<true>> {
  return doing(work, async (act) => {
    const { post, channel, delivery, facts } = await takePostAt(act, postId, version, 'send');
    must(mayLeavePlan(facts));
    if (
      post.stage !== 'scheduled' ||
      delivery?.mode !== 'automatic' ||
      delivery.unsure ||
      !['failed', 'held'].includes(delivery.state)
    )
      refused({
        code: 'notFailed',
        message: 'It has neither failed nor is it on hold, so Bimlo goes on delivering it.',
      });
    await withdrawDeliveries(act.tx, [delivery.id], act.now);
    const { parcel, dueAt } = delivery;
    const own = newDelivery(act, { brandId: post.brandId, postId }, channel, dueAt);
    await insertDeliveries(act.tx, [{ ...own, mode: 'byHand', parcel }]);
    await act.note({ brandId: post.brandId, subject: 'delivery', subjectId: own.id, deed: 'given to a person' });
    await noteChange(act, {
      ...{ brandId: post.brandId, label: `Gave ${quoted(post.title)} to a person to post`, items: [] },
      final: 'It waits to be posted by hand; unschedule it to take that back.',
    });
    return true as const;
  });
}

/** Asks the networks at once about all copies of a post that may be out. */
export function askWhetherOut(work: Work, postId: string, version: number): Promise<Result<true>> {
  return doing(work, async (act) => {
    const unsure = unsureOf(await takePostAt(act, postId, version, 'send'));
    await askNow(
      act.tx,
      unsure.map(({ id }) => id),
      act.now,
    );
    return true as const;
  });
}

/** Takes a person's word, who looked, that no copy of a post is out. What had no answer has failed by that. */
export function sayNotOut(work: Work, postId: string, version: number): Promise<Result<true>> {
  return doing(work, async (act) => {
    const open = await takePostAt(act, postId, version, 'send');
    const unsure = unsureOf(open);
    await noteNotOut(act.tx, unsure);
    await noteChange(act, {
      ...{ brandId: open.post.brandId, label: `Said that ${quoted(open.post.title)} is not published`, items: [] },
      final: 'Bimlo goes by it already.',
    });
    await act.note(
      ...unsure.map(({ id }) => ({
        brandId: open.post.brandId,
        subject: 'delivery' as const,
        subjectId: id,
        deed: 'seen not to be out',
      })),
    );
    return true as const;
  });
}

function unsureOf({ delivery, maybeOut, facts }: OpenPost) {
  if (facts.leaving)
    refused({ code: 'leaving', message: 'It is being sent right now. Wait until the network has answered.' });
  const unsure = [...(delivery ? [delivery] : []), ...maybeOut].filter(mayBeOut);
  if (unsure.length === 0)
    refused({ code: 'nothing', message: 'What became of this post is known: there is nothing to ask about.' });
  return unsure;
}
