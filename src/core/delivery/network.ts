import type { ComposedField, Words } from '../captions/compose';
import type { Recipe, Rendered } from '../media/fit';
import type { Format } from '../rulesheets/types';

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
  | { kind: 'accepted'; address: string }
  /** It will never take this. `words` are the network's own. */
  | { kind: 'refused'; words: string }
  /** It did not take it now. */
  | { kind: 'tryLater'; words: string }
  /** No answer came, so it may have been taken or not. */
  | { kind: 'unknown'; words: string };

/** What came of asking whether a parcel was taken before. */
export type FindAnswer = { kind: 'found'; address: string } | { kind: 'notFound' } | { kind: 'unknown'; words: string };

/** A picture turned out not to be what its network takes, just before it would have left. The message says so to people. */
export class NotFitToLeave extends Error {}

/** Makes the picture that leaves out of the stored one: its bytes, with what they are by then. @throws NotFitToLeave */
export type ReadPicture = (picture: ParcelPicture) => Promise<{ bytes: Uint8Array | Blob; picture: ParcelPicture }>;

/** The seam to the networks. A real one takes the stand-in's place behind this. Neither call ever throws for what a network does. */
export interface Network {
  /**
   * Asks to publish once for this key: the same key again gives the first answer's post, not a second post.
   *
   * @throws NotFitToLeave where a picture is not; nothing was published then
   */
  publish(parcel: Parcel, key: string, readPicture: ReadPicture): Promise<PublishAnswer>;
  /** Asks whether a post was taken under this key. */
  find(network: string, key: string): Promise<FindAnswer>;
}
