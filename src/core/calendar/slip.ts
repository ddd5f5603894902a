import type { Words } from '../captions/compose';
import { isLeaving, type DeliveryMode, type DeliveryState } from '../delivery/delivery';
import { firstBlockOf } from '../posts/readiness';
import { hasOwnWords } from '../posts/oneTitle';
import { signOffState, type SignOff } from '../posts/signOff';
import { unreadOf, type DraftedMark } from '../posts/unread';
import { wantsOf } from '../posts/wants';
import { progressOf, type WorkCounts, type WorkProgress } from '../prep/progress';
import type { Work } from '../prep/step';
import { isVideo } from '../media/video';
import type { PictureMeasures } from '../media/fit';
import type { Format, RuleSheet } from '../rulesheets/types';
import type { Stage } from '../stages/stages';
import type { Instant, LocalDate, LocalTime } from '../time/plan';

/** A post as it shows everywhere it is not open: what a slip needs, and no more, since hundreds travel at once. */
export interface Slip {
  id: string;
  brandId: string;
  pieceId: string;
  channelId: string;
  callSign: string;
  /** The working title. */
  title: string;
  date: LocalDate | null;
  time: LocalTime | null;
  stage: Stage;
  format: Format;
  ownerId: string;
  pillarId: string | null;
  campaignId: string | null;
  /** Its number in its repeat; null for a post of none. */
  repeatNumber: number | null;
  /** Something is written that would be sent. */
  hasWords: boolean;
  version: number;
  /** Two or three words for what is missing: “no picture”; null when the network would take it, or has. */
  missing: string | null;
  /** Content hash of its first picture; a video has none, its cover is one. */
  thumb: string | null;
  delivery: {
    mode: DeliveryMode;
    state: DeliveryState;
    leaving: boolean;
    isPractice?: boolean;
    /** It waits, since its folder was restored, until somebody releases it. */
    awaitsRelease?: boolean;
  } | null;
  /** How far its prep is, by sort of work; empty without prep. */
  progress: WorkProgress[];
  /** The sort of its first open step; null when all are done. */
  nextWork: Work | null;
}

/**
 * What a slip is made from.
 *
 * @internal
 */
export interface SlipSource extends Words {
  id: string;
  brandId: string;
  pieceId: string;
  channelId: string;
  format: Format;
  title: string;
  date: LocalDate | null;
  time: LocalTime | null;
  stage: Stage;
  ownerId: string;
  pillarId: string | null;
  campaignId: string | null;
  repeatNumber: number | null;
  version: number;
  pictures: readonly (PictureMeasures & { sha256: string; alt: string })[];
  waived: readonly { key: string }[];
  /** The sentences that were put into its draft. */
  drafted: readonly DraftedMark[];
  asked: { signOff: SignOff | null } | null;
  /** Its piece says something else by now than when it was made. */
  isBehind?: boolean;
  prep: { counts: WorkCounts; nextWork: Work | null } | null;
  delivery: {
    mode: DeliveryMode;
    state: DeliveryState;
    unsure: boolean;
    attempts: number;
    dueAt: Instant;
    /** Whether its network is there for practice only. */
    isPractice: boolean;
    awaitsRelease: boolean;
  } | null;
}

/** Makes the slip of a post on its channel. */
export function slipOf(post: SlipSource, channel: { callSign: string; sheet: RuleSheet }): Slip {
  const { id, brandId, pieceId, channelId, title, date, time, stage, format, ownerId, version, delivery } = post;
  return {
    id,
    brandId,
    pieceId,
    channelId,
    callSign: channel.callSign,
    title,
    date,
    time,
    stage,
    format,
    ownerId,
    pillarId: post.pillarId,
    campaignId: post.campaignId,
    repeatNumber: post.repeatNumber,
    hasWords: hasOwnWords(post),
    version,
    missing: stage === 'published' ? null : missingOf(post, channel.sheet),
    thumb: post.pictures.find((picture) => !isVideo(picture))?.sha256 ?? null,
    delivery: delivery && {
      mode: delivery.mode,
      state: delivery.state,
      leaving: isLeaving(delivery),
      isPractice: delivery.isPractice,
      ...(delivery.awaitsRelease && stage === 'scheduled' && { awaitsRelease: true }),
    },
    progress: post.prep ? progressOf(post.prep.counts) : [],
    nextWork: post.prep?.nextWork ?? null,
  };
}

/** What its network would refuse, else that its source changed, a picture is undescribed or nobody signed it off. Undone steps show as progress. */
function missingOf(post: SlipSource, sheet: RuleSheet): string | null {
  const block = firstBlockOf(post, sheet);
  const signOff = signOffState(post.asked !== null, post.asked?.signOff ?? null, post);
  return (
    block?.short ??
    (post.isBehind ? 'source changed' : null) ??
    wantsOf(
      { pictures: post.pictures, neededSteps: [], signOff, unread: unreadOf(post, post.drafted).length },
      post.waived,
    )[0]?.short ??
    null
  );
}
