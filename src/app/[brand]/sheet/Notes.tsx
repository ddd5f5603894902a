'use client';

import { useId } from 'react';
import { lengthWords, spokenSeconds, spokenWords } from '@/core/captions/spoken';
import type { NoteField } from '@/core/posts/texts';
import { notesOf, WRITTEN_LABELS } from '@/core/posts/written';
import type { Format } from '@/core/rulesheets/types';
import { useShell } from '@/ui/shell';
import type { PostEditor, Texts } from './usePostEditor';
import { BothTexts } from './Words';

const PLACEHOLDERS: Record<NoteField, string> = {
  script: 'What is said. [What is not said stands in brackets]',
  coverIdeas: 'One idea per line',
  agenda: 'One point per line',
};

/** The texts a post is made from and that never leave: script, cover ideas, agenda. */
export function Notes({
  editor,
  texts,
  format,
  disabled,
}: {
  editor: PostEditor;
  texts: Texts;
  format: Format;
  disabled: boolean;
}) {
  const prefix = useId();
  return notesOf(format).map((field) => (
    <div className="words" key={field}>
      <label htmlFor={`${prefix}-${field}`}>
        <span>{WRITTEN_LABELS[field]}</span>
        <span className="soft">never sent</span>
      </label>
      <textarea
        dir="auto"
        id={`${prefix}-${field}`}
        data-field={field}
        className="form-control note-text"
        value={texts[field]}
        placeholder={PLACEHOLDERS[field]}
        disabled={disabled}
        onChange={(event) => editor.type(field, event.target.value)}
      />
      {field === 'script' && <SpokenLength script={texts.script} />}
      <BothTexts editor={editor} field={field} />
    </div>
  ));
}

function SpokenLength({ script }: { script: string }) {
  const { wordsPerMinute } = useShell().brand;
  if (script.trim() === '') return null;
  return (
    <div className="count-line">
      <span>
        spoken <b className="figures">{lengthWords(spokenSeconds(script, wordsPerMinute))}</b>
      </span>
      <span className="figures">
        {spokenWords(script)} words at {wordsPerMinute} a minute
      </span>
    </div>
  );
}
