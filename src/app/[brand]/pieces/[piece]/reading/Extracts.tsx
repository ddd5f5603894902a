'use client';

import { useState } from 'react';
import { lengthWords } from '@/core/captions/spoken';
import { counted } from '@/core/words';
import type { PieceReading } from '@/usecases/extracts/reading';
import { TermHint } from '@/ui/TermHint';
import { WordButton } from '@/ui/WordButton';
import type { ClipToCut } from '../clips/ClipDialog';
import { ExtractList, rowsOf } from './ExtractList';
import type { NamedMark } from './marks';
import type { useReading } from './useReading';

/** What of a piece is worth its own post: extracts, clips, and what was rejected, to be brought back. */
export function Extracts({
  piece,
  reading,
  marks,
  deeds,
  shown,
  onShow,
  onPlay = null,
  onCut = null,
}: {
  piece: { id: string };
  reading: PieceReading;
  marks: readonly NamedMark[];
  deeds: Omit<ReturnType<typeof useReading>, 'reading'>;
  shown: string | null;
  onShow: (key: string) => void;
  /** Plays a stretch of the recording; null where there is none. */
  onPlay?: ((inMs: number, outMs: number) => void) | null;
  /** Cuts a clip out of the recording; null where there is nothing to cut it out of. */
  onCut?: ((clip: ClipToCut) => void) | null;
}) {
  const extracts = rowsOf(reading, marks, false);
  const clips = rowsOf(reading, marks, true);
  const keptClips = clips.filter(({ kept }) => kept !== null);
  const length = keptClips.reduce((sum, { inMs = 0, outMs = 0 }) => sum + outMs - inMs, 0);
  const rejected = reading.kept.filter(({ state }) => state === 'rejected');
  const [showsRejected, setShowsRejected] = useState(false);
  const list = { sentences: reading.sentences, text: reading.text, deeds, shown, onShow, onPlay };
  const accepted = extracts.filter(({ kept }) => kept !== null).length;

  return (
    <section className="extracts" aria-label="Extracts">
      <header>
        <h2>
          <TermHint term="extract">Extracts</TermHint>
        </h2>
        <span className="soft small-text" role="status">
          {deeds.isLooking
            ? 'looking for more …'
            : `${accepted} accepted, ${counted(extracts.length - accepted, 'proposal')}`}
        </span>
        {deeds.share > 0 && <progress value={deeds.share} max={1} aria-label="How much of the text has been read" />}
        {deeds.isLooking ? (
          <WordButton onClick={deeds.stop}>Stop</WordButton>
        ) : (
          <WordButton onClick={() => void deeds.load()}>Propose more</WordButton>
        )}
      </header>
      <ExtractList
        label="Extracts"
        rows={extracts}
        {...list}
        empty={
          deeds.isLooking
            ? 'A moment, the text is being read …'
            : 'Nothing in this text stands out. Select words in it to keep them as an extract.'
        }
      />
      {reading.isTimed && (
        <>
          <header>
            <h2>Clips</h2>
            <span className="soft small-text">
              {keptClips.length > 0
                ? `${keptClips.length}, together ${lengthWords(Math.round(length / 1_000))}`
                : 'none accepted yet'}
            </span>
            {keptClips.length > 0 && (
              <span className="small-text">
                Cut list:{' '}
                {deeds.isSaving ? (
                  // A file would lack what is not saved yet.
                  'saving…'
                ) : (
                  <>
                    <FileLink piece={piece} query="as=csv">
                      CSV
                    </FileLink>{' '}
                    <FileLink piece={piece} query="as=edl">
                      EDL
                    </FileLink>
                  </>
                )}
              </span>
            )}
          </header>
          <ExtractList
            label="Clips"
            rows={clips}
            {...list}
            empty="No stretch of 15 to 60 seconds is left. Select words in the text to keep them as a clip."
            beside={({ key, sign, kept, inMs = 0, outMs = 0 }) => (
              <span>
                {onCut && !deeds.isSaving && (
                  <WordButton
                    aria-label={`Cut ${sign} out of the recording`}
                    onClick={() =>
                      onCut({ id: key, sign, inMs, outMs, postIds: (kept?.usedIn ?? []).map(({ postId }) => postId) })
                    }
                  >
                    Cut…
                  </WordButton>
                )}{' '}
                <FileLink piece={piece} query={`as=srt&clip=${key}`} label={`Subtitles of ${sign} as SRT`}>
                  SRT
                </FileLink>{' '}
                <FileLink piece={piece} query={`as=vtt&clip=${key}`} label={`Subtitles of ${sign} as WebVTT`}>
                  VTT
                </FileLink>
              </span>
            )}
          />
        </>
      )}
      {rejected.length > 0 && (
        <p className="small-text">
          <WordButton aria-expanded={showsRejected} onClick={() => setShowsRejected(!showsRejected)}>
            {counted(rejected.length, 'rejected one', 'rejected ones')}
          </WordButton>
        </p>
      )}
      {showsRejected && (
        <ul className="extract-list">
          {rejected.map((one) => (
            <li key={one.id} className="is-rejected">
              <span />
              <div dir="auto" className="extract-text soft">
                {one.text}
              </div>
              <span>
                <WordButton onClick={() => void deeds.change(one, { state: 'accepted' })}>Accept after all</WordButton>
              </span>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

function FileLink({
  piece,
  query,
  label,
  children,
}: {
  piece: { id: string };
  query: string;
  label?: string;
  children: string;
}) {
  return (
    <a className="word" href={`/api/pieces/${piece.id}/clips?${query}`} download aria-label={label}>
      {children}
    </a>
  );
}
