'use client';

import { useRef, useState, type RefObject } from 'react';
import { isSound, isVideo } from '@/core/media/video';
import { lengthWords } from '@/core/captions/spoken';
import type { PieceMedium } from '@/usecases/media/reading';
import { call, problemOf, type Answer } from '@/ui/api';
import { FieldRefusal } from '@/ui/FieldRefusal';
import { fileSize } from '@/ui/format';
import { useSay } from '@/ui/messages';
import { MEDIA_ACCEPTED, outcomeInWords, useUploads } from '@/ui/useUploads';
import { WordButton } from '@/ui/WordButton';
import { useAfterUndo } from '@/ui/useFromServer';

/** What a piece takes beside its text. */
const ACCEPTED = `${MEDIA_ACCEPTED},audio/mpeg,audio/mp4,audio/x-m4a,audio/wav`;
/** Bytes from which a recording is not kept, but opened from the person's disk each time. */
const KEPT_BYTES = 1_000_000_000;

/** A recording that plays: one that is kept, or one opened from the person's disk for this visit. */
interface Recording {
  src: string;
  name: string;
  isSound: boolean;
  /** The file itself, of one from the person's disk. */
  file?: File;
}

/** The recording among what a piece has, if there is one. */
export function recordingAmong(media: readonly PieceMedium[]): Recording | null {
  const own = media.find(isRecording);
  return own ? { src: `/api/media/${own.sha256}`, name: own.fileName, isSound: isSound(own) } : null;
}

/** What plays on the page, and how a stretch of it is played. */
export function usePlayer() {
  const element = useRef<HTMLMediaElement | null>(null);
  const until = useRef<number | null>(null);
  return {
    element,
    /** Ends a stretch where it is over. */
    onTime: () => {
      const media = element.current;
      if (!media || until.current === null || media.currentTime * 1_000 < until.current) return;
      media.pause();
      until.current = null;
    },
    /** Plays from one moment to another, or on from there. */
    play: (inMs: number, outMs: number | null) => {
      const media = element.current;
      if (!media) return;
      media.currentTime = inMs / 1_000;
      until.current = outMs;
      void media.play().catch(() => undefined);
    },
  };
}

/** The recording of a piece, played beside its text, and its pictures in their order. */
export function PieceMedia({
  pieceId,
  media: initial,
  player,
  onRecording,
  onMedia,
}: {
  pieceId: string;
  media: readonly PieceMedium[];
  player: ReturnType<typeof usePlayer>;
  /** The recording to be played, if there is one. */
  onRecording: (recording: Recording | null) => void;
  /** Told what there is when that changes. */
  onMedia: (media: readonly PieceMedium[]) => void;
}) {
  const say = useSay();
  const [media, setMedia] = useState(initial);
  const [local, setLocal] = useState<Recording | null>(null);
  useAfterUndo(initial, (now) => {
    setMedia(now);
    onMedia(now);
    onRecording(local ?? recordingAmong(now));
  });
  const [problem, setProblem] = useState<string | null>(null);
  const at = `/api/pieces/${pieceId}/media`;
  const took = (answer: Answer<PieceMedium[]>) => {
    if (answer.kind === 'done') {
      setMedia(answer.value);
      onMedia(answer.value);
      onRecording(local ?? recordingAmong(answer.value));
    }
    return answer;
  };
  const { progress, take } = useUploads(async (file) => took(await call<PieceMedium[]>('POST', at, file)));

  async function add(files: FileList | null) {
    const all = [...(files ?? [])];
    const large = all.find(({ size }) => size > KEPT_BYTES);
    if (large) {
      const { name, type } = large;
      const opened = { src: URL.createObjectURL(large), name, isSound: type.startsWith('audio/'), file: large };
      setLocal(opened);
      onRecording(opened);
    }
    const kept = all.filter((file) => file !== large);
    if (kept.length === 0) return;
    const words = outcomeInWords(await take(kept), kept.length);
    if (words) say({ text: words, wrong: true });
  }
  async function change(method: 'PATCH' | 'DELETE', id: string, body: object) {
    const answer = took(await call<PieceMedium[]>(method, `${at}/${id}`, body));
    setProblem(problemOf(answer));
  }

  const own = media.find(isRecording);
  const recording = local ?? recordingAmong(media);
  const pictures = media.filter((one) => !isRecording(one));
  return (
    <section className="piece-media" aria-label="Recording and pictures">
      {recording && (
        <div>
          <Player recording={recording} element={player.element} onTime={player.onTime} />
          <span className="soft small-text">
            {recording.name}
            {local
              ? ', opened from your disk for this visit: it is too large to be kept'
              : own && `, ${lengthWords((own.durationMs ?? 0) / 1_000)}, ${fileSize(own.bytes)}`}{' '}
            {!local && own && <WordButton onClick={() => void change('DELETE', own.id, {})}>Remove</WordButton>}
          </span>
        </div>
      )}
      {pictures.length > 0 && (
        <ol className="piece-pictures">
          {pictures.map((picture, place) => (
            <PieceCard
              key={picture.id}
              picture={picture}
              place={place}
              count={pictures.length}
              onAlt={(alt) => void change('PATCH', picture.id, { alt })}
              onPlace={(to) => void change('PATCH', picture.id, { place: media.indexOf(pictures[to]!) })}
              onRemove={() => void change('DELETE', picture.id, {})}
            />
          ))}
        </ol>
      )}
      <label className="word">
        {progress
          ? `adding ${progress.fileName} …`
          : recording || pictures.length > 0
            ? 'Add pictures or another recording…'
            : 'Add pictures, a video or a sound…'}
        <input
          type="file"
          className="visually-hidden"
          accept={ACCEPTED}
          multiple
          disabled={progress !== null}
          onChange={(event) => {
            void add(event.target.files);
            event.target.value = '';
          }}
        />
      </label>
      <FieldRefusal>{problem}</FieldRefusal>
    </section>
  );
}

const isRecording = (medium: { mime: string }): boolean => isVideo(medium) || isSound(medium);

function Player({
  recording: { src, name, isSound: isHeard },
  element,
  onTime,
}: {
  recording: Recording;
  element: RefObject<HTMLMediaElement | null>;
  onTime: () => void;
}) {
  const shared = {
    src,
    controls: true,
    preload: 'metadata',
    'aria-label': name,
    onTimeUpdate: onTime,
    ref: (media: HTMLMediaElement | null) => void (element.current = media),
  } as const;
  return isHeard ? <audio {...shared} /> : <video {...shared} playsInline />;
}

function PieceCard({
  picture: { sha256, fileName, alt: kept },
  place,
  count,
  onAlt,
  onPlace,
  onRemove,
}: {
  picture: PieceMedium;
  place: number;
  count: number;
  onAlt: (alt: string) => void;
  onPlace: (place: number) => void;
  onRemove: () => void;
}) {
  const [alt, setAlt] = useState(kept);
  return (
    <li>
      <img src={`/api/media/${sha256}?size=thumb`} alt={kept || fileName} loading="lazy" />
      <textarea
        dir="auto"
        className="form-control"
        aria-label={`Alt text of ${fileName}`}
        placeholder="alt text"
        rows={2}
        value={alt}
        onChange={(event) => setAlt(event.target.value)}
        onBlur={() => {
          if (alt.trim() !== kept) onAlt(alt);
        }}
      />
      <span className="small-text">
        {place > 0 && (
          <WordButton aria-label={`Move ${fileName} one place ahead`} onClick={() => onPlace(place - 1)}>
            ‹
          </WordButton>
        )}{' '}
        {place < count - 1 && (
          <WordButton aria-label={`Move ${fileName} one place back`} onClick={() => onPlace(place + 1)}>
            ›
          </WordButton>
        )}{' '}
        <WordButton onClick={onRemove}>Remove</WordButton>
      </span>
    </li>
  );
}
