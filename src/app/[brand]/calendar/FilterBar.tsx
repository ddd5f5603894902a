'use client';

import { Fragment, useEffect, useRef, useState, type ReactNode } from 'react';
import Dropdown from 'react-bootstrap/Dropdown';
import { useHotkeys } from 'react-hotkeys-hook';
import { LACK_LABELS, LACKS, isFiltering, NO_FILTER, type CalendarFilter } from '@/core/calendar/filter';
import { FORMATS, FORMAT_LABELS } from '@/core/rulesheets/types';
import { ALL_STAGES, STAGE_LABELS } from '@/core/stages/stages';
import {
  COLOUR_MEANINGS,
  COLUMNS,
  DATE_KINDS,
  FACTS,
  USUAL_COLUMNS,
  USUAL_FACTS,
  type Look,
  type ViewName,
} from './view';
import { WordButton } from '@/ui/WordButton';

interface Choice {
  id: string;
  name: string;
  /** The head it stands under, where there are several. */
  part?: string;
}

/** How long after the last letter the words are looked for, in milliseconds. */
const TYPING_PAUSE_MS = 250;

/** Which posts show, what of them, and what colour means. */
export function FilterBar({
  filter,
  onFilter,
  look,
  onLook,
  view,
  brands,
  brandsShown,
  onBrands,
  channels,
  owners,
  pillars,
  campaigns,
}: {
  filter: CalendarFilter;
  onFilter: (filter: CalendarFilter) => void;
  look: Look;
  onLook: (part: 'shows' | 'dates' | 'whose' | 'split' | 'colour' | 'columns', value: string | null) => void;
  view: ViewName;
  brands: readonly { slug: string; name: string }[];
  brandsShown: readonly string[];
  onBrands: (slugs: string[]) => void;
  channels: readonly Choice[];
  owners: readonly Choice[];
  pillars: readonly Choice[];
  campaigns: readonly Choice[];
}) {
  const set = <P extends keyof CalendarFilter>(part: P, value: CalendarFilter[P]) =>
    onFilter({ ...filter, [part]: value });
  const more: Choice[] = [
    ...LACKS.map((id) => ({ id, name: LACK_LABELS[id], part: 'Missing' })),
    ...ALL_STAGES.map((id) => ({ id, name: STAGE_LABELS[id], part: 'Stage' })),
    ...campaigns.map(({ id, name }) => ({ id, name, part: 'Campaign' })),
    ...FORMATS.map((id) => ({ id, name: FORMAT_LABELS[id], part: 'Format' })),
  ];
  const chosenMore = [...filter.lacks, ...filter.stages, ...filter.campaigns, ...filter.formats];
  return (
    <div className="filter-bar">
      {brands.length > 1 && (
        <Choose
          label="Brands"
          lead={brandsShown.length === 1 ? 'One brand' : `${brandsShown.length} brands`}
          none="none"
          choices={brands.map(({ slug, name }) => ({ id: slug, name }))}
          chosen={brandsShown}
          onChoose={(slugs) => onBrands(slugs)}
        />
      )}
      <Choose
        label="Channels"
        none="All channels"
        choices={channels}
        chosen={filter.channels}
        onChoose={(ids) => set('channels', ids)}
      />
      <Choose
        label="Owners"
        none="Everybody"
        choices={owners}
        chosen={filter.owners}
        onChoose={(ids) => set('owners', ids)}
      />
      {pillars.length > 0 && (
        <Choose
          label="Pillars"
          none="Any pillar"
          choices={pillars}
          chosen={filter.pillars}
          onChoose={(ids) => set('pillars', ids)}
        />
      )}
      <Choose
        label="Stage, format, campaign and what is missing"
        none="More"
        choices={more}
        chosen={chosenMore}
        onChoose={(ids) =>
          onFilter({
            ...filter,
            stages: ALL_STAGES.filter((id) => ids.includes(id)),
            formats: FORMATS.filter((id) => ids.includes(id)),
            lacks: LACKS.filter((id) => ids.includes(id)),
            campaigns: campaigns.filter(({ id }) => ids.includes(id)).map(({ id }) => id),
          })
        }
      />
      <FindWords words={filter.words} onFind={(words) => set('words', words)} />
      {isFiltering(filter) && (
        <WordButton className="attention" onClick={() => onFilter(NO_FILTER)}>
          Show all
        </WordButton>
      )}
      <span className="push looks">
        {view === 'list' ? (
          <Choose
            label="Columns"
            lead="Columns"
            none="none"
            choices={COLUMNS.map(({ name: id, label }) => ({ id, name: label }))}
            chosen={[...look.columns]}
            onChoose={(ids) => onLook('columns', sameSet(ids, USUAL_COLUMNS) ? null : ids.join(','))}
            alignEnd
          />
        ) : (
          <Choose
            label="Facts"
            lead="Shows"
            none="nothing"
            choices={FACTS.map(({ name: id, label }) => ({ id, name: label }))}
            chosen={[...look.facts]}
            onChoose={(ids) => onLook('shows', sameSet(ids, USUAL_FACTS) ? null : ids.join(','))}
            alignEnd
          />
        )}
        {(view === 'lanes' || view === 'month' || view === 'day') && (
          <label>
            <select
              className="plain-select"
              aria-label="Which dates"
              value={look.dates}
              onChange={(event) => onLook('dates', event.target.value === 'publishing' ? null : event.target.value)}
            >
              {DATE_KINDS.map((kind) => (
                <option key={kind}>{kind}</option>
              ))}
            </select>{' '}
            <span className="soft">dates</span>
          </label>
        )}
        {view === 'stages' && (
          <WordButton aria-pressed={look.split} onClick={() => onLook('split', look.split ? null : 'next')}>
            Split by next step
          </WordButton>
        )}
        {look.dates !== 'publishing' && (
          <select
            className="plain-select"
            aria-label="Whose working dates"
            value={look.whose}
            onChange={(event) => onLook('whose', event.target.value === 'all' ? null : event.target.value)}
          >
            <option value="all">everybody’s</option>
            <option value="mine">mine</option>
          </select>
        )}
        <label>
          <span className="soft">colour means</span>{' '}
          <select
            className="plain-select"
            value={look.colour}
            onChange={(event) => onLook('colour', event.target.value === 'channel' ? null : event.target.value)}
          >
            {COLOUR_MEANINGS.map((meaning) => (
              <option key={meaning}>{meaning}</option>
            ))}
          </select>
        </label>
      </span>
    </div>
  );
}

const sameSet = (a: readonly string[], b: readonly string[]): boolean =>
  a.length === b.length && a.every((value) => b.includes(value));

/** Ticks under a word that says what is chosen. */
function Choose({
  label,
  lead,
  none,
  choices,
  chosen,
  onChoose,
  alignEnd,
}: {
  label: string;
  /** Stands before what is chosen; the choice itself is then left to the list. */
  lead?: string;
  none: string;
  choices: readonly Choice[];
  chosen: readonly string[];
  onChoose: (ids: string[]) => void;
  alignEnd?: boolean;
}) {
  const names = choices.filter(({ id }) => chosen.includes(id)).map(({ name }) => name);
  const words: ReactNode =
    lead ?? (names.length === 0 ? none : names.length === 1 ? names[0] : `${names[0]} +${names.length - 1}`);
  return (
    <Dropdown autoClose="outside" align={alignEnd ? 'end' : 'start'}>
      <Dropdown.Toggle
        as="button"
        type="button"
        className={`word${!lead && names.length > 0 ? ' is-chosen' : ''}`}
        aria-label={`${label}: ${names.join(', ') || none}`}
      >
        {words}
      </Dropdown.Toggle>
      <Dropdown.Menu className="choices" renderOnMount={false}>
        {choices.map(({ id, name, part }, index) => (
          <Fragment key={id}>
            {part && part !== choices[index - 1]?.part && <Dropdown.Header>{part}</Dropdown.Header>}
            <label className="dropdown-item">
              <input
                type="checkbox"
                checked={chosen.includes(id)}
                onChange={(event) =>
                  onChoose(event.target.checked ? [...chosen, id] : chosen.filter((other) => other !== id))
                }
              />{' '}
              {name}
            </label>
          </Fragment>
        ))}
      </Dropdown.Menu>
    </Dropdown>
  );
}

/** A field of its own while one types; what is looked for otherwise, as by “Show all”, is taken into it. */
function FindWords({ words, onFind }: { words: string; onFind: (words: string) => void }) {
  const [typed, setTyped] = useState(words);
  const [known, setKnown] = useState({ words, asked: words });
  if (words !== known.words) {
    setKnown({ ...known, words });
    if (words !== known.asked) setTyped(words);
  }
  const field = useRef<HTMLInputElement>(null);
  useHotkeys('slash', () => field.current?.focus(), { preventDefault: true });
  useEffect(() => {
    if (typed.trim() === words) return;
    const timer = setTimeout(() => {
      setKnown((now) => ({ ...now, asked: typed.trim() }));
      onFind(typed.trim());
    }, TYPING_PAUSE_MS);
    return () => clearTimeout(timer);
  }, [typed, words, onFind]);
  return (
    <input
      dir="auto"
      ref={field}
      type="search"
      className="find-words"
      aria-label="Find words"
      aria-keyshortcuts="/"
      placeholder="Find  /"
      value={typed}
      onChange={(event) => setTyped(event.target.value)}
    />
  );
}
