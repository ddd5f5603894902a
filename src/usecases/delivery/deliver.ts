import { afterTry, isSettled, nextStep, type NextStep } from '@/core/delivery/delivery';
import {
  NotFitToLeave,
  type HeldPost,
  type Network,
  type ParcelPicture,
  type PublishAnswer,
  type ReadPicture,
} from '@/core/delivery/network';
import type { Clock, Ids } from '@/core/clock';
import type { Instant } from '@/core/time/plan';
import { listChannelsById, type Channel } from '@/data/brands/channels';
import type { Db } from '@/data/database/db';
import { beginAttempts, claimDue, endAttempt, holdDeliveries, settleDelivery } from '@/data/delivery/claims';
import type { Delivery } from '@/data/delivery/deliveries';
import { doubtOne, listMaybeOut, noteNotOut, type Doubt } from '@/data/delivery/doubts';
import type { Claimant } from '@/data/holders/holders';
import { lockPosts } from '@/data/posts/lockPosts';
import { checkedPictures, whyHeld } from './fitToLeave';
import { publishCopy } from './publish';
import { takeOver } from './takeOver';
import { learnWhetherOut } from './whetherOut';
import { acting } from '../useCase';

/** What delivering needs. */
export interface DeliveryWork {
  db: Db;
  clock: Clock;
  ids: Ids;
  /** Draws a number from 0 up to 1. */
  chance: () => number;
  network: Network;
  readPicture: ReadPicture;
  /** Takes a picture in that a network holds, unless it is here; does without where it cannot be had. */
  keepPicture: (network: string, picture: ParcelPicture) => Promise<void>;
  /** This process, as far as it holds what it carries. */
  holder: Holder;
}

/** A process that holds what it carries or runs, until it is done or has stopped. */
export interface Holder {
  id: string;
  /** The others that have stopped, by its own steady clock. */
  stopped(): Claimant['stopped'];
}

/** How many deliveries are under way at once, and how many of them on one channel: a slow one holds up no other. */
const ROOM = { inAll: 64, onChannel: 16 } as const;

/** Carries what is due to the networks, each delivery by itself. */
interface Courier {
  /**
   * Claims what is due as far as there is room, and sends it off without waiting for it. Whenever a delivery has ended it
   * looks again, so that what found no room goes next.
   */
  look(): Promise<void>;
  /** Resolves when nothing is under way. */
  idle(): Promise<void>;
  /** How many tries were begun. */
  tries(): number;
}

/** Makes a courier. @param onError told of what could not be written; a delivery left so is taken up at the next look */
export function makeCourier(work: DeliveryWork, onError: (error: unknown) => void): Courier {
  const underWay = new Map<string, { channelId: string; ended: Promise<void> }>();
  let looking: Promise<void> = Promise.resolve();
  let tries = 0;

  async function claimAndSend(): Promise<void> {
    const inAll = ROOM.inAll - underWay.size;
    if (inAll <= 0) return;
    const claimed = await claim(work, { ...ROOM, inAll }, underWay);
    tries += claimed.length;
    for (const delivery of claimed) {
      const ended = tryOnce(work, delivery)
        .catch(onError)
        .then(() => void underWay.delete(delivery.id))
        .then(look)
        .catch(onError);
      underWay.set(delivery.id, { channelId: delivery.channelId, ended });
    }
  }

  // One look after the other: two at once would reckon with the same room.
  function look(): Promise<void> {
    looking = looking.then(claimAndSend, claimAndSend);
    return looking;
  }

  return {
    look,
    idle: async () => {
      while (underWay.size > 0) await Promise.all([...underWay.values()].map(({ ended }) => ended));
    },
    tries: () => tries,
  };
}

/** A claimed delivery with the number of this try, what is to be done first, and the channel as it is by now. */
interface Claimed extends Delivery {
  number: number;
  step: NextStep;
  channel: Channel;
}

/**
 * Claims due deliveries. What missed its time, or is not fit to leave as things are by now, is put on hold. Every try is
 * written and committed before the network is called, so that a broken-off one is known and asked about first.
 */
async function claim(
  work: DeliveryWork,
  room: { inAll: number; onChannel: number },
  underWay: ReadonlyMap<string, { channelId: string }>,
): Promise<Claimed[]> {
  return work.db.transaction(async (tx) => {
    const act = acting(tx, work, null);
    const claimant = { id: work.holder.id, stopped: work.holder.stopped() };
    const due = await claimDue(tx, act.now, claimant, room, underWay);
    if (due.length === 0) return [];
    const channels = new Map(
      (await listChannelsById(tx, [...new Set(due.map(({ channelId }) => channelId))])).map((one) => [one.id, one]),
    );
    const looked = due.map((delivery) => {
      const channel = channels.get(delivery.channelId)!;
      const step = nextStep(delivery, act.now);
      // What may be out is asked about first, fit or not.
      const why = step === 'hold' ? '' : step === 'send' ? whyHeld(delivery, channel) : null;
      return { delivery, channel, step, why };
    });
    const held = looked.flatMap(({ delivery, why }) => (why === null ? [] : [{ ...delivery, why }]));
    await holdDeliveries(tx, held);
    await act.note(...held.map((delivery) => deed(delivery, 'held', { why: delivery.why })));
    const toTry = looked.filter(({ why }) => why === null);
    if (toTry.length === 0) return [];
    const numbers = await beginAttempts(
      tx,
      toTry.map(({ delivery }) => ({ id: work.ids(), deliveryId: delivery.id })),
      act.now,
    );
    return toTry.map(({ delivery, channel, step }) => ({
      ...delivery,
      attempts: delivery.attempts + 1,
      number: numbers.get(delivery.id)!,
      step,
      channel,
    }));
  });
}

/** What a try came to. */
type Outcome =
  | { kind: 'answered'; answer: PublishAnswer }
  /** It is not sent before a person looked at it. */
  | { kind: 'held'; why: string }
  /** An earlier copy of the post turned out to be out. */
  | { kind: 'earlierOut'; earlier: Delivery; address: string; at?: Instant }
  /** The post turned out to be out as another copy. */
  | { kind: 'otherOut'; held: HeldPost };

interface Tried {
  outcome: Outcome;
  /** Since when an earlier try of this copy may have got through; null where it is known that none did. */
  unsureSince: Instant | null;
  /** Earlier copies that are known by now not to be out. */
  notOut: Doubt[];
}

async function tryOnce(work: DeliveryWork, delivery: Claimed): Promise<void> {
  await settle(work, delivery, await callNetwork(work, delivery));
}

async function callNetwork(work: DeliveryWork, delivery: Claimed): Promise<Tried> {
  const { parcel, idempotencyKey, channel } = delivery;
  const tried = { unsureSince: delivery.unsureSince, notOut: [] as Doubt[] };
  for (const earlier of await listMaybeOut(work.db, delivery.postId)) {
    const found = await learnWhetherOut(work.network, earlier);
    if (found.kind === 'found') return { ...tried, outcome: { ...found, kind: 'earlierOut', earlier } };
    if (found.kind === 'notFound' && found.other) return { ...tried, outcome: { kind: 'otherOut', held: found.other } };
    if (found.kind === 'unknown' || !isSettled(earlier.unsureSince, work.clock.now()))
      return { ...tried, outcome: answered({ kind: 'tryLater', words: EARLIER_UNKNOWN }) };
    tried.notOut.push(earlier);
  }
  if (delivery.step !== 'send') {
    const found = await learnWhetherOut(work.network, delivery);
    if (found.kind === 'found') return { ...tried, outcome: answered({ ...found, kind: 'accepted' }) };
    if (found.kind === 'notFound' && found.other) return { ...tried, outcome: { kind: 'otherOut', held: found.other } };
    if (found.kind === 'unknown') return { ...tried, outcome: answered(found) };
    if (isSettled(delivery.unsureSince, work.clock.now())) tried.unsureSince = null;
    const why = delivery.step === 'askThenHold' ? '' : whyHeld(delivery, channel);
    if (why !== null) return { ...tried, outcome: { kind: 'held', why } };
  }
  try {
    const readPicture = checkedPictures(delivery, channel, work.readPicture);
    return {
      ...tried,
      outcome: answered(
        await work.network.publish(parcel, { key: idempotencyKey, postId: delivery.postId }, readPicture),
      ),
    };
  } catch (error) {
    if (!(error instanceof NotFitToLeave)) throw error;
    return { ...tried, outcome: { kind: 'held', why: error.message } };
  }
}

const answered = (answer: PublishAnswer): Outcome => ({ kind: 'answered', answer });
const EARLIER_UNKNOWN =
  'an earlier copy of it may be published, and its network does not say; it is not sent until that is known';

/** Writes what a try came to. The post is locked first, then its deliveries, as everybody does. */
async function settle(work: DeliveryWork, delivery: Claimed, { outcome, unsureSince, notOut }: Tried): Promise<void> {
  await work.db.transaction(async (tx) => {
    const act = acting(tx, work, null);
    await lockPosts(tx, [delivery.postId]);
    await noteNotOut(tx, notOut);
    const kind = outcome.kind === 'answered' ? outcome.answer.kind : outcome.kind;
    const words =
      outcome.kind === 'held'
        ? outcome.why
        : 'answer' in outcome && 'words' in outcome.answer
          ? outcome.answer.words
          : '';
    await endAttempt(tx, delivery.id, delivery.number, { at: act.now, outcome: kind, words });
    if (outcome.kind === 'answered' && outcome.answer.kind === 'accepted') {
      const { at = delivery.unsureSince === null ? act.now : leftAt(delivery), address } = outcome.answer;
      await act.note(deed(delivery, kind, { words }));
      await publishCopy(act, delivery, { at, address });
      return;
    }
    const after =
      outcome.kind === 'answered'
        ? afterTry(outcome.answer, delivery.attempts, unsureSince, act.now, work.chance())
        : {
            state: outcome.kind === 'held' ? ('held' as const) : atRest(unsureSince),
            unsureSince,
            isDoubted: false,
            nextTryAt: null,
            askAt: unsureSince === null ? null : act.now,
            words,
          };
    if (!(await settleDelivery(tx, delivery, work.holder.id, after))) {
      // Somebody else took it over meanwhile and decides about it, who has to know that this call may still get through.
      if (after.isDoubted) await doubtOne(tx, delivery.id, act.now);
      return;
    }
    await act.note(deed(delivery, kind, { words }));
    if (outcome.kind === 'earlierOut') {
      const { earlier, address, at = leftAt(earlier) } = outcome;
      await publishCopy(act, earlier, { at, address });
    }
    if (outcome.kind === 'otherOut') await takeOver(act, delivery.channel, outcome.held);
  });
}

/** How a copy stands that is not sent since an earlier one is out: so that it can be withdrawn, and is asked about if it may be out as well. */
const atRest = (unsureSince: Instant | null) => (unsureSince === null ? ('waiting' as const) : ('unknown' as const));

/** About when a copy left that turned out to be out: when that was found before, else at the try nobody heard of again, or when it was due. */
export const leftAt = ({ tookAt, attempts, unsureSince, dueAt }: Delivery): Instant =>
  tookAt ?? (attempts > 0 && unsureSince !== null ? unsureSince : dueAt);

const deed = (delivery: Pick<Delivery, 'id' | 'brandId'>, what: string, detail: object = {}) => ({
  brandId: delivery.brandId,
  subject: 'delivery' as const,
  subjectId: delivery.id,
  deed: what,
  detail,
});
