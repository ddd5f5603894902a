'use client';

import { useId } from 'react';
import { KIND_LABELS, PIECE_KINDS } from '@/core/pieces/kinds';
import { weekdayWord } from '@/core/rhythm/entry';
import type { Fits } from '@/core/shelf/fits';
import type { ShelfKind } from '@/core/shelf/shelf';
import { DateField } from '@/ui/DateField';
import { dateWithYear } from '@/ui/format';
import { withArticle } from '@/core/words';
import { useShell } from '@/ui/shell';
import { Weekdays } from '@/ui/Weekdays';

/** The names of the networks a brand is on, by the slug of their rule sheet. */
export function useNetworkNames(): ReadonlyMap<string, string> {
  const { channels } = useShell();
  return new Map(channels.map(({ sheet }) => [sheet.slug, sheet.name]));
}

/** For what an item of the shelf is put into drafts, in words. */
export function fitsWords(
  { kinds, networks, weekdays, until, about }: Fits,
  names: ReadonlyMap<string, string>,
  kind: ShelfKind,
): string {
  const parts = [
    kinds && `of ${kinds.map((kind) => withArticle(KIND_LABELS[kind])).join(' or ')}`,
    networks && `on ${networks.map((slug) => names.get(slug) ?? slug).join(' or ')}`,
    weekdays && `published on ${weekdays.map((day) => weekdayWord(day)).join(' or ')}`,
    about &&
      `about ${about
        .split(',')
        .map((word) => word.trim())
        .join(' or ')}`,
    until && `until ${dateWithYear(until)}`,
  ].filter(Boolean);
  if (parts.length > 0) return `ends drafts ${parts.join(', ')}`;
  return kind === 'callToAction' ? 'ends drafts of anything' : 'is put in by hand only';
}

/** For what an item of the shelf is put into drafts: kinds of piece, networks, days, words, and until when. Nothing chosen is any. */
export function FitsFields({
  kind: of,
  fits,
  onChange,
}: {
  kind: ShelfKind;
  fits: Fits;
  onChange: (fits: Fits) => void;
}) {
  const names = useNetworkNames();
  const about = useId();
  const without = <V,>(list: readonly V[], one: V, isOn: boolean) =>
    isOn ? [...list, one] : list.filter((other) => other !== one);
  const ticks = <V extends string>(
    legend: string,
    all: readonly V[],
    chosen: readonly V[],
    label: (one: V) => string,
    set: (list: V[]) => void,
  ) => (
    <fieldset className="weekdays">
      <legend className="form-label">{legend}</legend>
      {all.map((one) => (
        <label key={one}>
          <input
            type="checkbox"
            checked={chosen.includes(one)}
            onChange={(event) => set(without(chosen, one, event.target.checked))}
          />{' '}
          {label(one)}
        </label>
      ))}
    </fieldset>
  );
  return (
    <details className="shelf-fits">
      <summary>{fitsWords(fits, names, of)}</summary>
      <p className="soft small-text">
        What you leave open holds for any. At most every third post of a piece ends with one.
      </p>
      {ticks(
        'Pieces that are a',
        PIECE_KINDS,
        fits.kinds ?? [],
        (kind) => KIND_LABELS[kind],
        (kinds) => onChange({ ...fits, kinds }),
      )}
      {ticks(
        'Networks',
        [...names.keys()],
        fits.networks ?? [],
        (slug) => names.get(slug)!,
        (networks) => onChange({ ...fits, networks }),
      )}
      <Weekdays
        legend="Published on"
        chosen={fits.weekdays ?? []}
        onChange={(weekdays) => onChange({ ...fits, weekdays })}
      />
      <label className="form-label" htmlFor={about}>
        About, in words of which one has to stand in the piece’s title or the post
      </label>
      <input
        id={about}
        className="form-control"
        dir="auto"
        placeholder="star night, dome"
        value={fits.about ?? ''}
        onChange={(event) => onChange({ ...fits, about: event.target.value })}
      />
      <span className="form-label shelf-for">Until</span>
      <DateField
        label="Until"
        value={fits.until ?? ''}
        onChange={(day) => {
          const { until: _until, ...others } = fits;
          onChange(day === '' ? others : { ...others, until: day });
        }}
      />
    </details>
  );
}
