'use client';

import { useMemo } from 'react';
import { fitTexts } from '@/core/captions/compose';
import type { RuleSheet } from '@/core/rulesheets/types';
import { Marked, MarkedText } from '@/ui/MarkedText';
import type { Conflict, PostEditor, Texts } from './usePostEditor';

const number = new Intl.NumberFormat('en-GB');

/** The texts of a post, counted as its network counts them while one types. */
export function Words({
  editor,
  texts,
  sheet,
  disabled,
}: {
  editor: PostEditor;
  texts: Texts;
  sheet: RuleSheet;
  disabled: boolean;
}) {
  const { headline, caption, hashtags, link } = texts;
  const fits = useMemo(
    () => fitTexts({ headline, caption, hashtags, link }, sheet),
    [headline, caption, hashtags, link, sheet],
  );
  return (
    <>
      {fits.map((fit) => {
        const { rule } = fit;
        const typed = texts[rule.name];
        const rest = fit.text.slice(typed.trim() === '' ? 0 : typed.length);
        const restFrom = fit.text.length - rest.length;
        const isOver = fit.left < 0;
        return (
          <div className="words" key={rule.name}>
            <div className="words-label">
              <span>{rule.label}</span>
            </div>
            <MarkedText
              label={rule.label}
              value={typed}
              onType={(text) => editor.type(rule.name, text)}
              foldAt={fit.foldAt}
              overAt={fit.overAt}
              oneLine={rule.name === 'headline'}
              disabled={disabled}
              describedBy={`count-${rule.name}`}
              placeholder={`${rule.label} on ${sheet.name}`}
              below={
                rest.trim() !== '' && (
                  <div className="composed-rest" aria-label="Added when it is sent">
                    <Marked
                      text={rest.trimStart()}
                      from={restFrom + rest.length - rest.trimStart().length}
                      foldAt={fit.foldAt}
                      overAt={fit.overAt}
                    />
                  </div>
                )
              }
            />
            <div className="count-line" id={`count-${rule.name}`}>
              <span>{rulesInWords(fit.rule, sheet)}</span>
              <span className={`figures${isOver ? ' is-over' : ''}`}>
                <b>{number.format(fit.count)}</b> of {number.format(rule.limit)},{' '}
                {isOver ? `${number.format(-fit.left)} over` : `${number.format(fit.left)} left`}
              </span>
            </div>
            <BothTexts editor={editor} field={rule.name} />
          </div>
        );
      })}
      {sheet.hashtagLimit !== 0 && (
        <OneLine
          editor={editor}
          field="hashtags"
          label="Hashtags"
          placeholder="#NightSky #Rings"
          texts={texts}
          disabled={disabled}
        />
      )}
      <OneLine editor={editor} field="link" label="Link" placeholder="https://" texts={texts} disabled={disabled} />
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
  return (
    <div className="words">
      <label htmlFor={`post-${field}`}>{label}</label>
      <input
        id={`post-${field}`}
        className="form-control"
        value={texts[field]}
        placeholder={placeholder}
        disabled={disabled}
        onChange={(event) => editor.type(field, event.target.value)}
      />
      {editor.problem?.field === field && (
        <div className="field-refusal" role="alert">
          {editor.problem.message}
        </div>
      )}
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
      Somebody changed this meanwhile, so yours was not saved.
      <div className="both-texts">
        <div>
          <b>Yours</b>
          <pre>{editor.texts[field]}</pre>
          <button
            type="button"
            className="btn btn-outline-primary btn-sm"
            onClick={() => editor.settle(conflict, 'mine')}
          >
            Keep yours
          </button>
        </div>
        <div>
          <b>Theirs</b>
          <pre>{conflict.theirs}</pre>
          <button
            type="button"
            className="btn btn-outline-primary btn-sm"
            onClick={() => editor.settle(conflict, 'theirs')}
          >
            Take theirs
          </button>
        </div>
      </div>
    </div>
  );
}

function rulesInWords(rule: RuleSheet['fields'][number], sheet: RuleSheet): string {
  const words: string[] = [];
  if (rule.fold?.units != null) words.push(`fold after ${rule.fold.units}`);
  if (rule.linkLength !== null) words.push(`a link counts ${rule.linkLength}`);
  if (rule.wideWeight === 2) words.push('wide characters count 2');
  if (rule.name === 'caption' && !sheet.linksClickable) words.push('links are not clickable');
  return words.join(' · ');
}
