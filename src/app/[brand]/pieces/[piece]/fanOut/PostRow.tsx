'use client';

import { useId, useState } from 'react';
import { VARIANT_LABELS, type Draft } from '@/core/drafts/draft';
import { EXTRACT_LABELS } from '@/core/extracts/extracts';
import { moments } from '@/core/extracts/moments';
import { WRITTEN_FIELDS, WRITTEN_LABELS, type WrittenField } from '@/core/posts/written';
import { FORMAT_LABELS } from '@/core/rulesheets/types';
import { holdsOn } from '@/core/shelf/fits';
import { counted } from '@/core/words';
import type { FanOutPlan } from '@/usecases/fanOut/planFanOut';
import { overIn, roomOf, type TextRoom } from '@/core/fanOut/ownTexts';
import { useShell } from '@/ui/shell';
import { WordButton } from '@/ui/WordButton';
import { PlannedDate, plannedOf } from '../../../PlannedDate';
import type { OwnChange } from './useFanOut';

/** Texts that come of themselves: hashtags with the caption, the link with the piece. */
const NOT_HERE: readonly WrittenField[] = ['hashtags', 'link'];

/** The texts of a draft that are changed in the preview, in the order in which a post has them; its caption always. */
const shownFields = (draft: Draft | undefined): WrittenField[] =>
  WRITTEN_FIELDS.filter((field) => field === 'caption' || (draft?.words[field] && !NOT_HERE.includes(field)));

/** A post of a preview with its draft and date: left out or not, moved, read and changed. */
export function PostRow({
  post,
  own,
  onChange,
}: {
  post: FanOutPlan['posts'][number];
  own: OwnChange;
  onChange: (part: OwnChange) => void;
}) {
  const [isOpen, setOpen] = useState(false);
  const draft = post.drafts[own.draft ?? 0];
  const textOf = (field: WrittenField) => own.words?.[field] ?? draft?.words[field] ?? '';
  const parts = own.parts ?? draft?.parts ?? [];
  const headline = textOf('headline');
  const caption = textOf('caption');
  const [source] = post.from;
  const { isMoved, date } = plannedOf(post, own);
  // What it was chosen for is not what it is published on.
  const call = post.call && !holdsOn(post.call.fits, date) && caption.includes(post.call.text) ? post.call : null;
  const channel = useShell().channels.find(({ id }) => id === post.channelId);
  const room = channel ? roomOf(draft, own, channel.sheet, post.format) : [];
  const roomFor = (of: TextRoom['of']) => room.find((one) => one.of === of);
  const [over] = overIn(room);
  const says = caption.split('\n')[0] || headline;
  const name = `${FORMAT_LABELS[post.format]} for ${channel?.name ?? ''}${says ? `: ${says.slice(0, 80)}` : ''}`;
  return (
    <li className={own.isOff ? 'is-off' : ''} data-fan-out-post={post.key}>
      <input
        type="checkbox"
        aria-label={`Make the ${name}`}
        checked={!own.isOff}
        onChange={(event) => onChange({ isOff: !event.target.checked })}
      />
      <span className="fan-out-date">
        <PlannedDate name={name} shown={post} own={own} onChange={onChange} />
        {!isMoved && post.isSqueezed && <span className="attention small-text"> too little time</span>}
        {call && isMoved && (
          <span className="attention small-text">
            {' '}
            “{call.text}” does not hold then.{' '}
            <WordButton
              onClick={() => onChange({ words: { ...own.words, caption: caption.replace(call.text, '').trim() } })}
            >
              Take it out
            </WordButton>
          </span>
        )}
        {!isMoved && post.date === null && <span className="attention small-text"> no opening within a year</span>}
      </span>
      <div className="fan-out-draft">
        {headline && !isOpen && <b>{headline}</b>}
        {isOpen ? (
          <>
            {shownFields(draft).map((field) => (
              <DraftText
                key={field}
                label={field === 'caption' ? `Draft of “${name}”` : `${WRITTEN_LABELS[field]} of “${name}”`}
                shownLabel={field === 'caption' ? null : WRITTEN_LABELS[field]}
                text={textOf(field)}
                room={roomFor(field)}
                onChange={(text) => onChange({ words: { ...own.words, [field]: text } })}
              />
            ))}
            {parts.length > 0 && (
              <ol className="fan-out-parts small-text">
                {parts.map((part, at) => (
                  <li key={at}>
                    <DraftText
                      label={`Part ${at + 1} of “${name}”`}
                      shownLabel={null}
                      text={part}
                      room={roomFor(at)}
                      onChange={(text) => onChange({ parts: parts.with(at, text) })}
                    />
                  </li>
                ))}
              </ol>
            )}
            {post.drafts.length > 1 && (
              <span role="group" aria-label="How it opens" className="small-text">
                {post.drafts.map((one, at) => (
                  <WordButton
                    key={at}
                    aria-pressed={at === (own.draft ?? 0)}
                    onClick={() => onChange({ draft: at, words: undefined, parts: undefined })}
                  >
                    {one.variant ? VARIANT_LABELS[one.variant] : 'as it is'}
                  </WordButton>
                ))}
              </span>
            )}
          </>
        ) : (
          <div className="fan-out-caption" dir="auto">
            {over && <span className="attention">{over}. </span>}
            {draft ? caption.replace(/\s+/g, ' ') : 'no draft: the piece gives nothing for it'}
          </div>
        )}
        <span className="soft small-text">
          {source
            ? `${EXTRACT_LABELS[source.kind]}${source.inMs !== undefined && source.outMs !== undefined ? ` ${moments(source.inMs, source.outMs)}` : ''}`
            : post.pictures
              ? counted(post.pictures.length, 'picture')
              : 'the whole piece'}
          {draft &&
            draft.parts.length > 0 &&
            `, ${counted(draft.parts.length + (post.format === 'thread' ? 1 : 0), 'part')}`}
          {(draft?.sentences ?? []).some(({ isShortened }) => isShortened) && (
            <span title="Words like “And” or “So”, which only tie a sentence to the one before it, are left off.">
              {' · '}
              {counted(
                draft!.sentences.filter(({ isShortened }) => isShortened).length,
                'sentence begins later',
                'sentences begin later',
              )}{' '}
              than in the piece
            </span>
          )}
          {(draft?.sentences ?? []).some(({ origin }) => origin === 'service') &&
            ' · by your writing service, not read yet'}
          {(draft?.sentences ?? []).some(({ origin }) => origin === 'phrase') &&
            ` · ${counted(draft!.sentences.filter(({ origin }) => origin === 'phrase').length, 'phrase')} by Bimlo`}
        </span>
      </div>
      <WordButton
        aria-expanded={isOpen}
        aria-label={`${isOpen ? 'Close' : 'Read'} the draft of “${name}”`}
        onClick={() => setOpen(!isOpen)}
      >
        {isOpen ? 'Close' : 'Read'}
      </WordButton>
    </li>
  );
}

/** A text of a draft, to be changed. */
function DraftText({
  label,
  shownLabel,
  text,
  room,
  onChange,
}: {
  label: string;
  /** Null where it stands without one. */
  shownLabel: string | null;
  text: string;
  /** What it counts on its network; absent for a text that is not sent. */
  room: TextRoom | undefined;
  onChange: (text: string) => void;
}) {
  const id = useId();
  return (
    <>
      {shownLabel && (
        <label htmlFor={id} className="soft small-text">
          {shownLabel}
        </label>
      )}
      <textarea
        id={id}
        className="form-control"
        dir="auto"
        aria-label={label}
        rows={Math.min(14, Math.max(Math.ceil(text.length / 90), text.split('\n').length + 1))}
        value={text}
        onChange={(event) => onChange(event.target.value)}
      />
      {room && (
        <span
          className={`figures small-text fan-out-room ${room.count > room.limit ? 'attention' : 'soft'}`}
          aria-live={room.count > room.limit ? 'polite' : 'off'}
        >
          {room.count > room.limit ? `${room.count - room.limit} too many` : `${room.count} of ${room.limit}`}
        </span>
      )}
    </>
  );
}
