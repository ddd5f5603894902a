'use client';

import { postText } from '@/core/posts/texts';
import dynamic from 'next/dynamic';
import type { ReactNode } from 'react';
import type { FieldFit } from '@/core/captions/compose';
import { spansOf, type DraftedMark } from '@/core/posts/unread';
import type { RuleSheet, TextFieldRule } from '@/core/rulesheets/types';
import { Marked, MarkedText } from '@/ui/MarkedText';

const RichText = dynamic(() => import('./RichText').then((module) => module.RichText), { ssr: false });

const number = new Intl.NumberFormat('en-GB');

/** One text of a post with its count. What is added when it is sent stands below what is typed. */
export function CountedText({
  fit,
  typed,
  sheet,
  disabled,
  unread,
  onType,
  onStep,
  children,
}: {
  fit: FieldFit;
  typed: string;
  sheet: RuleSheet;
  disabled: boolean;
  /** Sentences of its draft that nobody has read. */
  unread: readonly DraftedMark[];
  onType: (text: string) => void;
  /** Goes back or forward over what was typed before the page was loaded. */
  onStep: (way: 'undo' | 'redo') => boolean;
  children?: ReactNode;
}) {
  const { rule } = fit;
  const rest = fit.text.slice(typed.trim() === '' ? 0 : typed.length);
  const restFrom = fit.text.length - rest.length;
  return (
    <div className="words">
      <div className="words-label">
        <span>{rule.label}</span>
      </div>
      {rule.rich ? (
        <RichText
          label={rule.label}
          field={rule.name}
          onStep={onStep}
          value={typed}
          onType={onType}
          disabled={disabled}
          describedBy={`count-${rule.name}`}
        />
      ) : (
        <MarkedText
          label={rule.label}
          field={rule.name}
          value={typed}
          onType={onType}
          foldAt={fit.foldAt}
          overAt={fit.overAt}
          oneLine={postText(rule.name).isLine ?? false}
          disabled={disabled}
          unread={spansOf(typed, unread)}
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
      )}
      <div className="count-line" id={`count-${rule.name}`}>
        <span>{rulesInWords(rule, sheet)}</span>
        <CountOf count={fit.count} limit={rule.limit} />
      </div>
      {children}
    </div>
  );
}

/** How many units a text has, and how many are left. */
export function CountOf({ count, limit }: { count: number; limit: number }) {
  const left = limit - count;
  return (
    <span className={`figures${left < 0 ? ' is-over' : ''}`}>
      <b>{number.format(count)}</b> of {number.format(limit)},{' '}
      {left < 0 ? `${number.format(-left)} over` : `${number.format(left)} left`}
    </span>
  );
}

function rulesInWords(rule: TextFieldRule, sheet: RuleSheet): string {
  const words: string[] = [];
  if (rule.fold?.units != null) words.push(`cut off after ${rule.fold.units}, then “more”`);
  if (rule.linkLength !== null) words.push(`a link counts ${rule.linkLength}`);
  if (rule.wideWeight === 2) words.push('wide characters count 2');
  if (rule.name === 'caption' && !sheet.linksClickable) words.push('links are not clickable');
  return words.join(' · ');
}
