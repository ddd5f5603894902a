import { hasWords, type Words } from '../captions/compose';
import { isLeaving, type DeliveryMode, type DeliveryState } from '../delivery/delivery';
import { blocksOf } from '../posts/readiness';
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
  /** Its number in its series; null for a post of none. */
  seriesNumber: number | null;
  /** Something is written that would be sent. */
  hasWords: boolean;
  version: number;
  /** Two or three words for what is missing: “no picture”; null when the network would take it, or has. */
  missing: string | null;
  /** Content hash of its first picture. */
  thumb: string | null;
  delivery: { mode: DeliveryMode; state: DeliveryState; leaving: boolean } | null;
}

/** What a slip is made from. */
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
  seriesNumber: number | null;
  version: number;
  pictures: readonly { sha256: string; mime: string; bytes: number }[];
  delivery: { mode: DeliveryMode; state: DeliveryState; unsure: boolean; dueAt: Instant } | null;
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
    seriesNumber: post.seriesNumber,
    hasWords: hasWords(post),
    version,
    missing: stage === 'published' ? null : (blocksOf(post, channel.sheet)[0]?.short ?? null),
    thumb: post.pictures[0]?.sha256 ?? null,
    delivery: delivery && { mode: delivery.mode, state: delivery.state, leaving: isLeaving(delivery) },
  };
}
