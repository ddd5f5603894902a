'use client';

import { DateField } from '@/ui/DateField';
import { WordButton } from '@/ui/WordButton';

/** A named span of days. */
export interface Span {
  name: string;
  from: string;
  to: string;
}

/** A list of named spans of days that can be added to. */
export function SpanList({
  legend,
  spans,
  onChange,
}: {
  legend: string;
  spans: readonly Span[];
  onChange: (spans: readonly Span[]) => void;
}) {
  const set = (index: number, part: Partial<Span>) =>
    onChange(spans.map((span, at) => (at === index ? { ...span, ...part } : span)));
  return (
    <fieldset className="span-list">
      <legend className="form-label">{legend}</legend>
      {spans.map((span, index) => (
        <div key={index} className="span-row">
          <input
            dir="auto"
            aria-label="What for"
            placeholder="What for"
            value={span.name}
            onChange={(event) => set(index, { name: event.target.value })}
          />
          <DateField label="From" value={span.from} onChange={(date) => set(index, { from: date })} />
          <span>to</span>
          <DateField label="To" value={span.to} onChange={(date) => set(index, { to: date })} />
          <WordButton
            className="soft"
            aria-label={`Remove ${span.name || 'this span'}`}
            onClick={() => onChange(spans.filter((_, at) => at !== index))}
          >
            Remove
          </WordButton>
        </div>
      ))}
      <WordButton onClick={() => onChange([...spans, { name: '', from: '', to: '' }])}>Add days</WordButton>
    </fieldset>
  );
}
