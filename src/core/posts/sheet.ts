import type { Window } from '../rhythm/window';
import type { TakenDown } from '../delivery/takenDown';
import type { RepeatKind } from '../repeats/repeat';
import type { Card } from '../cards/card';
import type { Words } from '../captions/compose';
import type { WrittenWords } from './written';
import type { DeliveryMode, DeliveryState } from '../delivery/delivery';
import type { PictureMeasures } from '../media/fit';
import type { Format } from '../rulesheets/types';
import type { Stage } from '../stages/stages';
import type { PrepLine } from '../prep/step';
import type { SignOffState } from './signOff';
import type { DraftedMark } from './unread';
import type { Waiver } from './wants';
import type { Instant, LocalDate, LocalTime } from '../time/plan';

/** A picture on a post's sheet. */
export interface SheetPicture extends PictureMeasures {
  id: string;
  /** Content hash; names the file and its thumbnail. */
  sha256: string;
  fileName: string;
  alt: string;
  /** How it is set, of a picture made from words. */
  card?: Card | null;
}

/** A step on a post's sheet. */
export interface SheetStep extends PrepLine {
  id: string;
  pinned: LocalDate | null;
  day: LocalDate | null;
  plannedOn: LocalDate | null;
  doneOn: LocalDate | null;
  doneBy: string | null;
  version: number;
}

/** An open post: everything its sheet shows and edits. */
export interface PostSheet extends WrittenWords {
  id: string;
  pieceId: string;
  pieceTitle: string;
  /** How many posts of its piece are published. */
  pieceSaid: number;
  channelId: string;
  format: Format;
  title: string;
  date: LocalDate | null;
  time: LocalTime | null;
  /** Some time in it: the window in which it leaves, or left; null for its very minute. Its minute is chosen once it is scheduled. */
  window: (Window & { isChosen: boolean }) | null;
  stage: Stage;
  setAsideReason: string;
  ownerId: string;
  pillarId: string | null;
  campaignId: string | null;
  /** What it is a part of, and its number in it; null for a post of no repeat, or of one that ended. */
  repeat: { id: string; name: string; kind: RepeatKind; number: number } | null;
  publishedAt: Instant | null;
  address: string;
  /** That it was taken down since, or is to be; null where neither. */
  takenDown: TakenDown | null;
  version: number;
  deleted: boolean;
  /** Out of the calendar's sight, though published. */
  archived: boolean;
  pictures: SheetPicture[];
  /** Its prep, in the order of the work. */
  steps: SheetStep[];
  /** Needed steps of its piece that are not done: they hold it up too. */
  pieceNeeds: { id: string; title: string; ofPiece: true }[];
  /** The sentences of its draft, with where each is from, read or not. */
  drafted: DraftedMark[];
  /** Its piece says something else by now than when it was made. */
  isBehind?: boolean;
  /** Wants a manager let go. */
  waived: Waiver[];
  signOff: {
    state: SignOffState;
    /** Who gave the last one, and when; null while nobody did. */
    last: { by: string; at: Instant } | null;
  };
  /** Copies of it that a network may have taken though nobody was told, the newest first. */
  maybeOut: {
    /** Slug of the network. */
    network: string;
    networkName: string;
    since: Instant;
    /** Whether it is known to have been tried; not where all that is known is that the folder was restored. */
    isTried: boolean;
    /** Whether Bimlo goes on asking by itself. */
    isAsked: boolean;
  }[];
  /** What stood here when it went out with other words; null where nothing differs. */
  notSent: { words: Words; format: Format; pictures: number } | null;
  delivery: {
    mode: DeliveryMode;
    state: DeliveryState;
    unsure: boolean;
    attempts: number;
    dueAt: Instant;
    nextTryAt: Instant;
    /** What the network said at the last try. */
    words: string;
    copiedAt: Instant;
    /** Whether its network is there for practice only. */
    isPractice: boolean;
    /** It waits, since its folder was restored, until a manager releases it. */
    awaitsRelease: boolean;
    /** The sheet shows other words or pictures than those that will leave. */
    differs: boolean;
    /** The words that will leave. */
    copy: Words;
  } | null;
}
