'use client';

import Link from 'next/link';
import { useCallback, useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import type { Slip } from '@/core/calendar/slip';
import type { CardColours } from '@/core/cards/card';
import { captionsOf, settingOf } from '@/core/clips/captions';
import type { SaidInClip } from '@/core/clips/clipFiles';
import { frameFor, isBeyond, type Frame } from '@/core/clips/frame';
import { lengthWords } from '@/core/captions/spoken';
import { moment } from '@/core/extracts/moments';
import { formatRule, FORMAT_LABELS, type Format, type VideoRule } from '@/core/rulesheets/types';
import { call, problemOf } from '@/ui/api';
import { Dialog } from '@/ui/Dialog';
import { FieldRefusal } from '@/ui/FieldRefusal';
import { fileSize, shortDate } from '@/ui/format';
import { useShell } from '@/ui/shell';
import { PointOfInterest, type Point } from './PointOfInterest';
import { useCut } from './useCut';

type ShellChannel = ReturnType<typeof useShell>['channels'][number];

/** A clip to be cut. */
export interface ClipToCut {
  id: string;
  sign: string;
  inMs: number;
  outMs: number;
  /** The posts made from it. */
  postIds: readonly string[];
}

/** Where a clip may go: a post that takes a video, or a new one. */
interface Goal {
  key: string;
  label: string;
  channel: ShellChannel;
  format: Format;
  rule: VideoRule;
  postId: string | null;
}

/** How what is said comes with the clip. */
type Captions = 'burnt' | 'beside' | 'none';
const CAPTION_LABELS: Record<Captions, string> = {
  burnt: 'set in the picture',
  beside: 'as a subtitle file beside it (WebVTT)',
  none: 'not at all',
};

/** Cuts a clip out of the recording of a piece in the shape of its channel, and attaches it to its post. */
export function ClipDialog({
  pieceId,
  clip,
  source,
  slips,
  onAttached,
  onClose,
}: {
  pieceId: string;
  clip: ClipToCut;
  /** The recording: its address, and the file itself where it was opened from the person's disk. */
  source: { src: string; file?: File };
  /** The posts of the piece. */
  slips: readonly Slip[];
  onAttached: () => void;
  onClose: () => void;
}) {
  const { brand, channels } = useShell();
  const goals = goalsOf(channels, slips, clip);
  const [goalKey, setGoalKey] = useState(goals[0]?.key ?? '');
  const goal = goals.find(({ key }) => key === goalKey);
  const [captions, setCaptions] = useState<Captions>('burnt');
  const [point, setPoint] = useState<Point>({ x: 0.5, y: 0.5 });
  const [recording, setRecording] = useState<{ width: number; height: number; ms: number } | null>(null);
  const look = useCallback((video: HTMLVideoElement | null) => {
    // What the browser has kept is known before the event can be heard.
    if (!video || video.readyState < video.HAVE_METADATA) return;
    setRecording({ width: video.videoWidth, height: video.videoHeight, ms: video.duration * 1_000 });
  }, []);
  const { cut, stop, share, problem } = useCut();
  const [refused, setRefused] = useState<string | null>(null);
  const [done, setDone] = useState<{ postId: string; title: string; file: string; bytes: number } | null>(null);
  const [isBusy, setBusy] = useState(false);
  /** Posts that were made for it, by the goal: tried again, it goes to the same one. */
  const madePosts = useRef(new Map<string, { id: string; title: string }>());
  const savedAs = `clip-${clip.sign}.mp4`;
  useEffect(
    () => () => {
      if (done) URL.revokeObjectURL(done.file);
    },
    [done],
  );

  const seconds = (clip.outMs - clip.inMs) / 1_000;
  const beyond = recording !== null && isBeyond(clip, recording.ms);
  const frame = recording && goal && frameFor(recording, goal.rule, point);

  async function make() {
    if (!frame || !goal) return;
    setBusy(true);
    setRefused(null);
    const why = await cutAndAttach(frame, goal);
    setBusy(false);
    setRefused(why);
  }

  /** @returns why it was not done; null where it was, or was stopped */
  async function cutAndAttach({ part, size }: Frame, to: Goal): Promise<string | null> {
    const [said, colours, font] = await Promise.all([
      call<SaidInClip[]>('GET', `/api/pieces/${pieceId}/clips?as=said&clip=${clip.id}`),
      call<CardColours[]>('GET', `/api/cards?brandId=${brand.id}`),
      fetch(`/api/cards/font?brandId=${brand.id}`).then((answer) =>
        answer.status === 200 ? answer.arrayBuffer() : null,
      ),
    ]);
    if (said.kind !== 'done' || colours.kind !== 'done') return problemOf(said) ?? problemOf(colours);
    const setting = settingOf(size);
    const file = await cut({
      source: source.file ?? new URL(source.src, location.href).href,
      inMs: clip.inMs,
      outMs: clip.outMs,
      frame: { part, size },
      captions: captions === 'burnt' ? captionsOf(said.value, setting.perLine) : [],
      look: { ...colours.value[0]!, font, letters: setting.letters },
    });
    if (!file) return null;
    const made = new File([file], savedAs, { type: 'video/mp4' });
    const post = await postOf(to);
    if (typeof post === 'string') return post;
    const attached = await call('POST', `/api/posts/${post.id}/media`, made);
    if (attached.kind !== 'done') return problemOf(attached);
    setDone({ postId: post.id, title: post.title, file: URL.createObjectURL(made), bytes: made.size });
    onAttached();
    return null;
  }

  /** The post it goes to, made where there is none; or why there is none. */
  async function postOf({ key, postId, channel, format }: Goal): Promise<{ id: string; title: string } | string> {
    if (postId !== null) return { id: postId, title: slips.find(({ id }) => id === postId)?.title ?? '' };
    const before = madePosts.current.get(key);
    if (before) return before;
    const place = { channelIds: [channel.id], date: null, time: null, format };
    const planned = await call<{ slips: Slip[] }>('POST', `/api/pieces/${pieceId}/plan`, place);
    if (planned.kind !== 'done') return problemOf(planned)!;
    const [post] = planned.value.slips;
    madePosts.current.set(key, post!);
    return post!;
  }

  return (
    <Dialog
      title={`Cut clip ${clip.sign}`}
      size="lg"
      className="clip-dialog"
      onClose={onClose}
      deeds={
        done ? (
          <Button onClick={onClose}>Done</Button>
        ) : share === null ? (
          <Button disabled={!frame || beyond || isBusy} onClick={() => void make()}>
            {isBusy ? 'Attaching …' : 'Cut it and attach it'}
          </Button>
        ) : (
          <Button variant="outline-primary" onClick={stop}>
            Stop
          </Button>
        )
      }
    >
      <p className="soft figures">
        {moment(clip.inMs)}–{moment(clip.outMs)} · {lengthWords(Math.round(seconds))}
      </p>
      <div className="clip-cutting">
        <div className="clip-picture">
          <video
            ref={look}
            src={`${source.src}#t=${clip.inMs / 1_000}`}
            muted
            playsInline
            preload="auto"
            aria-label="The recording where the clip begins"
            onLoadedMetadata={({ currentTarget }) => look(currentTarget)}
            onError={() =>
              setRefused('This browser cannot show the recording, so it cannot cut it. Save it as an MP4 first.')
            }
          />
          {frame && <PointOfInterest crop={frame.crop} point={point} onMove={setPoint} />}
        </div>
        <div>
          {goals.length === 0 ? (
            <p>No channel of this brand takes a video.</p>
          ) : (
            <label className="clip-goal">
              For{' '}
              <select
                className="form-select"
                value={goalKey}
                disabled={isBusy || done !== null}
                onChange={(event) => setGoalKey(event.target.value)}
              >
                {goals.map(({ key, label }) => (
                  <option key={key} value={key}>
                    {label}
                  </option>
                ))}
              </select>
            </label>
          )}
          {frame && goal && (
            <p className="soft small-text">
              <span className="figures">
                {frame.size.width} × {frame.size.height}
              </span>{' '}
              pixels, as {goal.channel.name} takes it. Drag the point in the picture to what has to stay in sight.
            </p>
          )}
          {goal && (seconds < goal.rule.secondsMin || seconds > goal.rule.secondsMax) && (
            <p className="attention">
              {goal.channel.name} takes videos of {goal.rule.secondsMin} to {goal.rule.secondsMax} seconds, and this
              clip has {Math.round(seconds)}.
            </p>
          )}
          <fieldset disabled={isBusy || done !== null}>
            <legend>What is said</legend>
            {(Object.keys(CAPTION_LABELS) as Captions[]).map((way) => (
              <label key={way} className="clip-captions">
                <input type="radio" name="captions" checked={captions === way} onChange={() => setCaptions(way)} />{' '}
                {CAPTION_LABELS[way]}
              </label>
            ))}
          </fieldset>
          {beyond && (
            <p className="wrong" role="alert">
              This clip ends at {moment(clip.outMs)}, but the recording at {moment(recording!.ms)}: its text was timed
              by another one. Add the recording that the text belongs to.
            </p>
          )}
          {share !== null && (
            <div role="status">
              <progress value={share} max={1} aria-label="How much of the clip is cut" />{' '}
              <span className="figures">{Math.round(share * 100)} %</span>
            </div>
          )}
          {done && (
            <div className="notice is-good" role="status">
              Cut, {fileSize(done.bytes)}, and attached to{' '}
              <Link href={`/${brand.slug}/calendar?post=${done.postId}`} prefetch={false}>
                {done.title}
              </Link>
              .{' '}
              <a className="word" href={done.file} download={savedAs}>
                Save the video
              </a>
              {captions === 'beside' && (
                <>
                  {' '}
                  <a className="word" href={`/api/pieces/${pieceId}/clips?as=vtt&clip=${clip.id}`} download>
                    Save its subtitles
                  </a>
                </>
              )}
            </div>
          )}
          <FieldRefusal>{refused ?? problem}</FieldRefusal>
        </div>
      </div>
    </Dialog>
  );
}

/** Where a clip may go: the posts made from it, the other posts of the piece that take a video, then new ones. */
function goalsOf(channels: readonly ShellChannel[], slips: readonly Slip[], clip: ClipToCut): Goal[] {
  const byId = new Map(channels.map((channel) => [channel.id, channel]));
  const ruleOf = (channel: ShellChannel, format: Format) => formatRule(channel.sheet, format)?.video ?? null;
  const own = slips.flatMap((slip): (Goal & { isOwn: boolean })[] => {
    const channel = byId.get(slip.channelId);
    const rule = channel && ruleOf(channel, slip.format);
    if (!channel || !rule || slip.stage === 'published' || slip.stage === 'setAside') return [];
    const label = `${channel.callSign}: ${slip.title}, ${slip.date ? shortDate(slip.date) : 'no date'}`;
    const isOwn = clip.postIds.includes(slip.id);
    return [{ key: slip.id, label, channel, format: slip.format, rule, postId: slip.id, isOwn }];
  });
  const fresh = channels.flatMap((channel): Goal[] => {
    const format = channel.sheet.formats.find(({ video }) => video)?.format;
    const rule = format && ruleOf(channel, format);
    if (!format || !rule) return [];
    const label = `${channel.callSign}: a new ${FORMAT_LABELS[format]} without a date`;
    return [{ key: `new-${channel.id}`, label, channel, format, rule, postId: null }];
  });
  return [...own.sort((one, other) => Number(other.isOwn) - Number(one.isOwn)), ...fresh];
}
