'use client';

import { useEffect, useRef, type KeyboardEvent } from 'react';
import { postText, type WrittenField } from '@/core/posts/texts';
import { isTextOf, WRITTEN_LABELS } from '@/core/posts/written';
import type { Slip } from '@/core/calendar/slip';
import { call, problemOf } from '@/ui/api';
import { useSay } from '@/ui/messages';
import { useLearnTexts, useRowTexts, useTyped } from './rowTexts';
import { useTimetable } from './timetable';

/** A text of a post in its row: read there, and changed there where it is not too long for that. What goes out of sight is saved as if left. */
export function TextCell({
  slip,
  field,
  isOut,
  isInUse,
  onWritten,
}: {
  slip: Slip;
  field: WrittenField;
  isOut: boolean;
  isInUse: boolean;
  /** Told of the post as it is after a text was written. */
  onWritten: (slip: Slip) => void;
}) {
  const row = useRowTexts(slip.id);
  const texts = useLearnTexts();
  const sheet = useTimetable().channels.get(slip.channelId)?.sheet;
  const say = useSay();
  const typed = useTyped(slip.id, field);
  const setTyped = (text: string | null) => texts.type(slip.id, field, text);
  const isSaving = useRef(false);
  const leave = useRef(() => {});
  useEffect(() => () => leave.current(), []);
  const text = row?.texts[field];
  if (text === undefined || !sheet || !isTextOf(field, sheet, slip.format)) return null;
  const label = `${WRITTEN_LABELS[field]} of ${slip.title}`;
  const isCut = row!.cut.includes(field);
  leave.current = () => void save();
  if (typed === null) {
    const shown = isCut ? `${text}…` : text;
    if (isOut) return <span className="list-text">{shown}</span>;
    if (isCut)
      return (
        <button
          type="button"
          className="list-text can-change"
          data-post={slip.id}
          aria-label={`${label}: open to change`}
        >
          {shown}
        </button>
      );
    return (
      <button
        type="button"
        className="list-text can-change"
        aria-label={`${label}: ${shown || 'empty'}. Change`}
        onClick={() => setTyped(text)}
      >
        {shown || (isInUse && <span className="soft">write</span>)}
      </button>
    );
  }

  async function save() {
    if (typed === null || isSaving.current) return;
    if (typed === text) return setTyped(null);
    isSaving.current = true;
    const answer = await call<{ slip: Slip }>('PATCH', `/api/posts/${slip.id}`, {
      version: slip.version,
      [field]: typed,
    });
    isSaving.current = false;
    if (answer.kind !== 'done') {
      // What was typed stays where it is.
      say({ text: problemOf(answer) ?? 'Not saved.', wrong: true });
      return;
    }
    const { version } = answer.value.slip;
    texts.learn([{ ...row!, version, texts: { ...row!.texts, [field]: typed } }]);
    onWritten(answer.value.slip);
    setTyped(null);
  }

  const isLine = postText(field).isLine === true;
  const props = {
    dir: 'auto',
    autoFocus: true,
    className: 'list-text-field',
    'aria-label': label,
    value: typed,
    onChange: ({ target }: { target: { value: string } }) => setTyped(target.value),
    onBlur: () => void save(),
    onKeyDown: (event: KeyboardEvent) => {
      if (event.key === 'Enter' && (isLine || event.ctrlKey || event.metaKey)) void save();
      if (event.key !== 'Escape') return;
      event.stopPropagation();
      setTyped(null);
    },
  } as const;
  return isLine ? <input {...props} /> : <textarea rows={5} {...props} />;
}
