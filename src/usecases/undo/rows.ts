import { ABOUT_FIELDS } from '@/core/pieces/texts';
import type { Deed } from '@/core/rights/may';
import { bumpSetting, type Setting } from '@/data/brands/settingVersions';
import type { Queryable } from '@/data/database/db';
import {
  instantInRow,
  readRows,
  readRowsAt,
  readRowsById,
  replaceRows,
  unlessForbidden,
  updateRow,
  type Row,
  type RowsOfTable,
} from '@/data/undo/rows';
import type { ChangeItem, Direction, NotedChange } from '@/data/undo/changes';
import { listHoldersWithOpenSteps } from '@/data/prep/steps';
import { mustBeUnused } from '../media/mustBeUnused';
import { recount } from '../prep/countPrep';
import { mustMay } from '../rights/mustMay';
import { attempt, refused, type Doing } from '../useCase';
import { changedFields, CHANGED_SINCE, isSame } from './sinceThen';
import { nothingPut, type PutOutcome, type Putting } from './subject';

/** Rows of a thing. */
interface RowsOfThing extends RowsOfTable {
  /** The fields of its one row that are compared and put back; absent where it has any number of rows, which are put back as a whole. */
  fields?: readonly string[];
  /** Whether its row counts its versions. */
  hasVersion?: boolean;
}

/** A kind of thing that is nothing but rows. */
interface Thing {
  /** What whoever undoes it has to be allowed. */
  deed: Deed;
  /** In the order in which they point to one another: the later to the earlier. */
  rows: readonly RowsOfThing[];
  /** The field that says when it was taken away; absent where its rows are deleted then. */
  goneAt?: string;
  /** The form whose version counts up when it is put back. */
  setting?: Setting;
  /** Refuses to take it away where that may not be. */
  mayGo?: (act: Doing, id: string) => Promise<void>;
  /** What follows from it once it was put back. */
  follow?: (act: Doing, brandId: string, id: string) => Promise<void>;
}

const ID = { id: 'uuid' } as const;

/** Counts the steps of a brand anew, as its days ask for. */
async function recountBrand(act: Doing, brandId: string): Promise<void> {
  const prepared = await listHoldersWithOpenSteps(act.tx, { brandId });
  await recount(
    act.tx,
    brandId,
    prepared.map(({ id }) => id),
    act.now,
  );
}

async function fileMayGo(act: Doing, id: string): Promise<void> {
  const [brandId, sha256] = valuesOf(id);
  await mustBeUnused(act, brandId!, sha256!);
}

/** The things that are undone by their rows. Another one is an entry here, and a call of `undoably` where it is changed. */
const THINGS = {
  piece: {
    deed: 'changePieces',
    rows: [
      {
        ...{ table: 'pieces', key: ID, hasVersion: true },
        fields: [...ABOUT_FIELDS, 'kind', 'prep_day', 'set_aside_at', 'set_aside_reason', 'deleted_at'],
      },
    ],
    goneAt: 'deleted_at',
    follow: async (act, brandId, id) => recount(act.tx, brandId, [id], act.now, { isReplanned: true }),
  },
  extract: {
    deed: 'changePieces',
    rows: [
      { table: 'extracts', key: ID, fields: ['kind', 'state', 'start_offset', 'end_offset', 'sign'] },
      { table: 'post_extracts', key: { extract_id: 'uuid' } },
    ],
  },
  shelfItem: {
    deed: 'keepShelf',
    rows: [
      {
        table: 'shelf_items',
        key: ID,
        hasVersion: true,
        fields: ['kind', 'title', 'text', 'source', 'fits', 'deleted_at'],
      },
    ],
    goneAt: 'deleted_at',
  },
  name: {
    deed: 'keepShelf',
    rows: [{ table: 'names', key: ID, hasVersion: true, fields: ['kind', 'name', 'handles', 'deleted_at'] }],
    goneAt: 'deleted_at',
  },
  pillar: {
    deed: 'manageBrand',
    rows: [{ table: 'pillars', key: ID, fields: ['name', 'color', 'archived_at'] }],
    setting: 'pillar',
  },
  campaign: {
    deed: 'manageBrand',
    rows: [{ table: 'campaigns', key: ID, fields: ['name', 'color', 'from_date', 'to_date', 'archived_at'] }],
    setting: 'campaign',
  },
  brand: {
    deed: 'manageBrand',
    rows: [
      {
        ...{ table: 'brands', key: ID },
        fields: ['name', 'week_start', 'weekdays', 'words_per_minute', 'asks_sign_off', 'encore_days'].concat(
          'makers_send',
          'makers_exchange',
        ),
      },
      { table: 'brand_days_off', key: { brand_id: 'uuid' } },
    ],
    setting: 'brand',
    follow: recountBrand,
  },
  channel: {
    deed: 'manageBrand',
    rows: [
      {
        table: 'channels',
        key: ID,
        fields: ['name', 'call_sign', 'color', 'aim_days', 'lead_minutes', 'distance_minutes', 'archived_at'],
      },
    ],
    setting: 'channel',
  },
  dateFile: {
    deed: 'keepKnownDates',
    rows: [
      { table: 'date_files', key: ID, fields: ['name'] },
      { table: 'known_dates', key: { file_id: 'uuid' }, generated: ['id'] },
    ],
  },
  savedView: {
    deed: 'keepViews',
    rows: [{ table: 'saved_views', key: ID, fields: ['name', 'shared', 'address'] }],
  },
  libraryFile: {
    deed: 'keepFiles',
    rows: [{ table: 'library_files', key: { brand_id: 'uuid', sha256: 'text' }, generated: ['search'] }],
    mayGo: fileMayGo,
  },
  brandAsset: {
    deed: 'keepShelf',
    rows: [{ table: 'brand_assets', key: ID }],
  },
  pieceMedia: {
    deed: 'changePieces',
    rows: [{ table: 'piece_media', key: { piece_id: 'uuid' } }],
  },
  proposal: {
    deed: 'changePosts',
    rows: [{ table: 'proposals', key: ID, fields: ['state', 'decided_at', 'post_id'] }],
  },
  reading: {
    deed: 'exchange',
    rows: [{ table: 'readings', key: { post_id: 'uuid', read_at: 'timestamptz' } }],
  },
  rhythm: {
    deed: 'setRhythm',
    rows: [
      { table: 'rhythm_entries', key: { channel_id: 'uuid' } },
      { table: 'rhythm_pauses', key: { channel_id: 'uuid' } },
    ],
    setting: 'rhythm',
  },
  repeat: {
    deed: 'runRepeats',
    rows: [
      {
        ...{ table: 'repeats', key: ID },
        fields: ['name', 'format', 'rule', 'at_time', 'from_date', 'to_date', 'times', 'ahead', 'days_before'].concat(
          'work_days',
          'next_number',
          'last_round',
          'ended_at',
        ),
      },
    ],
    goneAt: 'ended_at',
    setting: 'repeat',
  },
  fanOut: {
    deed: 'manageBrand',
    rows: [{ table: 'fan_outs', key: { brand_id: 'uuid', slug: 'text' } }],
    setting: 'fan-out',
  },
  prepSheet: {
    deed: 'manageBrand',
    rows: [
      { table: 'prep_sheets', key: { brand_id: 'uuid', subject: 'text' } },
      { table: 'prep_lines', key: { brand_id: 'uuid', subject: 'text' } },
    ],
    setting: 'prep sheet',
  },
} as const satisfies Record<string, Thing>;

/** A kind of thing that is undone by its rows. */
export type ThingName = keyof typeof THINGS;
export const thingOf = (name: string): Thing => THINGS[name as ThingName];
export const THING_NAMES = Object.keys(THINGS) as readonly ThingName[];

/** The rows of a thing by their tables. */
type State = Readonly<Record<string, readonly Row[]>>;

/** The values of a thing's key, which it is named by set apart by a space. */
const valuesOf = (id: string): string[] => id.split(' ');

/** What a thing is now; null where there is none. */
export async function readState(tx: Queryable, name: ThingName, id: string): Promise<State | null> {
  const state: Record<string, readonly Row[]> = {};
  for (const { fields, ...of } of thingOf(name).rows) {
    const rows = await readRows(tx, of, valuesOf(id));
    const isWhole = fields === undefined || thingOf(name).goneAt === undefined;
    state[of.table] = isWhole ? rows : rows.map((row) => only(row, [...fields, ...Object.keys(of.key)]));
  }
  return Object.values(state).every((rows) => rows.length === 0) ? null : state;
}

const only = (row: Row, fields: readonly string[]): Row =>
  Object.fromEntries(fields.map((field) => [field, row[field]]));

/** Does something to things, and gives what it changed of them. What was made is undone by taking it away. */
export async function watching(
  act: Doing,
  of: readonly { name: ThingName; id: string }[],
  write: () => Promise<unknown>,
): Promise<ChangeItem[]> {
  const before = await readAll(act, of);
  await write();
  const after = await readAll(act, of);
  const now = await instantInRow(act.tx, act.now);
  return of.flatMap(({ name, id }, index): ChangeItem[] => {
    const [was, is] = [before[index]!, after[index]!];
    if (JSON.stringify(was) === JSON.stringify(is)) return [];
    return [{ subject: name, id, before: was ?? gone(name, is!, now), after: is }];
  });
}

/** Pieces that were made at once, as things of a change. */
export async function madePieces(act: Doing, ids: readonly string[]): Promise<ChangeItem[]> {
  const [{ table, fields }] = THINGS.piece.rows;
  const now = await instantInRow(act.tx, act.now);
  return [...(await readRowsById(act.tx, table, ids))].map(([id, row]) => {
    const after = { [table]: [only(row, [...fields, 'id'])] };
    return { subject: 'piece', id, before: gone('piece', after, now), after };
  });
}

/** Whether a thing of a change is that piece, made or brought back by it. */
export function makesPiece({ subject, id, before }: ChangeItem, pieceId: string): boolean {
  const { table } = THINGS.piece.rows[0];
  return subject === 'piece' && id === pieceId && (before as State)[table]![0]!.deleted_at !== null;
}

/** What was told at once of how posts did, as things of a change. */
export async function toldReadings(act: Doing, postIds: readonly string[]): Promise<ChangeItem[]> {
  const [{ table }] = THINGS.reading.rows;
  return (await readRowsAt(act.tx, table, { post_id: postIds, read_at: act.now })).map((row) => ({
    ...{ subject: 'reading', id: `${String(row.post_id)} ${act.now}`, before: null, after: { [table]: [row] } },
  }));
}

async function readAll(act: Doing, of: readonly { name: ThingName; id: string }[]): Promise<(State | null)[]> {
  const states: (State | null)[] = [];
  for (const { name, id } of of) states.push(await readState(act.tx, name, id));
  return states;
}

function gone(name: ThingName, state: State, now: unknown): State | null {
  const { goneAt, rows } = thingOf(name);
  if (goneAt === undefined) return null;
  const { table } = rows[0]!;
  return { ...state, [table]: state[table]!.map((row) => ({ ...row, [goneAt]: now })) };
}

/** Puts things that are rows into another state. */
export const putThings =
  (name: ThingName) =>
  async (
    act: Doing,
    { brandId }: NotedChange,
    puttings: readonly Putting<State>[],
    _direction: Direction,
  ): Promise<PutOutcome> => {
    const thing = thingOf(name);
    const outcome = nothingPut();
    await mustMay(act, thing.deed, brandId);
    // What goes makes room for what comes, which may have its name.
    const inOrder = [...puttings].sort((one, other) => Number(one.to !== null) - Number(other.to !== null));
    for (const { item, from, to } of inOrder) {
      const result = await attempt(() => putThing(act, name, item.id, from, to));
      if (!result.ok) {
        outcome.refused.push({ postId: null, title: titleOf(from ?? to), message: result.refusal.message });
        continue;
      }
      if (!result.value) continue;
      outcome.others += 1;
      if (thing.setting) await bumpSetting(act.tx, thing.setting, item.id);
      await thing.follow?.(act, brandId, item.id);
    }
    return outcome;
  };

/** @returns whether it was put; not, where it is so already */
async function putThing(
  act: Doing,
  name: ThingName,
  id: string,
  from: State | null,
  to: State | null,
): Promise<boolean> {
  const present = await readState(act.tx, name, id);
  if (JSON.stringify(present) === JSON.stringify(to)) return false;
  const writes = thingOf(name).rows.map((of): (() => Promise<void>) => {
    const [was, is, shall] = [from, present, to].map((state) => state?.[of.table] ?? []) as [Row[], Row[], Row[]];
    if (of.fields && was[0] && shall[0]) {
      const fields = changedFields(only(was[0], of.fields), only(shall[0], of.fields));
      if (!is[0] || !isSame(fields, is[0], was[0])) refused(CHANGED_SINCE);
      if (fields.length === 0) return async () => undefined;
      return () => updateRow(act.tx, of, valuesOf(id), only(shall[0]!, fields), of.hasVersion ?? false);
    }
    if (JSON.stringify(is) !== JSON.stringify(was)) refused(CHANGED_SINCE);
    return JSON.stringify(was) === JSON.stringify(shall)
      ? async () => undefined
      : () => replaceRows(act.tx, of, valuesOf(id), shall);
  });
  if (to === null) await thingOf(name).mayGo?.(act, id);
  const isPut = await unlessForbidden(act.tx, async () => {
    // What points to something goes before it, and comes after it.
    for (const write of to === null ? writes.reverse() : writes) await write();
  });
  if (!isPut) refused(IN_THE_WAY);
  return true;
}

const IN_THE_WAY = {
  code: 'inTheWay',
  message: 'Something else was made or is used since that stands in its way, so it stays as it is.',
};

/** What people call a thing, from the first of its rows that says so. */
function titleOf(state: State | null): string {
  const row = Object.values(state ?? {})[0]?.[0] ?? {};
  const title = row.title ?? row.name ?? row.text;
  return typeof title === 'string' && title !== '' ? title : 'this';
}
