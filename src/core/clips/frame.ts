import { cropPixels, nearestShape, proposeCrop, shapeOf, type Crop } from '../media/fit';
import type { VideoRule } from '../rulesheets/types';

/** Pixels. */
interface Size {
  width: number;
  height: number;
}

/** What of a recording shows in a clip, and how large. */
export interface Frame {
  crop: Crop;
  /** The same in whole pixels of the recording. */
  part: Size & { left: number; top: number };
  size: Size;
}

/** Pixels that the shorter side of a clip has at most. */
const MOST_SHORT_SIDE = 1_080;

/**
 * The largest part of a recording that has a shape its channel takes, with the point of interest as near its middle as the edges
 * let it. It is scaled down where it is larger than videos are shown, never up; both sides are even, as H.264 asks for.
 *
 * @param point of interest, in shares of width and height
 */
export function frameFor(recording: Size, rule: Pick<VideoRule, 'shapes'>, point: { x: number; y: number }): Frame {
  const own = shapeOf(recording);
  const crop = proposeCrop(recording, rule.shapes ? nearestShape(own, rule.shapes) : own, point);
  const part = cropPixels(recording, crop);
  const scale = Math.min(1, MOST_SHORT_SIDE / Math.min(part.width, part.height));
  const even = (length: number) => Math.max(2, 2 * Math.round((length * scale) / 2));
  return { crop, part, size: { width: even(part.width), height: even(part.height) } };
}

/** Milliseconds that a clip may end after its recording, whose length is rounded. */
const SLACK_MS = 100;

/** Whether a clip ends after its recording does: its text was timed by another one. */
export const isBeyond = ({ outMs }: { outMs: number }, recordingMs: number): boolean => outMs > recordingMs + SLACK_MS;
