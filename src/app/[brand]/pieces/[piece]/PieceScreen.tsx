'use client';

import dynamic from 'next/dynamic';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import type { Slip } from '@/core/calendar/slip';
import type { FamilyMember } from '@/core/encores/family';
import type { BrandFanOut } from '@/core/fanOut/fanOut';
import { isSound, isVideo } from '@/core/media/video';
import { usualFor } from '@/core/fanOut/shipped';
import type { LocalDate } from '@/core/time/plan';
import type { PieceMedium } from '@/usecases/media/reading';
import type { Piece } from '@/usecases/pieces/reading';
import type { PieceReading } from '@/usecases/extracts/reading';
import { ChannelChoice } from '@/ui/ChannelChoice';
import type { SheetStep } from '@/core/posts/sheet';
import { progressOfSteps, progressTogether } from '@/core/prep/progress';
import { Progress, progressWords } from '@/ui/Progress';
import { plannedWords } from '../../plannedWords';
import { useMadeMessage } from '../../useMadeMessage';
import { FieldRefusal } from '@/ui/FieldRefusal';
import { useFromServer } from '@/ui/useFromServer';
import { Only, OnlyTyped, useMay, useShell } from '@/ui/shell';
import type { ClipToCut } from './clips/ClipDialog';
import { PieceMedia, recordingAmong, usePlayer } from './PieceMedia';
import { SourceChanges } from './corrections/SourceChanges';
import { PostList } from './PostList';
import { FamilyDrawing } from './FamilyDrawing';
import { PiecePrep } from './PiecePrep';
import { Account } from './reading/Account';
import { Extracts } from './reading/Extracts';
import { marksOf } from './reading/ExtractList';
import { ReadingPane } from './reading/ReadingPane';
import { SourceBar } from './reading/SourceBar';
import { useReading } from './reading/useReading';
import { useRenameOffer } from './useRenameOffer';
import { usePieceEditor } from './usePieceEditor';
import Button from 'react-bootstrap/Button';
import { ABOUT_FIELDS, pieceText, type PieceField } from '@/core/pieces/texts';

const FanOutDialog = dynamic(() => import('./fanOut/FanOutDialog').then((module) => module.FanOutDialog), {
  ssr: false,
});
const ClipDialog = dynamic(() => import('./clips/ClipDialog').then((module) => module.ClipDialog), { ssr: false });
const PictureLines = dynamic(() => import('./pictureLines/PictureLines').then((module) => module.PictureLines), {
  ssr: false,
});
const RepeatDialog = dynamic(() => import('../../repeats/RepeatDialog').then((module) => module.RepeatDialog), {
  ssr: false,
});
const PlanDialog = dynamic(() => import('../../PlanDialog').then((module) => module.PlanDialog), { ssr: false });

/** The piece's texts on the left, saved as they are typed; its posts and its own prep on the right. */
export function PieceScreen({
  piece: initial,
  slips,
  steps: initialSteps,
  today,
  reading: initialReading,
  fanOuts,
  family,
  media: initialMedia,
  hasWriter,
}: {
  piece: Piece;
  slips: readonly Slip[];
  /** Its own prep. */
  steps: readonly SheetStep[];
  today: LocalDate;
  /** Its text to be read, before anything is proposed of it. */
  reading: PieceReading;
  /** Those of its brand. */
  fanOuts: readonly BrandFanOut[];
  /** Its live posts. */
  family: readonly FamilyMember[];
  /** Its recording and pictures. */
  media: readonly PieceMedium[];
  /** Whether the team has a service that writes. */
  hasWriter: boolean;
}) {
  const { brand, channels } = useShell();
  const may = useMay();
  const router = useRouter();
  const sayMade = useMadeMessage();
  const { piece, steps, texts, problem, type, save, settle, change, setSteps } = usePieceEditor(initial, initialSteps);
  useRenameOffer(piece.title, slips);
  const progress = progressTogether([
    progressOfSteps(steps),
    ...slips.filter(({ stage }) => stage !== 'published').map((slip) => slip.progress),
  ]);
  const [planning, setPlanning] = useState(false);
  const [repeating, setRepeating] = useState(false);
  const [fanningOut, setFanningOut] = useState(false);
  const hasText = piece.sourceText.trim() !== '';
  const mayChange = may('changePieces');
  const [isEditing, setEditing] = useState(!hasText && mayChange);
  const [hadText, setHadText] = useState(hasText);
  if (hadText !== hasText) {
    setHadText(hasText);
    // A text that was taken back leaves the place where one is typed.
    if (!hasText && mayChange) setEditing(true);
  }
  const [isAboutOpen, setAboutOpen] = useState(!hasText);
  const [find, setFind] = useState('');
  const [shown, setShown] = useState<string | null>(null);
  const { reading, ...deeds } = useReading(piece.id, initialReading, piece.sourceText);
  const player = usePlayer();
  const [media, setMedia] = useFromServer(initialMedia);
  /** Grows when pictures were described elsewhere than beside them. */
  const [mediaRound, setMediaRound] = useState(0);
  const [recording, setRecording] = useState(() => recordingAmong(media));
  const onPlay = recording ? player.play : null;
  const [cutting, setCutting] = useState<ClipToCut | null>(null);
  const onCut = recording && !recording.isSound && may('changePosts') ? setCutting : null;
  const marks = useMemo(() => marksOf(reading), [reading]);

  const undescribed =
    piece.kind === 'photoSet' && mayChange ? media.filter((one) => isPicture(one) && one.alt.trim() === '') : [];
  const [isDescribing, setDescribing] = useState(false);
  const fanOut = () => (undescribed.length > 0 ? setDescribing(true) : setFanningOut(true));

  const field = (name: PieceField) => ({
    value: texts[name],
    onChange: (event: { target: { value: string } }) => type(name, event.target.value),
    onBlur: save,
  });

  const refusal = (name: PieceField) =>
    problem?.field === name && (
      <FieldRefusal tied>
        {problem.message}
        {problem.theirs !== undefined && (
          <div className="both-texts">
            <div>
              <b>Yours</b>
              <pre>{texts[name]}</pre>
              <Button variant="outline-primary" size="sm" onClick={() => settle(name, 'mine')}>
                Keep mine
              </Button>
            </div>
            <div>
              <b>Theirs</b>
              <pre>{problem.theirs}</pre>
              <Button variant="outline-primary" size="sm" onClick={() => settle(name, 'theirs')}>
                Use theirs
              </Button>
            </div>
          </div>
        )}
      </FieldRefusal>
    );

  return (
    <>
      <header className="place-head">
        <h1 dir="auto">{piece.title}</h1>
        <span className="soft">{slips.length === 1 ? '1 post' : `${slips.length} posts`}</span>
        <Only deed="changePosts">
          <Button className="push" variant={hasText ? 'outline-primary' : 'primary'} onClick={() => setPlanning(true)}>
            Plan on a date…
          </Button>
          <Only deed="runRepeats">
            <Button variant="outline-primary" onClick={() => setRepeating(true)}>
              Repeat…
            </Button>
          </Only>
          {(hasText || piece.kind === 'photoSet') && <Button onClick={fanOut}>Fan out…</Button>}
        </Only>
      </header>
      <div className="place-body">
        <SourceChanges piece={piece} hasPosts={slips.length > 0} onDone={router.refresh} />
        <div className="piece-page">
          <div>
            <details
              className="piece-about"
              open={isAboutOpen}
              onToggle={(event) => setAboutOpen(event.currentTarget.open)}
            >
              <summary>Title, note and link</summary>
              <OnlyTyped deed="changePieces">
                {ABOUT_FIELDS.map((name) => {
                  const { label, isLine, isLink } = pieceText(name);
                  const id = `piece-${name}`;
                  return (
                    <div key={name} className="words">
                      <label htmlFor={id}>{label}</label>
                      {isLine ? (
                        <input
                          dir="auto"
                          id={id}
                          className="form-control"
                          placeholder={isLink ? 'https://' : undefined}
                          {...field(name)}
                        />
                      ) : (
                        <textarea dir="auto" id={id} className="form-control" rows={3} {...field(name)} />
                      )}
                      {refusal(name)}
                    </div>
                  );
                })}
              </OnlyTyped>
            </details>
            <OnlyTyped deed="changePieces">
              <PieceMedia
                key={mediaRound}
                pieceId={piece.id}
                media={media}
                player={player}
                onRecording={setRecording}
                onMedia={setMedia}
              />
            </OnlyTyped>
            <SourceBar
              piece={piece}
              isEditing={isEditing}
              onEdit={setEditing}
              find={find}
              onFind={setFind}
              onBrought={() => {
                setEditing(false);
                router.refresh();
                // The same words may have other times.
                void deeds.load();
              }}
            >
              {isEditing ? (
                <div className="words">
                  <label htmlFor="piece-source">Source text</label>
                  <textarea
                    dir="auto"
                    id="piece-source"
                    className="form-control"
                    rows={24}
                    placeholder="The talk, the article, the script: what the posts are made from. Paste it here, or drop a file: text, Markdown, a web page, or subtitles."
                    {...field('sourceText')}
                  />
                </div>
              ) : (
                <>
                  {reading.isPlain && (
                    <p className="soft" role="note">
                      This text is too intricate to be read as Markdown, so its marks stand in it as they are. Correct
                      it to have fewer of them.
                    </p>
                  )}
                  {hasText && (
                    <Account
                      piece={piece}
                      reading={reading}
                      onRead={() => {
                        router.refresh();
                        void deeds.load();
                      }}
                    />
                  )}
                  <ReadingPane
                    reading={reading}
                    marks={marks}
                    find={find}
                    shown={shown}
                    onShow={setShown}
                    onPlay={onPlay}
                    onKeep={(stretch, kind) => void deeds.judge({ ...stretch, kind, reason: '' }, 'accepted')}
                  />
                </>
              )}
              {refusal('sourceText')}
            </SourceBar>
            {problem && !problem.field && (
              <div className="field-refusal" role="alert">
                {problem.message}
              </div>
            )}
          </div>
          <div>
            {reading.text !== '' && (
              <Extracts
                piece={piece}
                reading={reading}
                marks={marks}
                deeds={deeds}
                shown={shown}
                onShow={setShown}
                onPlay={onPlay}
                onCut={onCut}
              />
            )}
            <h2 id="posts">Posts</h2>
            <div className="piece-progress">
              <Progress progress={progress} />
              <span className="soft small-text">{progressWords(progress)}</span>
            </div>
            {slips.length === 0 && (
              <p className="soft">None yet. Plan it on a date, and a post is made for each channel you choose.</p>
            )}
            <FamilyDrawing members={family} today={today} />
            <PostList slips={slips} />
            {slips.length > 0 && (
              <p className="piece-deeds">
                {slips.some(({ stage }) => stage !== 'published' && stage !== 'setAside') && (
                  <Link className="word" href={`/${brand.slug}/pieces/${piece.id}/words`} prefetch={false}>
                    Write all posts side by side
                  </Link>
                )}
                <Only deed="exchange">
                  <a className="word" href={`/api/pieces/${piece.id}/export?file=md`} download>
                    Export as Markdown
                  </a>{' '}
                  <a className="word" href={`/api/pieces/${piece.id}/export`} download>
                    Export as JSON
                  </a>
                  <a className="word" href={`/api/take-away?piece=${piece.id}`} download>
                    Its posts and pictures as a ZIP
                  </a>
                </Only>
              </p>
            )}
            <OnlyTyped deed="changePieces">
              <PiecePrep
                piece={piece}
                steps={steps}
                postDays={slips.filter(({ stage }) => stage !== 'setAside').map(({ date }) => date)}
                onSteps={setSteps}
                onEdit={(part) => void change(part)}
              />
              <ChannelChoice
                legend="Suggested for, without a post yet"
                chosen={piece.suggestedChannelIds}
                onChange={(channelIds) => void change({ channelIds })}
              />
            </OnlyTyped>
          </div>
        </div>
      </div>
      {cutting && recording && (
        <ClipDialog
          pieceId={piece.id}
          clip={cutting}
          source={recording}
          slips={slips}
          onAttached={router.refresh}
          onClose={() => setCutting(null)}
        />
      )}
      {isDescribing && (
        <PictureLines
          pieceId={piece.id}
          pictures={undescribed}
          onSaved={setMedia}
          onDone={() => {
            setDescribing(false);
            setMediaRound((round) => round + 1);
            setFanningOut(true);
          }}
          onClose={() => setDescribing(false)}
        />
      )}
      {fanningOut && (
        <FanOutDialog
          piece={piece}
          fanOuts={fanOuts}
          hasWriter={hasWriter}
          start={{ fanOut: usualFor(piece, reading.isTimed, fanOuts), only: null }}
          onMade={() => void deeds.load()}
          onClose={() => setFanningOut(false)}
        />
      )}
      {repeating && (
        <RepeatDialog
          from={{
            ...{ title: piece.title, postId: null, pieceId: piece.id, format: null, date: null, time: null },
            channelId: piece.suggestedChannelIds.find((id) => channels.some((one) => one.id === id)) ?? null,
          }}
          change={null}
          onDone={() => void deeds.load()}
          onClose={() => setRepeating(false)}
        />
      )}
      {planning && (
        <PlanDialog
          piece={{
            ...piece,
            suggestedChannelIds: piece.suggestedChannelIds.filter((id) => channels.some((c) => c.id === id)),
          }}
          date={today}
          isDayGiven
          onPlanned={({ slips: made, changeId }) => sayMade({ label: plannedWords(piece.title, made), changeId })}
          onClose={() => setPlanning(false)}
        />
      )}
    </>
  );
}

const isPicture = (one: PieceMedium): boolean => !isVideo(one) && !isSound(one);
