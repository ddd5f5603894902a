import { FORMATS, type Format } from '../rulesheets/types';
import { ALL_STAGES, type Stage } from '../stages/stages';

/** What may be asked for as lacking. */
export const LACKS = ['picture', 'caption', 'readyNear'] as const;
export type Lack = (typeof LACKS)[number];

/** What people read for each. */
export const LACK_LABELS: Record<Lack, string> = {
  picture: 'no picture',
  caption: 'no caption',
  readyNear: 'not ready within 3 days',
};

/** Days, today included, within which a post that is not ready is near. */
export const NEAR_DAYS = 3;

/** Which posts of the calendar show. Empty lists and text ask for nothing. */
export interface CalendarFilter {
  channels: string[];
  formats: Format[];
  stages: Stage[];
  pillars: string[];
  campaigns: string[];
  owners: string[];
  lacks: Lack[];
  /** Words of any text of the post; each has to be there, the last may be a beginning. */
  words: string;
}

/** No filter at all. */
export const NO_FILTER: CalendarFilter = {
  channels: [],
  formats: [],
  stages: [],
  pillars: [],
  campaigns: [],
  owners: [],
  lacks: [],
  words: '',
};

/** Names of the filter's parts in an address. */
const PARAMETERS = {
  channels: 'channel',
  formats: 'format',
  stages: 'stage',
  pillars: 'pillar',
  campaigns: 'campaign',
  owners: 'owner',
  lacks: 'lacks',
} as const;

/** All names of the filter in an address. */
export const FILTER_PARAMETERS: readonly string[] = [...Object.values(PARAMETERS), 'words'];

const WORDS_LIMIT = 200;
const LIST_LIMIT = 100;

/** Reads a filter from the values of an address. Values that do not exist are passed over. */
export function readFilter(get: (name: string) => string | null | undefined): CalendarFilter {
  const list = (name: string): string[] =>
    (get(name) ?? '')
      .split(',')
      .filter((value) => value !== '')
      .slice(0, LIST_LIMIT);
  const among = <T extends string>(name: string, known: readonly T[]): T[] =>
    list(name).filter((value): value is T => (known as readonly string[]).includes(value));
  const ids = (name: string): string[] => list(name).filter((value) => /^[0-9a-f-]{36}$/.test(value));
  return {
    channels: ids(PARAMETERS.channels),
    formats: among(PARAMETERS.formats, FORMATS),
    stages: among(PARAMETERS.stages, ALL_STAGES),
    pillars: ids(PARAMETERS.pillars),
    campaigns: ids(PARAMETERS.campaigns),
    owners: ids(PARAMETERS.owners),
    lacks: among(PARAMETERS.lacks, LACKS),
    words: (get('words') ?? '').slice(0, WORDS_LIMIT).trim(),
  };
}

/** Writes a filter as values of an address; null for a part that asks for nothing. */
export function writeFilter(filter: CalendarFilter): Record<string, string | null> {
  const parts = Object.entries(PARAMETERS).map(([part, name]) => {
    const values = filter[part as keyof typeof PARAMETERS];
    return [name, values.length > 0 ? values.join(',') : null] as const;
  });
  return { ...Object.fromEntries(parts), words: filter.words || null };
}

/** Whether a filter asks for anything. */
export const isFiltering = (filter: CalendarFilter): boolean =>
  Object.values(writeFilter(filter)).some((value) => value !== null);
