import { open } from 'node:fs/promises';
import { FilePathSource, Input, MATROSKA, MP3, MP4, QTFF, WAVE, WEBM } from 'mediabunny';

/** What a video or sound turned out to be; a sound has the size 0. */
export interface RecordingRead {
  width: number;
  height: number;
  durationMs: number;
}

/** Size and length of a recording from its own boxes, or null when they cannot be read or the file is cut off. */
export async function readRecording(path: string, takesSound: boolean): Promise<RecordingRead | null> {
  if (await isCutOff(path)) return null;
  const input = new Input({ formats: [MP4, QTFF, WEBM, MATROSKA, MP3, WAVE], source: new FilePathSource(path) });
  try {
    const track = await input.getPrimaryVideoTrack();
    const durationMs = Math.round((await input.computeDuration()) * 1_000);
    if (!(durationMs > 0)) return null;
    if (!track) {
      const hasSound = takesSound && (await input.getPrimaryAudioTrack()) !== null;
      return hasSound ? { width: 0, height: 0, durationMs } : null;
    }
    return { width: track.displayWidth, height: track.displayHeight, durationMs };
  } catch (error) {
    // mediabunny has no codes for this: what it cannot read comes as a plain Error.
    if (error instanceof Error) return null;
    throw error;
  } finally {
    input.dispose();
  }
}

/** Boxes of a file that are gone through at most: a whole one has a handful. */
const MOST_BOXES = 10_000;
const EBML = 0x1a45dfa3;
const SEGMENT = 0x18538067;

/**
 * Whether a file ends before what it says it holds: a box of an MP4 (ISO/IEC 14496-12, 4.2), the segment of a WebM (RFC 8794, 6.2),
 * the chunk of a WAV. What says no length cannot be told.
 * @internal
 */
export async function isCutOff(path: string): Promise<boolean> {
  const file = await open(path, 'r');
  try {
    const { size } = await file.stat();
    const read = async (at: number, length: number): Promise<Buffer> => {
      const { buffer, bytesRead } = await file.read(Buffer.alloc(length), 0, length, at);
      return buffer.subarray(0, bytesRead);
    };
    const head = await read(0, 16);
    if (head.length < 16) return false;
    if (head.readUInt32BE(0) === EBML) return await isSegmentCutOff(read, size);
    if (head.toString('latin1', 0, 4) === 'RIFF') return head.readUInt32LE(4) + 8 > size;
    if (head.toString('latin1', 4, 8) !== 'ftyp') return false;
    let at = 0;
    for (let box = 0; at < size && box < MOST_BOXES; box++) {
      const start = await read(at, 16);
      if (start.length < 8) return true;
      const short = start.readUInt32BE(0);
      // 0: to the end of the file. 1: the length follows, in 64 bits.
      if (short === 0) return false;
      const length = short === 1 ? Number(start.length < 16 ? 0n : start.readBigUInt64BE(8)) : short;
      if (length < 8 || at + length > size) return true;
      at += length;
    }
    return false;
  } finally {
    await file.close();
  }
}

type Read = (at: number, length: number) => Promise<Buffer>;

async function isSegmentCutOff(read: Read, size: number): Promise<boolean> {
  const head = await elementAt(read, 0);
  const segment = head && (await elementAt(read, head.from + head.length));
  if (!segment || segment.id !== SEGMENT || segment.isOpen) return false;
  return segment.from + segment.length > size;
}

/** An element of EBML: its id, where its content begins, and how long that is. */
async function elementAt(
  read: Read,
  at: number,
): Promise<{ id: number; from: number; length: number; isOpen: boolean } | null> {
  const start = await read(at, 12);
  const idLength = Math.clz32(start[0] ?? 0) - 23;
  const lengthAt = idLength;
  const lengthLength = Math.clz32(start[lengthAt] ?? 0) - 23;
  if (idLength > 4 || lengthLength > 8 || start.length < lengthAt + lengthLength) return null;
  const id = start.readUIntBE(0, idLength);
  let length = start[lengthAt]! & (0xff >> lengthLength);
  let isOpen = length === 0xff >> lengthLength;
  for (let byte = 1; byte < lengthLength; byte++) {
    const value = start[lengthAt + byte]!;
    length = length * 256 + value;
    isOpen = isOpen && value === 0xff;
  }
  return { id, from: at + lengthAt + lengthLength, length, isOpen };
}
