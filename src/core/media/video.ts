import type { VideoRule } from '../rulesheets/types';
import { isShapeIn, outBytes, outSize, shapeOf, type PictureMeasures } from './fit';

/** Whether a media type is that of a video. */
export const isVideo = ({ mime }: { mime: string }): boolean => mime.startsWith('video/');

/** Whether a media type is that of a sound. */
export const isSound = ({ mime }: { mime: string }): boolean => mime.startsWith('audio/');

/** What a network would refuse a video for. */
type VideoFault =
  { kind: 'short' | 'long'; hasSeconds: number } | { kind: 'shape' } | { kind: 'big'; hasBytes: number };

/** What is wrong with a video on a network with that rule; empty when it may go. */
export function videoFaults(video: PictureMeasures, rule: VideoRule): VideoFault[] {
  const faults: VideoFault[] = [];
  const hasSeconds = (video.durationMs ?? 0) / 1_000;
  if (hasSeconds < rule.secondsMin) faults.push({ kind: 'short', hasSeconds });
  if (hasSeconds > rule.secondsMax) faults.push({ kind: 'long', hasSeconds });
  if (rule.shapes && !isShapeIn(shapeOf(outSize(video)), rule.shapes)) faults.push({ kind: 'shape' });
  if (outBytes(video) > rule.maxBytes) faults.push({ kind: 'big', hasBytes: outBytes(video) });
  return faults;
}
