import { readTitle, TEXT_LIMITS } from '../pieces/piece';
import { WRITTEN_FIELDS, type WrittenField } from '../posts/texts';
import { MEASURES, type Measure } from '../results/engagement';
import { formatRule, FORMAT_LABELS, type Format, type RuleSheet } from '../rulesheets/types';
import type { Stage } from '../stages/stages';
import { isWebLink } from '../posts/readiness';
import { readWords } from '../posts/readPost';
import type { WrittenWords } from '../posts/written';
import type { PrepLine } from '../prep/step';
import { dueInstant, readDate, type Instant, type LocalDate, type LocalTime, type Zone } from '../time/plan';
import { readTypedTime } from '../time/typed';
import {
  guessChannel,
  guessFormat,
  guessStage,
  orderOfDates,
  readMoment,
  type Column,
  type ColumnMap,
  type DateOrder,
} from './columns';
import { restoreCell, type CsvTable } from './csvText';
import { readList, type ListColumn, type Lists } from './lists';

/** How a file is meant: which column holds what, and what its values stand for. */
export interface ImportMapping {
  columns: ColumnMap;
  /** Channel ids by the text in the file; null leaves the rows out. */
  channels: Record<string, string | null>;
  /** Stages by the text in the file. */
  stages: Record<string, Stage>;
  dateOrder: DateOrder | null;
  /** What becomes of rows that lie in the past: null as long as it was not asked. */
  past: 'publishedElsewhere' | 'setAside' | null;
}

/** What the rows are held against. */
export interface ImportGround {
  channels: readonly { id: string; name: string; callSign: string; sheet: RuleSheet }[];
  people: readonly { id: string; name: string }[];
  pillars: readonly { id: string; name: string }[];
  campaigns: readonly { id: string; name: string }[];
  zone: Zone;
  today: LocalDate;
}

/** A row that is left out, and why. */
export interface BadRow {
  line: number;
  reason: string;
}

/** A step of a row, with whoever does it and whoever did it found. */
export interface RowStep extends PrepLine {
  pinned: LocalDate | null;
  doneAt: Instant | null;
  doneBy: string | null;
}

/** The lists of a row; absent where its file has no column for them. */
export interface RowLists extends Partial<Omit<Lists, 'steps'>> {
  steps?: RowStep[];
}

/** A row that can be brought in. What its file has no column for is absent, and stays as it is on a post that is there. */
export interface ImportRow extends Partial<Record<WrittenField, string>> {
  line: number;
  /** What the row is known by when the file comes again. */
  key: string;
  /** The content of its id column. */
  givenId: string;
  /** It tells how a post did, known by its id or address, and nothing else: its titles and channel are empty. */
  isCount?: true;
  pieceTitle: string;
  title: string;
  channelId: string;
  format?: Format;
  date?: LocalDate | null;
  time?: LocalTime | null;
  stage?: Stage;
  lists: RowLists;
  /** Where it was published. */
  address?: string;
  setAsideReason?: string;
  /** What is told of how it did, where anything is. */
  numbers?: Partial<Record<Measure, number>>;
  ownerId?: string;
  pillarId?: string | null;
  campaignId?: string | null;
}

/** What a file would bring in, what is wrong with it, and what has to be asked. */
export interface ImportPlan {
  mapping: ImportMapping;
  rows: ImportRow[];
  bad: BadRow[];
  /** Texts that no channel or stage was found for yet. */
  unknownChannels: string[];
  unknownStages: string[];
  /** Whether day and month could be meant either way. */
  asksDateOrder: boolean;
  /** Rows in the past that are not published by the file itself. */
  pastRows: number;
}

/** Starts a mapping for a file, from what was used for the same header before where that is known. */
export function startMapping(
  table: CsvTable,
  columns: ColumnMap,
  before: Partial<ImportMapping> | null,
): ImportMapping {
  const order = columns.date === undefined ? 'none' : orderOfDates(cellsOf(table, columns.date));
  return {
    columns: before?.columns ?? columns,
    channels: before?.channels ?? {},
    stages: before?.stages ?? {},
    dateOrder: before?.dateOrder ?? (order === 'ask' || order === 'none' ? null : order),
    past: before?.past ?? null,
  };
}

const cellsOf = (table: CsvTable, index: number): string[] => table.rows.map(({ cells }) => cells[index] ?? '');

/**
 * Plans what a file brings in. Every row that cannot be is named by its line with the reason; nothing is guessed where the
 * file can be meant in two ways: that is asked.
 */
export function planImport(table: CsvTable, mapping: ImportMapping, ground: ImportGround): ImportPlan {
  const { columns } = mapping;
  const bad = [...table.bad];
  const plan: ImportPlan = {
    mapping,
    rows: [],
    bad,
    unknownChannels: [],
    unknownStages: [],
    asksDateOrder: false,
    pastRows: 0,
  };
  const isOfNumbers = tellsNumbersOnly(columns);
  if (columns.channel === undefined && !isOfNumbers) {
    bad.push({ line: 1, reason: 'no column holds the channel: choose one, every post needs a channel' });
    return plan;
  }
  const order = columns.date === undefined ? 'none' : (mapping.dateOrder ?? orderOfDates(cellsOf(table, columns.date)));
  plan.asksDateOrder = order === 'ask';
  const seen = new Map<string, number>();
  const lacking = { channels: new Set<string>(), stages: new Set<string>() };
  for (const { line, cells } of table.rows) {
    const read = readRow(cells, line);
    if (typeof read === 'string') bad.push({ line, reason: read });
    else if (read) plan.rows.push(read);
  }
  plan.unknownChannels = [...lacking.channels];
  plan.unknownStages = [...lacking.stages];
  plan.pastRows = plan.rows.filter(
    (row) => isPast(row) && row.stage !== 'published' && row.stage !== 'setAside',
  ).length;
  bad.sort((a, b) => a.line - b.line);
  return plan;

  /** How often a row was known by that so far, this time included. */
  function timesSeen(known: string): number {
    const count = (seen.get(known) ?? 0) + 1;
    seen.set(known, count);
    return count;
  }

  function isPast(row: ImportRow): boolean {
    return row.date != null && row.date < ground.today;
  }

  /** @returns the row, the reason why not, or null for a row that is left out on purpose */
  function readRow(cells: readonly string[], line: number): ImportRow | string | null {
    const cell = (column: Column): string | undefined => {
      const index = columns[column];
      return index === undefined ? undefined : restoreCell(cells[index] ?? '');
    };
    const trimmed = (column: Column) => cell(column)?.trim();
    if (isOfNumbers) return readCountRow();
    const channelText = trimmed('channel') ?? '';
    if (channelText === '') return 'its channel is empty';
    const isMapped = Object.hasOwn(mapping.channels, channelText);
    const channelId = isMapped ? mapping.channels[channelText] : guessChannel(channelText, ground.channels);
    if (channelId === null && isMapped) return null;
    const channel = ground.channels.find(({ id }) => id === channelId);
    if (!channel) {
      lacking.channels.add(channelText);
      return `no channel is called “${clip(channelText)}”: say which one is meant`;
    }
    const title = readTitle(trimmed('title') || trimmed('piece') || firstWords(trimmed('caption') ?? ''));
    if (!title.ok) return 'it has neither title nor caption';
    const pieceTitle = readTitle(trimmed('piece') || title.value);
    if (!pieceTitle.ok) return pieceTitle.refusal.message;
    const row: ImportRow = {
      line,
      key: '',
      givenId: trimmed('id') ?? '',
      pieceTitle: pieceTitle.value,
      title: title.value,
      channelId: channel.id,
      lists: {},
    };
    const problem = readPlan(row) ?? readTexts(row) ?? readLists(row) ?? readNames(row) ?? readOutcome(row);
    if (problem) return problem;
    const known = row.givenId !== '' ? `id ${row.givenId}` : `${row.pieceTitle} · ${row.title} · ${channel.callSign}`;
    const count = timesSeen(known);
    if (row.givenId !== '' && count > 1) return `the id “${clip(row.givenId)}” stands there twice`;
    row.key = count === 1 ? known : `${known} · ${count}`;
    return row;

    function readPlan(into: ImportRow): string | null {
      const zone = trimmed('zone');
      if (zone && zone !== ground.zone) return `its zone is ${clip(zone)}; this brand’s is ${ground.zone}`;
      const dateText = trimmed('date');
      let within: LocalTime | null = null;
      if (dateText !== undefined) {
        const moment =
          dateText === '' || order === 'none' || order === 'ask' ? null : readMoment(dateText, order, ground.zone);
        const date = moment?.date ?? null;
        within = moment?.time ?? null;
        if (order === 'ask' && dateText !== '') return `“${clip(dateText)}”: is the day or the month first? Say which`;
        if (date === null && dateText !== '') return `“${clip(dateText)}” is not a date; write it like 2026-11-26`;
        if (date !== null) {
          const real = readDate(date);
          if (!real.ok) return real.refusal.message;
        }
        into.date = date;
      }
      const timeText = trimmed('time');
      if (timeText !== undefined && (timeText !== '' || within === null)) {
        const time = timeText === '' ? null : readTypedTime(timeText.replace(/^(\d{1,2}:\d{2}):\d{2}$/, '$1'));
        if (time === null && timeText !== '') return `“${clip(timeText)}” is not a time; write it like 14:30`;
        if (time !== null && into.date == null) return 'it has a time and no date';
        into.time = time;
      } else if (within !== null) into.time = within;
      if (into.date != null && into.time != null) {
        const due = dueInstant(into.date, into.time, ground.zone);
        if (!due.ok) return due.refusal.message;
      }
      const stageText = trimmed('stage');
      if (stageText) {
        const mapped = Object.hasOwn(mapping.stages, stageText) ? mapping.stages[stageText] : undefined;
        const stage = mapped ?? guessStage(stageText);
        if (!stage) {
          lacking.stages.add(stageText);
          return `no stage is called “${clip(stageText)}”: say which one is meant`;
        }
        into.stage = stage;
        if (stage === 'published' && (into.date == null || into.date > ground.today))
          return 'it is published, but has no date up to today';
      }
      return null;
    }

    function readTexts(into: ImportRow): string | null {
      for (const column of WRITTEN_FIELDS) {
        const text = cell(column);
        if (text !== undefined) into[column] = text;
      }
      const read = readWords<Partial<WrittenWords>>(into, channel!.sheet);
      if (!read.ok) return read.refusal.message;
      Object.assign(into, read.value);
      const formatText = trimmed('format');
      if (!formatText) return null;
      const format = guessFormat(formatText);
      if (!format) return `there is no format “${clip(formatText)}”`;
      if (!formatRule(channel!.sheet, format)) return `${channel!.name} takes no ${FORMAT_LABELS[format]}`;
      into.format = format;
      return null;
    }

    function readLists({ lists }: ImportRow): string | null {
      for (const column of ['parts', 'media', 'extracts'] as const) {
        const list = listOf(column);
        if (typeof list === 'string') return list;
        if (list) Object.assign(lists, { [column]: list });
      }
      const shown = lists.parts?.flatMap(({ picture }) => picture ?? []) ?? [];
      if (lists.media && shown.some((number) => number > lists.media!.length))
        return 'a part shows a picture that is none of its media';
      if (new Set(shown).size < shown.length) return 'two of its parts show the same picture';
      const steps = listOf('steps');
      if (typeof steps === 'string') return steps;
      if (!steps) return null;
      lists.steps = [];
      for (const { who, doneBy, ...step } of steps) {
        const ownerId = who === '' ? null : byName(ground.people, who);
        if (ownerId === undefined) return nobodyCalled(who);
        // Who did a step may have left since.
        lists.steps.push({ ...step, ownerId, doneBy: byName(ground.people, doneBy) ?? null });
      }
      return null;
    }

    function listOf<C extends ListColumn>(column: C): Lists[C] | string | null {
      const text = cell(column);
      return text === undefined ? null : readList(column, text);
    }

    function readCountRow(): ImportRow | string {
      const counts: ImportRow = {
        ...{ line, key: '', givenId: trimmed('id') ?? '', isCount: true },
        ...{ pieceTitle: '', title: '', channelId: '', lists: {} },
      };
      const wrong = readOutcome(counts);
      if (wrong) return wrong;
      if (!counts.numbers) return 'it tells no number';
      if (counts.givenId === '' && counts.address === undefined)
        return 'it has neither the id nor the address of a post';
      counts.key = counts.givenId !== '' ? `id ${counts.givenId}` : `at ${counts.address}`;
      return timesSeen(counts.key) > 1 ? 'another row tells numbers of the same post' : counts;
    }

    /** What became of it: where it was published and how it did, or why it was set aside. */
    function readOutcome(into: ImportRow): string | null {
      const address = trimmed('address');
      if (address) {
        if (!isAddress(address)) return `“${clip(address)}” is no address; it begins with http:// or https://`;
        into.address = address;
      }
      const reason = trimmed('reason');
      if (reason) into.setAsideReason = reason.slice(0, TEXT_LIMITS.reason);
      const numbers: Partial<Record<Measure, number>> = {};
      for (const measure of MEASURES) {
        const text = trimmed(measure);
        if (!text) continue;
        const count = readCount(text);
        if (count === null) return `“${clip(text)}” is not a number of ${measure}; write it like 1250`;
        numbers[measure] = count;
      }
      if (Object.keys(numbers).length > 0) into.numbers = numbers;
      return null;
    }

    function readNames(into: ImportRow): string | null {
      const owner = trimmed('owner');
      if (owner) {
        const id = byName(ground.people, owner);
        if (!id) return nobodyCalled(owner);
        into.ownerId = id;
      }
      for (const [column, list, field] of [
        ['pillar', ground.pillars, 'pillarId'],
        ['campaign', ground.campaigns, 'campaignId'],
      ] as const) {
        const name = trimmed(column);
        if (name === undefined) continue;
        const id = name === '' ? null : byName(list, name);
        if (id === undefined) return `there is no ${column} “${clip(name)}”: make it in the settings first`;
        into[field] = id;
      }
      return null;
    }
  }
}

/** Whether a file tells how posts did and nothing else: it has numbers, by which post each is known, and no channel. */
const tellsNumbersOnly = (columns: ColumnMap): boolean =>
  columns.channel === undefined &&
  (columns.id !== undefined || columns.address !== undefined) &&
  MEASURES.some((measure) => columns[measure] !== undefined);

/** Whether a text is where something was published: on the web, or on one of the made-up networks, which are a part of this Bimlo. */
const isAddress = (text: string): boolean =>
  text.length <= TEXT_LIMITS.link && (isWebLink(text) || text.startsWith('/standins/'));

/** A count as files write it, with or without signs between thousands; null for what is none. */
function readCount(text: string): number | null {
  const plain = text.replace(/(?<=\d)[,.' \u00a0\u202f](?=\d{3}(?!\d))/g, '');
  const count = /^\d{1,15}$/.test(plain) ? Number(plain) : null;
  return count !== null && count <= MOST_COUNTED ? count : null;
}

/** What the database keeps of a count. */
const MOST_COUNTED = 2_147_483_647;

const byName = (list: readonly { id: string; name: string }[], name: string): string | undefined =>
  list.find((item) => item.name.toLowerCase() === name.toLowerCase())?.id;
const nobodyCalled = (name: string): string => `nobody of this brand is called “${clip(name)}”`;
const firstWords = (text: string): string => text.split(/\s+/).slice(0, 8).join(' ').slice(0, 80);
const clip = (text: string): string => (text.length > 40 ? `${text.slice(0, 40)}…` : text);
