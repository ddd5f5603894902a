import { FILTER_PARAMETERS } from '@/core/calendar/filter';
import { LIST_PERIODS, type ListPeriod } from '@/core/calendar/listPeriod';
import { WRITTEN_FIELDS, WRITTEN_LABELS } from '@/core/posts/written';
import { GROUPINGS, SORTS, type Grouping, type Sort } from '@/core/calendar/list';

/** The ways the calendar arranges the same posts, in the order of their keys 1 to 5. */
export const VIEWS = [
  { name: 'lanes', label: 'Lanes' },
  { name: 'month', label: 'Month' },
  { name: 'day', label: 'Day' },
  { name: 'stages', label: 'Stages' },
  { name: 'list', label: 'List' },
] as const;
export type ViewName = (typeof VIEWS)[number]['name'];

/** The facts a slip can show. */
export const FACTS = [
  { name: 'time', label: 'time' },
  { name: 'title', label: 'title' },
  { name: 'stage', label: 'stage' },
  { name: 'picture', label: 'picture' },
  { name: 'missing', label: 'what is missing' },
  { name: 'prep', label: 'prep done' },
  { name: 'format', label: 'format' },
  { name: 'owner', label: 'owner' },
  { name: 'pillar', label: 'pillar' },
] as const;
export type Fact = (typeof FACTS)[number]['name'];
export const USUAL_FACTS: readonly Fact[] = ['time', 'title', 'stage', 'picture', 'missing', 'prep'];

/** What colour can mean on slips. */
export const COLOUR_MEANINGS = ['channel', 'stage', 'pillar', 'owner'] as const;
export type ColourMeaning = (typeof COLOUR_MEANINGS)[number];

/** Which dates the calendar shows: when posts leave, when the work on them is due, or both. */
export const DATE_KINDS = ['publishing', 'working', 'both'] as const;
export type DateKind = (typeof DATE_KINDS)[number];

/** How much slips of the lanes show: what there is room for, always titles and pictures, or times alone. */
export const DENSITIES = ['room', 'titles', 'lines'] as const;
export type Density = (typeof DENSITIES)[number];

/** Columns of the list that can be left out. */
export const COLUMNS = [
  { name: 'date', label: 'Date' },
  { name: 'time', label: 'Time' },
  { name: 'channel', label: 'Channel' },
  { name: 'title', label: 'Title' },
  { name: 'format', label: 'Format' },
  { name: 'stage', label: 'Stage' },
  { name: 'owner', label: 'Owner' },
  { name: 'pillar', label: 'Pillar' },
  { name: 'campaign', label: 'Campaign' },
  { name: 'prep', label: 'Prep' },
  { name: 'missing', label: 'Missing' },
  { name: 'piece', label: 'Piece' },
  { name: 'picture', label: 'First picture' },
  { name: 'repeat', label: 'Repeat no.' },
  { name: 'published', label: 'Published' },
  { name: 'address', label: 'Published address' },
  ...WRITTEN_FIELDS.map((name) => ({ name, label: WRITTEN_LABELS[name] })),
] as const;
export type Column = (typeof COLUMNS)[number]['name'];
export const USUAL_COLUMNS: readonly Column[] = [
  'date',
  'time',
  'channel',
  'title',
  'format',
  'stage',
  'owner',
  'prep',
  'missing',
];

/** How the calendar is looked at, beside what it shows: all of it is in the address. */
export interface Look {
  facts: ReadonlySet<Fact>;
  dates: DateKind;
  /** Whose working dates. */
  whose: 'all' | 'mine';
  colour: ColourMeaning;
  /** Among the stages: production is split by the work that comes next. */
  split: boolean;
  sort: Sort;
  descending: boolean;
  group: Grouping;
  /** How long a time the list shows. */
  period: ListPeriod;
  columns: ReadonlySet<Column>;
  /** Rows of the list with room for several lines. */
  tall: boolean;
  /** Columns of texts with more room. */
  wide: boolean;
  density: Density;
}

/** Names of everything the address of a calendar holds that a saved view keeps: all but the day and the open post. */
export const KEPT_PARAMETERS: readonly string[] = [
  'as',
  'weeks',
  'brands',
  ...FILTER_PARAMETERS,
  'shows',
  'dates',
  'whose',
  'split',
  'colour',
  'sort',
  'group',
  'columns',
  'rows',
  'texts',
  'period',
  'density',
];

const among = <T extends string>(text: string | null, known: readonly T[], usual: T): T =>
  known.includes(text as T) ? (text as T) : usual;

/** Reads the look from the values of an address; what is not there, or makes no sense, is as usual. */
export function readLook(get: (name: string) => string | null): Look {
  const list = <T extends string>(name: string, known: readonly T[], usual: readonly T[]): ReadonlySet<T> => {
    const text = get(name);
    return new Set(text === null ? usual : known.filter((value) => text.split(',').includes(value)));
  };
  const sort = get('sort') ?? '';
  return {
    facts: list(
      'shows',
      FACTS.map((fact) => fact.name),
      USUAL_FACTS,
    ),
    dates: among(get('dates'), DATE_KINDS, 'publishing'),
    whose: among(get('whose'), ['all', 'mine'], 'all'),
    colour: among(get('colour'), COLOUR_MEANINGS, 'channel'),
    split: get('split') === 'next',
    sort: among(sort.replace(/^-/, ''), SORTS, 'date'),
    descending: sort.startsWith('-'),
    group: among(get('group'), GROUPINGS, 'day'),
    period: among(get('period'), LIST_PERIODS, 'around'),
    tall: get('rows') === 'tall',
    wide: get('texts') === 'wide',
    density: among(get('density'), DENSITIES, 'room'),
    columns: list(
      'columns',
      COLUMNS.map((column) => column.name),
      USUAL_COLUMNS,
    ),
  };
}
