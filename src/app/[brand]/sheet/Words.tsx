'use client';

import { sentWordsOf } from '@/core/delivery/parcel';
import { postText } from '@/core/posts/texts';
import { useId, useMemo } from 'react';
import { fitTexts } from '@/core/captions/compose';
import type { DraftedMark } from '@/core/posts/unread';
import type { Format, RuleSheet } from '@/core/rulesheets/types';
import { CountedText } from './CountedText';
import type { Conflict, PostEditor, Texts } from './usePostEditor';
import { FieldRefusal } from '@/ui/FieldRefusal';
import Button from 'react-bootstrap/Button';

/** The texts that a format has on its network, counted as that network counts them while one types. */
export function Words({
  editor,
  texts,
  sheet,
  format,
  unread,
  disabled,
}: {
  editor: PostEditor;
  texts: Texts;
  sheet: RuleSheet;
  format: Format;
  /** Sentences of its draft that nobody has read. */
  unread: readonly DraftedMark[];
  disabled: boolean;
}) {
  const fits = useMemo(() => fitTexts(sentWordsOf(texts), sheet, format), [texts, sheet, format]);
  const text = (fit: (typeof fits)[number]) => (
    <CountedText
      key={fit.rule.name}
      fit={fit}
      typed={texts[fit.rule.name]}
      sheet={sheet}
      disabled={disabled}
      unread={unread.filter(({ field }) => field === fit.rule.name)}
      onType={(typed) => editor.type(fit.rule.name, typed)}
      onStep={(way) => editor.step(fit.rule.name, way)}
    >
      <BothTexts editor={editor} field={fit.rule.name} />
    </CountedText>
  );
  return (
    <>
      {fits.filter(({ rule }) => !postText(rule.name).isBelowLink).map(text)}
      {sheet.hashtagLimit !== 0 && (
        <OneLine
          editor={editor}
          field="hashtags"
          label="Hashtags"
          placeholder="#OneWord #Another"
          texts={texts}
          disabled={disabled}
        />
      )}
      <OneLine editor={editor} field="link" label="Link" placeholder="https://" texts={texts} disabled={disabled} />
      {fits.filter(({ rule }) => postText(rule.name).isBelowLink).map(text)}
    </>
  );
}

function OneLine({
  editor,
  field,
  label,
  placeholder,
  texts,
  disabled,
}: {
  editor: PostEditor;
  field: 'hashtags' | 'link';
  label: string;
  placeholder: string;
  texts: Texts;
  disabled: boolean;
}) {
  const prefix = useId();
  return (
    <div className="words">
      <label htmlFor={`${prefix}-${field}`}>{label}</label>
      <input
        dir="auto"
        id={`${prefix}-${field}`}
        data-field={field}
        className="form-control"
        value={texts[field]}
        placeholder={placeholder}
        disabled={disabled}
        onChange={(event) => editor.type(field, event.target.value)}
      />
      {editor.problem?.field === field && <FieldRefusal tied>{editor.problem.message}</FieldRefusal>}
      <BothTexts editor={editor} field={field} />
    </div>
  );
}

/** The two texts of a field that was changed here and elsewhere, to choose from. */
export function BothTexts({ editor, field }: { editor: PostEditor; field: Conflict['field'] }) {
  const conflict = editor.conflicts.find((candidate) => candidate.field === field);
  if (!conflict || !editor.texts) return null;
  return (
    <div className="notice is-wrong" role="alert">
      Somebody else changed this while you were editing, so yours was not saved.
      <div className="both-texts">
        <div>
          <b>Yours</b>
          <pre>{editor.texts[field]}</pre>
          <Button variant="outline-primary" size="sm" onClick={() => editor.settle(conflict, 'mine')}>
            Keep mine
          </Button>
        </div>
        <div>
          <b>Theirs</b>
          <pre>{conflict.theirs}</pre>
          <Button variant="outline-primary" size="sm" onClick={() => editor.settle(conflict, 'theirs')}>
            Use theirs
          </Button>
        </div>
      </div>
    </div>
  );
}
