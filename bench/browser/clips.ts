/** In the browser: makes a recording, cuts a clip out of it, and converts the same stretch with nothing but the library. */
import {
  BlobSource,
  BufferTarget,
  CanvasSource,
  AudioBufferSource,
  Conversion,
  Input,
  MP4,
  Mp4OutputFormat,
  Output,
  QUALITY_HIGH,
  QUALITY_MEDIUM,
} from 'mediabunny';
import { cutClip } from '@/app/[brand]/pieces/[piece]/clips/cutting';
import { captionsOf, settingOf } from '@/core/clips/captions';
import { frameFor } from '@/core/clips/frame';

const SIZE = { width: 640, height: 360 };
const FRAMES = 10;
const TALL = { shapes: { narrowest: 9 / 16, widest: 9 / 16 } };

/** A recording of so many seconds: a hand that goes round, figures, and a tone. */
async function record(seconds: number): Promise<Blob> {
  const target = new BufferTarget();
  const output = new Output({ format: new Mp4OutputFormat(), target });
  const canvas = new OffscreenCanvas(SIZE.width, SIZE.height);
  const context = canvas.getContext('2d')!;
  const video = new CanvasSource(canvas, { codec: 'avc', bitrate: QUALITY_MEDIUM });
  const audio = new AudioBufferSource({ codec: 'opus', bitrate: 64_000 });
  output.addVideoTrack(video, { frameRate: FRAMES });
  output.addAudioTrack(audio);
  await output.start();
  const rate = 48_000;
  const second = new AudioBuffer({ length: rate, sampleRate: rate, numberOfChannels: 1 });
  const samples = second.getChannelData(0);
  for (let at = 0; at < rate; at++) samples[at] = 0.2 * Math.sin((2 * Math.PI * 220 * at) / rate);
  for (let at = 0; at < seconds; at++) {
    await audio.add(second);
    for (let frame = 0; frame < FRAMES; frame++) {
      const turn = ((at + frame / FRAMES) * Math.PI) / 30;
      context.fillStyle = `hsl(${at % 360} 40% 30%)`;
      context.fillRect(0, 0, SIZE.width, SIZE.height);
      context.strokeStyle = '#fff';
      context.lineWidth = 6;
      context.beginPath();
      context.moveTo(320, 180);
      context.lineTo(320 + 150 * Math.sin(turn), 180 - 150 * Math.cos(turn));
      context.stroke();
      context.fillStyle = '#fff';
      context.font = '40px sans-serif';
      context.fillText(String(at), 20, 50);
      await video.add(at + frame / FRAMES, 1 / FRAMES);
    }
  }
  await output.finalize();
  return new Blob([target.buffer!], { type: 'video/mp4' });
}

/** The same stretch in the same shape, by the library alone. */
async function convert(recording: Blob, inMs: number, outMs: number): Promise<ArrayBuffer> {
  const target = new BufferTarget();
  const frame = frameFor(SIZE, TALL, { x: 0.5, y: 0.5 });
  const conversion = await Conversion.init({
    input: new Input({ formats: [MP4], source: new BlobSource(recording) }),
    output: new Output({ format: new Mp4OutputFormat(), target }),
    trim: { start: inMs / 1_000, end: outMs / 1_000 },
    video: { crop: frame.part, ...frame.size, fit: 'fill', codec: 'avc', quality: QUALITY_HIGH },
    audio: { codec: 'opus' },
  });
  await conversion.execute();
  return target.buffer!;
}

/** Cuts the stretch as Bimlo does, with captions that change every three seconds. */
function cut(recording: Blob, inMs: number, outMs: number): Promise<ArrayBuffer> {
  const frame = frameFor(SIZE, TALL, { x: 0.5, y: 0.5 });
  const { letters, perLine } = settingOf(frame.size);
  const said = Array.from({ length: Math.ceil((outMs - inMs) / 3_000) }, (_one, at) => ({
    ...{ inMs: at * 3_000, outMs: (at + 1) * 3_000 },
    said: `What is said here is said at ${at * 3} seconds.`,
  }));
  const look = { ground: '#134E5E', ink: '#FFFFFF', font: null, letters };
  return cutClip({ source: recording, inMs, outMs, frame, captions: captionsOf(said, perLine), look }, () => undefined);
}

Object.assign(window, { clips: { record, convert, cut } });
