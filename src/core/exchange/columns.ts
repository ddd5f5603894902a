import { localOf, type LocalDate, type LocalTime, type Zone } from '../time/plan';
import { readTypedTime } from '../time/typed';
import { ofEachText, type WrittenField } from '../posts/texts';
import type { Measure } from '../results/engagement';
import { LIST_COLUMNS, looksLikeList } from './lists';
import { FORMATS, FORMAT_LABELS, type Format } from '../rulesheets/types';
import { ALL_STAGES, STAGE_LABELS, type Stage } from '../stages/stages';

/** What stands before a post's texts in a file of posts: what is called how, and other names of its column, in small letters and figures. */
const PLACE = {
  id: { label: 'id', names: ['postid', 'number', 'nr', 'key'] },
  piece: { label: 'piece', names: ['idea', 'content', 'topic', 'source'] },
  title: { label: 'working title', names: ['workingtitle', 'name', 'post', 'what', 'subjectline'] },
  channel: { label: 'channel', names: ['platform', 'network', 'account', 'where', 'medium'] },
  format: { label: 'format', names: ['type', 'kind', 'posttype', 'contenttype'] },
  date: {
    label: 'date',
    names: ['day', 'publishdate', 'publishingdate', 'postdate', 'when', 'scheduleddate', 'publishon', 'due'],
  },
  time: { label: 'time', names: ['hour', 'publishtime', 'posttime', 'scheduledtime', 'at'] },
  zone: { label: 'zone', names: ['timezone', 'tz'] },
  stage: { label: 'stage', names: ['status', 'state', 'progress'] },
} as const;

/** What stands behind them. */
const BESIDE = {
  parts: { label: 'parts (slides, frames, parts of a thread)', names: ['slides', 'frames', 'thread'] },
  media: { label: 'pictures and videos with alt text', names: ['pictures', 'images', 'files'] },
  steps: { label: 'steps', names: ['tasks'] },
  extracts: { label: 'extracts it was made from', names: ['madefrom'] },
  owner: { label: 'owner', names: ['who', 'person', 'assignee', 'responsible', 'author'] },
  pillar: { label: 'pillar', names: ['theme', 'category'] },
  campaign: { label: 'campaign', names: ['project'] },
  address: { label: 'address of the published post', names: ['permalink', 'posturl', 'postlink', 'publishedaddress'] },
  reason: { label: 'why it was set aside', names: ['setasidereason'] },
} as const;

/** What each number of a published post goes by beside its own name. */
const NUMBERS: Record<Measure, { label: string; names: readonly string[] }> = {
  reach: { label: 'reach', names: ['reached', 'accountsreached', 'uniqueviews'] },
  views: { label: 'views', names: ['impressions', 'plays', 'opens'] },
  likes: { label: 'likes', names: ['reactions', 'favourites', 'favorites'] },
  comments: { label: 'comments (how many)', names: ['replies', 'commentcount'] },
  shares: { label: 'shares', names: ['reposts', 'forwards'] },
  saves: { label: 'saves', names: ['bookmarks', 'saved'] },
  clicks: { label: 'clicks', names: ['linkclicks', 'urlclicks'] },
  follows: { label: 'new followers', names: ['newfollowers', 'followersgained'] },
  watchSeconds: { label: 'seconds watched', names: ['watchtime', 'secondswatched', 'watchseconds'] },
};

type PlainColumn = keyof typeof PLACE | keyof typeof BESIDE;
/** What a column of a file of posts can hold. */
export type Column = PlainColumn | WrittenField | Measure;

/** A column: what it is called in the mapping, and other names that it goes by. */
interface ColumnWords {
  label: string;
  names: readonly string[];
}

/** All columns in the order in which they stand in a file that goes out, whose header they are: every text of a post is one. */
const WORDS_OF: Record<Column, ColumnWords> = {
  ...PLACE,
  ...ofEachText(({ label, fileLabel = label.toLowerCase(), fileNames = [] }) => ({
    label: fileLabel,
    names: fileNames,
  })),
  ...BESIDE,
  ...NUMBERS,
};
export const COLUMNS = Object.keys(WORDS_OF) as readonly Column[];

/** What a column is called in the mapping. */
export const columnLabel = (column: Column): string => WORDS_OF[column].label;

/** Which column of the file holds what: indices from 0. */
export type ColumnMap = Partial<Record<Column, number>>;

const plain = (text: string): string => text.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');

/** What values of a file can be recognised by. */
interface KnownNames {
  channels: readonly { id: string; name: string; callSign: string }[];
}

/**
 * Guesses which column holds what: by its name first, then, for what is still missing, by what most of its cells look like
 * (dates, times, addresses, channels, stages, hashtags).
 *
 * @param sample some rows of the file
 */
export function guessColumns(header: readonly string[], sample: readonly string[][], known: KnownNames): ColumnMap {
  const map: ColumnMap = {};
  const taken = new Set<number>();
  const isOther = (column: Column, index: number) =>
    LIST_COLUMNS.includes(column) && !sample.every((row) => looksLikeList(row[index] ?? ''));
  const take = (column: Column, index: number) => {
    if (index < 0 || taken.has(index) || map[column] !== undefined || isOther(column, index)) return;
    map[column] = index;
    taken.add(index);
  };
  const names = header.map(plain);
  for (const column of COLUMNS) take(column, names.indexOf(plain(column)));
  for (const column of COLUMNS)
    take(
      column,
      names.findIndex((name) => WORDS_OF[column].names.includes(name)),
    );
  const looksLike = (test: (cell: string) => boolean): number =>
    header.findIndex((_name, index) => {
      if (taken.has(index)) return false;
      const cells = sample.map((row) => (row[index] ?? '').trim()).filter((cell) => cell !== '');
      return cells.length > 0 && cells.filter(test).length >= cells.length * 0.8;
    });
  take(
    'date',
    looksLike((cell) => dateOrders(cell).length > 0),
  );
  take(
    'time',
    looksLike((cell) => /^\d{1,2}[:.]\d{2}(\s*[ap]m)?$/i.test(cell)),
  );
  take(
    'link',
    looksLike((cell) => /^https?:\/\//i.test(cell)),
  );
  take(
    'channel',
    looksLike((cell) => guessChannel(cell, known.channels) !== null),
  );
  take(
    'stage',
    looksLike((cell) => guessStage(cell) !== null),
  );
  take(
    'hashtags',
    looksLike((cell) => /^#\S+/.test(cell)),
  );
  if (map.title === undefined && map.piece !== undefined) map.title = map.piece;
  return map;
}

/** The channel a cell names by call sign or name, if one does. */
export function guessChannel(
  cell: string,
  channels: readonly { id: string; name: string; callSign: string }[],
): string | null {
  const asked = plain(cell);
  return (
    channels.find(({ callSign }) => plain(callSign) === asked)?.id ??
    channels.find(({ name }) => plain(name) === asked)?.id ??
    null
  );
}

/** Words that files use for stages, beside Bimlo's own. */
const STAGE_WORDS: Record<string, Stage> = {
  idea: 'drafting',
  draft: 'drafting',
  todo: 'drafting',
  planned: 'drafting',
  inprogress: 'production',
  wip: 'production',
  doing: 'production',
  review: 'signOff',
  approval: 'signOff',
  forapproval: 'signOff',
  approved: 'ready',
  done: 'ready',
  final: 'ready',
  posted: 'published',
  live: 'published',
  sent: 'published',
  out: 'published',
  cancelled: 'setAside',
  dropped: 'setAside',
};

/** The stage a cell names, if one does. */
export function guessStage(cell: string): Stage | null {
  const asked = plain(cell);
  const known = ALL_STAGES.find((stage) => plain(stage) === asked || plain(STAGE_LABELS[stage]) === asked);
  return known ?? (Object.hasOwn(STAGE_WORDS, asked) ? STAGE_WORDS[asked]! : null);
}

/** The format a cell names, if one does. */
export function guessFormat(cell: string): Format | null {
  const asked = plain(cell);
  return FORMATS.find((format) => plain(format) === asked || plain(FORMAT_LABELS[format]) === asked) ?? null;
}

/** Orders of day, month and year that a date can be written in. */
export type DateOrder = 'ymd' | 'dmy' | 'mdy';

/**
 * The orders in which a cell is a real date; empty for what is none. `03/04/2026` is one in two of them.
 *
 * @internal
 */
export function dateOrders(cell: string): DateOrder[] {
  return (['ymd', 'dmy', 'mdy'] as const).filter((order) => readOrderedDate(cell, order) !== null);
}

/**
 * Reads a date in an order. Signs between may be `-`, `/`, `.` or a space; years have four digits.
 *
 * @example
 * readOrderedDate('3.4.2026', 'dmy') // '2026-04-03'
 * readOrderedDate('2026-04-03T09:00', 'ymd') // '2026-04-03': a time behind it is passed over
 * readOrderedDate('31/04/2026', 'dmy') // null: April has 30 days
 * @internal
 */
export function readOrderedDate(cell: string, order: DateOrder): string | null {
  const parts =
    order === 'ymd'
      ? /^(\d{4})[-/. ](\d{1,2})[-/. ](\d{1,2})(?:[T ].*)?$/.exec(cell.trim())
      : /^(\d{1,2})[-/. ](\d{1,2})[-/. ](\d{4})(?:[T ].*)?$/.exec(cell.trim());
  if (!parts) return null;
  const [first, second, third] = parts.slice(1).map(Number) as [number, number, number];
  const [year, month, day] =
    order === 'ymd' ? [first, second, third] : order === 'dmy' ? [third, second, first] : [third, first, second];
  const text = `${year}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`;
  const real = new Date(`${text}T00:00:00Z`);
  return !Number.isNaN(real.getTime()) && real.toISOString().startsWith(text) ? text : null;
}

/**
 * Reads a date in an order with the time that may stand behind it, on the wall of a zone. A time with `Z` or an offset is a
 * moment: what that zone's clock shows then. Null for what is no date, or has something behind it that is no time.
 *
 * @example
 * readMoment('2026-04-03T09:00', 'ymd', 'Europe/Lisbon') // { date: '2026-04-03', time: '09:00' }
 * readMoment('2026-04-03T23:30:00Z', 'ymd', 'Europe/Lisbon') // { date: '2026-04-04', time: '00:30' }: summer time there
 * readMoment('2026-04-03T25:99', 'ymd', 'Europe/Lisbon') // null
 */
export function readMoment(
  cell: string,
  order: DateOrder,
  zone: Zone,
): { date: LocalDate; time: LocalTime | null } | null {
  const date = readOrderedDate(cell, order);
  if (date === null) return null;
  const rest = cell.trim().replace(/^[^\s/.-]+[-/. ][^\s/.-]+[-/. ]\d+/, '');
  const from = rest.search(/[T ]/);
  const behind =
    from < 0
      ? ''
      : rest
          .slice(from + 1)
          .replace(/\s+/g, ' ')
          .trim();
  if (behind === '') return { date, time: null };
  const parts = /^(\d{1,2}:\d{2})(?::\d{2}(?:[.,]\d+)?)? ?(am|pm)? ?(Z|[+-]\d{2}:?\d{2})?$/i.exec(behind);
  const time = parts && readTypedTime(`${parts[1]} ${parts[2] ?? ''}`.trim());
  if (!parts || !time) return null;
  if (!parts[3]) return { date, time };
  const offset = parts[3].toUpperCase() === 'Z' ? 'Z' : parts[3].replace(/^(.\d{2}):?(\d{2})$/, '$1:$2');
  const moment = new Date(`${date}T${time}:00${offset}`);
  return Number.isNaN(moment.getTime()) ? null : localOf(moment.toISOString(), zone);
}

/** The one order in which all these cells are dates; `ask` where two are possible, `none` where no order fits all. */
export function orderOfDates(cells: readonly string[]): DateOrder | 'ask' | 'none' {
  const filled = cells.map((cell) => cell.trim()).filter((cell) => cell !== '');
  const possible = (['ymd', 'dmy', 'mdy'] as const).filter((order) =>
    filled.every((cell) => dateOrders(cell).includes(order) || dateOrders(cell).length === 0),
  );
  const real = possible.filter((order) => filled.some((cell) => readOrderedDate(cell, order) !== null));
  if (real.length === 1) return real[0]!;
  return real.length === 0 ? 'none' : 'ask';
}
