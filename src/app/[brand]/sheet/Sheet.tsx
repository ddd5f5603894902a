'use client';

import Link from 'next/link';
import dynamic from 'next/dynamic';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { PublishedOfPiece } from './PublishedOfPiece';
import { departureWords, readinessWords } from '@/core/posts/outcome';
import { blocksOf } from '@/core/posts/readiness';
import { partsWith } from '@/core/posts/parts';
import { writtenOf, type WrittenWords } from '@/core/posts/written';
import { unreadOf } from '@/core/posts/unread';
import { neededOf, wantsOf } from '@/core/posts/wants';
import type { PostSheet } from '@/core/posts/sheet';
import type { Slip } from '@/core/calendar/slip';
import { STAGE_LABELS, STAGES, type Stage } from '@/core/stages/stages';
import { problemOf } from '@/ui/api';
import { CallSign } from '@/ui/CallSign';
import { dayAndTime } from '@/ui/format';
import { useSay } from '@/ui/messages';
import { useMay, useShell } from '@/ui/shell';
import type { ChangedPost } from '../calendar/changed';
import { Deeds } from './Deeds';
import { Facts } from './Facts';
import { Missing } from './Missing';
import { Notes } from './Notes';
import { Parts } from './Parts';
import { Pictures } from './Pictures';
import { Prep } from './Prep';
import { SignOffLine } from './SignOffLine';
import { SourceChanged } from './SourceChanged';
import { usePostEditor, writtenSheet, type PostEditor, type SaveState } from './usePostEditor';
import { WhatBecameOfIt } from './WhatBecameOfIt';
import { BothTexts, Words } from './Words';
import { Writing } from './Writing';
import { WordButton } from '@/ui/WordButton';
import { FieldRefusal } from '@/ui/FieldRefusal';

const Versions = dynamic(() => import('./Versions').then((module) => module.Versions), { ssr: false });
const Preview = dynamic(() => import('./Preview').then((module) => module.Preview), { ssr: false });

const SAVE_WORDS: Record<SaveState, string> = {
  saved: 'saved',
  saving: 'saving…',
  unsaved: 'not saved yet',
  unreachable: 'not saved: Bimlo cannot be reached. Kept here, tried again.',
};
/** In place of those, where the browser keeps nothing. */
const NOT_KEPT: Partial<Record<SaveState, string>> = {
  unsaved: 'not saved yet, and only on this page: do not close it',
  unreachable: 'not saved: Bimlo cannot be reached. Tried again, but only on this page: do not close it.',
};

/** How often a scheduled post's sheet looks whether it left, in milliseconds. */
const LOOK_EVERY_MS = 4_000;

/** An open post beside the calendar. */
export function Sheet({
  postId,
  initial,
  slipVersion,
  onChanged,
  onGone,
  onMove,
  onOpen,
  undone,
  onUndo,
  onClose,
}: {
  postId: string;
  initial: PostSheet | null;
  /** The version of its slip on the calendar: when it runs ahead, the sheet loads anew. */
  slipVersion: number | null;
  onChanged: (slip: Slip) => void;
  onGone: (id: string) => void;
  /** Opens the dialog that moves it. */
  onMove: (post: PostSheet) => void;
  /** Opens another post instead. */
  onOpen: (id: string) => void;
  /** How often something was undone since the page was opened: with each time the post is read anew. */
  undone: number;
  /** Undoes what was done by its change. */
  onUndo: (changeId: string) => void;
  onClose: () => void;
}) {
  const { channels, brand } = useShell();
  const say = useSay();
  const may = useMay();
  const [isVersionsOpen, setVersionsOpen] = useState(false);
  const [isPreviewed, setPreviewed] = useState(false);
  const changed = useCallback(
    ({ slip, outcome }: ChangedPost) => {
      for (const text of readinessWords(outcome)) say({ text });
      onChanged(slip);
    },
    [onChanged, say],
  );
  const editor = usePostEditor(postId, initial, changed);
  const { sheet, texts, reload } = editor;
  const channel = channels.find((candidate) => candidate.id === sheet?.channelId);

  const isBehind = sheet !== null && slipVersion !== null && slipVersion > sheet.version;
  useEffect(() => {
    if (isBehind) reload();
  }, [isBehind, reload]);
  useEffect(() => {
    if (undone > 0) reload();
  }, [undone, reload]);
  const mayLeave = sheet?.stage === 'scheduled';
  useEffect(() => {
    if (!mayLeave) return;
    const timer = setInterval(reload, LOOK_EVERY_MS);
    return () => clearInterval(timer);
  }, [mayLeave, reload]);

  const blocks = useMemo(
    () => (sheet && texts && channel ? blocksOf(writtenSheet(sheet, texts), channel.sheet) : []),
    [sheet, texts, channel],
  );

  const unread = useMemo(
    () => (sheet && texts ? unreadOf(writtenSheet(sheet, texts), sheet.drafted) : []),
    [sheet, texts],
  );
  const wants = useMemo(
    () =>
      sheet
        ? wantsOf(
            {
              pictures: sheet.pictures,
              neededSteps: [...neededOf(sheet.steps), ...sheet.pieceNeeds],
              signOff: sheet.signOff.state,
              unread: unread.length,
            },
            sheet.waived,
          )
        : [],
    [sheet, unread],
  );

  if (!sheet || !texts || !channel)
    return (
      <section
        className="sheet"
        aria-label="Post"
        tabIndex={-1}
        data-focus-back={`.arrangement [data-post="${postId}"]`}
      >
        <div className="sheet-top">
          <span>{editor.problem ? editor.problem.message : 'Opening…'}</span>
          <WordButton onClick={onClose}>Close</WordButton>
        </div>
      </section>
    );
  const isOut = sheet.stage === 'published' || sheet.stage === 'setAside';
  const isFixed = isOut || !may('changePosts');

  async function takeVersion({ parts, ...words }: WrittenWords) {
    const answer = await editor.change('PATCH', `/api/posts/${postId}`, (version) => ({
      version,
      ...words,
      parts: partsWith(parts, sheet!.pictures),
    }));
    const problem = problemOf(answer);
    if (problem) return say({ text: problem, wrong: true });
    setVersionsOpen(false);
    say({ text: 'Restored. What was there before is kept as a version.' });
  }

  return (
    <section
      className="sheet"
      aria-label={`Post: ${texts.title}`}
      tabIndex={-1}
      data-focus-back={`.arrangement [data-post="${postId}"]`}
    >
      <div className="sheet-top" data-deeds>
        <span className="soft">
          Post of{' '}
          <Link dir="auto" href={`/${brand.slug}/pieces/${sheet.pieceId}`} prefetch={false}>
            {sheet.pieceTitle}
          </Link>
        </span>
        <span className={`save-state ${editor.saveState === 'unreachable' ? 'wrong' : 'soft'}`} role="status">
          {(!editor.isKept && NOT_KEPT[editor.saveState]) || SAVE_WORDS[editor.saveState]}
        </span>
        {!isFixed && (
          <WordButton onClick={() => onMove(sheet)} aria-keyshortcuts="m">
            Move
          </WordButton>
        )}
        <WordButton onClick={onClose} aria-keyshortcuts="Escape">
          Close
        </WordButton>
      </div>
      <div className="sheet-title">
        <CallSign sign={channel.callSign} color={channel.color} name={channel.name} />
        <textarea
          dir="auto"
          rows={1}
          aria-label="Working title"
          value={texts.title}
          disabled={isFixed}
          onChange={(event) => editor.type('title', event.target.value.replace(/\n/g, ' '))}
        />
      </div>
      {editor.problem?.field === 'title' && <FieldRefusal tied>{editor.problem.message}</FieldRefusal>}
      <BothTexts editor={editor} field="title" />
      <StageBar editor={editor} sheet={sheet} />
      <Facts editor={editor} sheet={sheet} channel={channel} disabled={isFixed} />
      {sheet.stage !== 'published' && <PublishedOfPiece pieceId={sheet.pieceId} count={sheet.pieceSaid} />}
      <Notices sheet={sheet} zone={brand.zone} />
      {sheet.isBehind && <SourceChanged post={sheet} onDone={reload} />}
      <WhatBecameOfIt editor={editor} sheet={sheet} zone={brand.zone} onOpen={onOpen} />
      <Writing
        editor={editor}
        postId={sheet.id}
        network={channel.sheet.slug}
        disabled={isFixed}
        tools={
          <>
            <WordButton onClick={() => setVersionsOpen(true)}>Versions</WordButton>
            <WordButton aria-pressed={isPreviewed} onClick={() => setPreviewed(!isPreviewed)}>
              Preview
            </WordButton>
            <Link className="word push" href={`/${brand.slug}/pieces/${sheet.pieceId}/words`} prefetch={false}>
              Write all posts side by side
            </Link>
          </>
        }
      >
        {isPreviewed && <Preview sheet={sheet} texts={texts} rules={channel.sheet} />}
        <Words
          editor={editor}
          texts={texts}
          sheet={channel.sheet}
          format={sheet.format}
          unread={unread}
          disabled={isFixed}
        />
        <Parts editor={editor} texts={texts} sheet={sheet} rules={channel.sheet} unread={unread} disabled={isFixed} />
        <Pictures editor={editor} sheet={sheet} rules={channel.sheet} disabled={isFixed} />
        <Notes editor={editor} texts={texts} format={sheet.format} disabled={isFixed} />
      </Writing>
      {isVersionsOpen && (
        <Versions
          postId={sheet.id}
          now={writtenOf(writtenSheet(sheet, texts))}
          onTake={isFixed ? null : (words) => void takeVersion(words)}
          onClose={() => setVersionsOpen(false)}
        />
      )}
      {sheet.stage !== 'setAside' && <Prep editor={editor} sheet={sheet} />}
      <SignOffLine editor={editor} sheet={sheet} />
      {!isOut && (
        <Missing
          blocks={blocks}
          wants={wants}
          unread={unread}
          editor={editor}
          postId={sheet.id}
          pieceId={sheet.pieceId}
        />
      )}
      <div className="sheet-foot">
        {editor.problem && !['title', 'hashtags', 'link'].includes(editor.problem.field ?? '') && (
          <div className="notice is-wrong" role="alert">
            {editor.problem.message}
          </div>
        )}
        <Deeds
          editor={editor}
          sheet={sheet}
          channel={channel}
          blocks={blocks}
          wants={wants}
          onGone={() => {
            onGone(sheet.id);
            onClose();
          }}
          onUndo={onUndo}
        />
      </div>
    </section>
  );
}

/** The six stages as a bar; the ones a person may choose are pressed to go there. */
function StageBar({ editor, sheet }: { editor: PostEditor; sheet: PostSheet }) {
  const say = useSay();
  const may = useMay();
  const isMoved = may('changePosts') && (sheet.stage !== 'scheduled' || may('send'));
  const here = STAGES.indexOf(sheet.stage as (typeof STAGES)[number]);

  async function go(stage: Stage) {
    const deed = stage === 'scheduled' ? { deed: 'schedule' } : { deed: 'stage', stage };
    const answer = await editor.change<ChangedPost>('POST', `/api/posts/${sheet.id}/deeds`, (version) => ({
      ...deed,
      version,
    }));
    const problem = problemOf(answer);
    if (problem) say({ text: problem, wrong: true });
    if (answer.kind === 'done') for (const text of departureWords(answer.value.outcome)) say({ text });
  }

  return (
    <ol className={`stage-bar${sheet.stage === 'published' ? ' is-published' : ''}`} aria-label="Stage">
      {STAGES.map((stage, index) => (
        <li key={stage}>
          <button
            type="button"
            className={`${index <= here ? 'is-reached' : ''}${index === here ? ' is-here' : ''}`}
            aria-current={index === here ? 'step' : undefined}
            disabled={
              here < 0 ||
              sheet.stage === 'published' ||
              stage === 'published' ||
              index === here ||
              !isMoved ||
              (stage === 'scheduled' && !may('send'))
            }
            onClick={() => void go(stage)}
          >
            {STAGE_LABELS[stage]}
          </button>
        </li>
      ))}
    </ol>
  );
}

/** How its delivery stands, where a person should know. */
function Notices({ sheet, zone }: { sheet: PostSheet; zone: string }) {
  const { delivery, stage } = sheet;
  return (
    <>
      {stage === 'setAside' && <div className="notice">Set aside: {sheet.setAsideReason}</div>}
      {stage === 'published' && (
        <div className="notice is-good">
          Published {sheet.publishedAt ? dayAndTime(sheet.publishedAt, zone) : 'a while ago'}.
        </div>
      )}
      {delivery?.differs && (
        <div className="notice" role="status">
          <b>This is not what will be sent.</b> What was scheduled {dayAndTime(delivery.copiedAt, zone)} will be sent,
          until you schedule it again.
        </div>
      )}
      {stage === 'scheduled' && delivery?.awaitsRelease && (
        <div className="notice">
          <b>It waits to be released.</b> Bimlo’s data was restored, so it is not sent before a manager releases it in
          Departures.
        </div>
      )}
      {stage === 'scheduled' && delivery?.state === 'failed' && (
        <div className="notice is-wrong">
          <b>It was not sent.</b> The network said: “{delivery.words}”
        </div>
      )}
      {stage === 'scheduled' && delivery?.state === 'held' && (
        <div className="notice is-wrong">
          <b>On hold.</b> {delivery.words || 'It missed its time.'} Send it now, give it another time, or set it aside.
        </div>
      )}
      {stage === 'scheduled' && delivery?.state === 'waiting' && delivery.attempts > 0 && (
        <div className="notice">
          Tried {delivery.attempts === 1 ? 'once' : `${delivery.attempts} times`}: “{delivery.words}”. Again at{' '}
          {dayAndTime(delivery.nextTryAt, zone)}.
        </div>
      )}
    </>
  );
}
