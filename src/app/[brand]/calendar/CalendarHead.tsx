'use client';

import type { Options } from 'nuqs';
import { writeFilter, type CalendarFilter } from '@/core/calendar/filter';
import { weekNumber } from '@/core/time/days';
import type { LocalDate } from '@/core/time/plan';
import type { SavedView } from '@/usecases/calendar/reading';
import type { CalendarView } from '@/usecases/calendar/loadCalendar';
import { useShell } from '@/ui/shell';
import { FilterBar } from './FilterBar';
import { presentAddress, titleOf } from './heading';
import { unique, type BrandShown } from './makeTimetable';
import { SavedViews } from './SavedViews';
import { VIEWS, type Look, type ViewName, DENSITIES, type Density } from './view';
import { WordButton } from '@/ui/WordButton';
import { TermHint } from '@/ui/TermHint';
import { counted } from '@/core/words';

const DENSITY_LABELS: Record<Density, string> = {
  room: 'as fits',
  titles: 'with titles',
  lines: 'times only',
};

/**
 * What the address of the calendar holds.
 *
 * @internal
 */
export type Query = Record<string, string | null>;

/** Over the calendar: what span shows and how much, the ways to arrange it, to go about in it and to narrow it. */
export function CalendarHead({
  asked: { arrangement, date, weeks },
  shown,
  brandsShown,
  savedViews,
  counts,
  query,
  onQuery,
  turning,
  onTurn,
  waits,
  look,
  filter,
}: {
  asked: { arrangement: ViewName; date: LocalDate; weeks: 1 | 2 };
  shown: CalendarView;
  brandsShown: readonly BrandShown[];
  savedViews: readonly SavedView[];
  /** How many posts show, and openings that are left. */
  counts: { posts: number; openings: number };
  query: Query;
  onQuery: (part: Query, options?: Options) => Promise<unknown>;
  /** Another span is on its way. */
  turning: boolean;
  onTurn: (periods: number) => void;
  /** Changes wait for a server that cannot be reached. */
  waits: boolean;
  look: Look;
  filter: CalendarFilter;
}) {
  const { brands } = useShell();
  return (
    <header className="place-head calendar-head">
      <h1>{titleOf(arrangement, date, shown.dates, look.period)}</h1>
      <span className="soft">
        {arrangement === 'lanes' && `week ${weekNumber(date)} · `}
        {counts.posts === 1 ? '1 post' : `${counts.posts} posts`}
        {shown.openings.length > 0 && (
          <>
            {' · '}
            <TermHint term="opening">{counted(counts.openings, 'opening')} left</TermHint>
          </>
        )}
      </span>
      {waits && <span className="attention">not saved yet, trying again</span>}
      <nav className="arrangements push" aria-label="Arrangement">
        {VIEWS.map(({ name, label }, index) => (
          <button
            key={name}
            type="button"
            aria-current={name === arrangement ? 'true' : undefined}
            aria-keyshortcuts={String(index + 1)}
            onClick={() => void onQuery({ as: name })}
          >
            <sup className="figures">{index + 1}</sup> {label}
          </button>
        ))}
      </nav>
      <div className="calendar-bar">
        {arrangement !== 'stages' && (
          <div className="period" aria-busy={turning}>
            <button
              type="button"
              className="step"
              onClick={() => onTurn(-1)}
              aria-label="Period before"
              aria-keyshortcuts="["
            >
              ‹
            </button>
            <WordButton onClick={() => void onQuery({ date: null })} aria-keyshortcuts="0">
              Today
            </WordButton>
            <button
              type="button"
              className="step"
              onClick={() => onTurn(1)}
              aria-label="Period after"
              aria-keyshortcuts="]"
            >
              ›
            </button>
          </div>
        )}
        {arrangement === 'lanes' && (
          <span className="weeks">
            <WordButton aria-pressed={weeks === 1} onClick={() => void onQuery({ weeks: null })}>
              One week
            </WordButton>
            <span className="soft"> · </span>
            <WordButton aria-pressed={weeks === 2} onClick={() => void onQuery({ weeks: '2' })}>
              Two weeks
            </WordButton>
            {weeks === 2 && (
              <select
                className="plain-select density"
                aria-label="How much slips show"
                value={look.density}
                onChange={({ target: { value } }) =>
                  void onQuery({ density: value === 'room' ? null : value }, { shallow: true })
                }
              >
                {DENSITIES.map((density) => (
                  <option key={density} value={density}>
                    {DENSITY_LABELS[density]}
                  </option>
                ))}
              </select>
            )}
          </span>
        )}
        <FilterBar
          filter={filter}
          onFilter={(next) => void onQuery(writeFilter(next))}
          look={look}
          onLook={(part, value) => void onQuery({ [part]: value }, { shallow: part !== 'dates' && part !== 'whose' })}
          view={arrangement}
          brands={brands}
          brandsShown={brandsShown.map((one) => one.brand.slug)}
          onBrands={(slugs) => void onQuery({ brands: slugs.length === 0 ? null : slugs.join(',') })}
          channels={brandsShown.flatMap((one) => one.channels)}
          owners={unique(brandsShown.flatMap((one) => one.people))}
          pillars={brandsShown.flatMap((one) => one.pillars)}
          campaigns={brandsShown.flatMap((one) => one.campaigns)}
        />
        <SavedViews savedViews={savedViews} present={presentAddress(query)} />
      </div>
    </header>
  );
}
