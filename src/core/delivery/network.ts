import type { ComposedField, Words } from '../captions/compose';
import type { Recipe, Rendered } from '../media/fit';
import type { Format } from '../rulesheets/types';
import type { Instant } from '../time/plan';

/** A picture of a parcel; its bytes are found by their content hash. */
export interface ParcelPicture {
  /** Which of the post's pictures it was; absent in copies made before parts were kept. */
  id?: string;
  /** SHA-256 of the bytes, lower-case hex. */
  sha256: string;
  mime: string;
  alt: string;
  fileName: string;
  bytes: number;
  /** Pixels of the stored picture; absent in copies made before they were kept. */
  width?: number;
  height?: number;
  /** How long a video runs; absent or null for a picture. */
  durationMs?: number | null;
  /** What is done to it on its way out; absent in copies made before there were recipes, and once it was done. */
  recipe?: Recipe;
  /** What it came to when it was made ready before; absent or null where it was not. */
  rendered?: Rendered | null;
}

/** What leaves: the copy made when the post was scheduled, and nothing that was changed since. */
export interface Parcel {
  /** Slug of the rule sheet, which names the network. */
  network: string;
  /** The account on that network. */
  account: string;
  format: Format;
  texts: ComposedField[];
  link: string;
  hashtags: string[];
  pictures: ParcelPicture[];
  /** The ordered parts; `picture` is a place among the pictures, from 0. Absent for a format without parts. */
  parts?: { text: string; picture: number | null }[];
  /** The words the texts were composed from, so that the copy can be checked anew and taken back. */
  words: Words;
}

/** What came of asking a network to take a parcel. */
export type PublishAnswer =
  /** `at`: when it was taken, where the network says. */
  | { kind: 'accepted'; address: string; at?: Instant }
  /** It will never take this. `words` are the network's own. */
  | { kind: 'refused'; words: string }
  /** It did not take it now. */
  | { kind: 'tryLater'; words: string }
  /** No answer came, so it may have been taken or not. */
  | { kind: 'unknown'; words: string };

/** What came of asking whether a parcel was taken before. `at`: when it was, where the network says. */
export type FindAnswer =
  { kind: 'found'; address: string; at?: Instant } | { kind: 'notFound' } | { kind: 'unknown'; words: string };

/** By what a parcel is known to a network. */
export interface Label {
  /** Of this copy alone: the same key again is the same post. */
  key: string;
  /** The post it is a copy of. */
  postId: string;
}

/** A post that a network holds of this house. */
export interface HeldPost extends Label {
  /** When the network took it. */
  at: Instant;
  address: string;
  parcel: Omit<Parcel, 'words'>;
}

/** An account on a network. */
export type Account = Pick<Parcel, 'network' | 'account'>;

/** What came of asking a network what it holds. `cannot`: it answers no such question. */
export type HeldAnswer = { kind: 'told'; posts: HeldPost[] } | { kind: 'cannot' } | { kind: 'unknown'; words: string };

/**
 * What came of asking a network to take a post down. `gone`: it is there no more, whoever saw to it. `cannot`: this network takes nothing
 * down, so a person has to.
 */
export type TakeDownAnswer = { kind: 'gone' } | { kind: 'cannot' } | { kind: 'unknown'; words: string };

/** A picture turned out not to be what its network takes, just before it would have left. The message says so to people. */
export class NotFitToLeave extends Error {}

/** Makes the picture that leaves out of the stored one: its bytes, with what they are by then. @throws NotFitToLeave */
export type ReadPicture = (picture: ParcelPicture) => Promise<{ bytes: Uint8Array | Blob; picture: ParcelPicture }>;

/** The seam to the networks. A real one takes the stand-in's place behind this. No call ever throws for what a network does. */
export interface Network {
  /**
   * Asks to publish once for this key: the same key again gives the first answer's post, not a second post.
   *
   * @throws NotFitToLeave where a picture is not; nothing was published then
   */
  publish(parcel: Parcel, label: Label, readPicture: ReadPicture): Promise<PublishAnswer>;
  /** Asks whether a post was taken under this key. */
  find(network: string, key: string): Promise<FindAnswer>;
  /** Asks to take down what was published under this key. Asking again does no harm. */
  takeDown(network: string, key: string): Promise<TakeDownAnswer>;
  /** Asks what an account holds of this house's posts that it took at that instant or later, the oldest first. */
  heldSince(account: Account, since: Instant): Promise<HeldAnswer>;
  /** Asks what an account holds of one post, under whatever key. */
  heldOf(account: Account, postId: string): Promise<HeldAnswer>;
  /** The bytes of a picture as the network holds it; null where it does not give them. */
  pictureOf(network: string, sha256: string): Promise<Uint8Array | null>;
}
