'use client';

import {
  columnGroupingFeature,
  columnVisibilityFeature,
  createColumnHelper,
  createGroupedRowModel,
  createSortedRowModel,
  rowSortingFeature,
  tableFeatures,
  useTable,
  type Row,
} from '@tanstack/react-table';
import { useMemo } from 'react';
import {
  GROUPINGS,
  groupOf,
  groupOrder,
  sortKey,
  SORTS,
  type Grouping,
  type Names,
  type Sort,
} from '@/core/calendar/list';
import type { Slip } from '@/core/calendar/slip';
import { COLUMNS, type Column } from './view';

const features = tableFeatures({
  rowSortingFeature,
  columnGroupingFeature,
  columnVisibilityFeature,
  sortedRowModel: createSortedRowModel(),
  groupedRowModel: createGroupedRowModel(),
});
type ListFeatures = typeof features;
type SlipRow = Row<ListFeatures, Slip>;

/** A row of the list: a group's head with its count, or a post. */
export type ListRow =
  { kind: 'group'; key: string; label: string; count: number; folded: boolean } | { kind: 'post'; slip: Slip };

/**
 * How the list is asked for.
 *
 * @internal
 */
export interface ListLook {
  sort: Sort;
  descending: boolean;
  group: Grouping;
  columns: ReadonlySet<Column>;
}

const NO_SORT = Object.fromEntries(SORTS.map((sort) => [`sort:${sort}`, false]));
const HIDDEN = { ...NO_SORT, tie: false, ...Object.fromEntries(GROUPINGS.map((by) => [`group:${by}`, false])) };

/** Texts compared by their code units, which is what days, keys and names that were made for it want. */
const byText = (a: SlipRow, b: SlipRow, columnId: string): number => {
  const [one, other] = [a.getValue<string>(columnId), b.getValue<string>(columnId)];
  return one < other ? -1 : one > other ? 1 : 0;
};

/**
 * The list as a table: its columns in sight, and its rows sorted, in groups with their counts, the posts of folded groups
 * left out. Equal posts stay by date, time and id.
 *
 * @param folded keys of the groups that are folded
 */
export function useListTable(
  slips: readonly Slip[],
  { sort, descending, group, columns: shown }: ListLook,
  folded: ReadonlySet<string>,
  names: Names,
) {
  const columns = useMemo(() => {
    const column = createColumnHelper<ListFeatures, Slip>();
    const hidden = (id: string, text: (slip: Slip) => string) => column.accessor(text, { id, sortFn: byText });
    return column.columns([
      ...COLUMNS.map(({ name, label }) => column.display({ id: name, header: label })),
      ...SORTS.map((by) => hidden(`sort:${by}`, (slip) => sortKey(slip, by, names))),
      hidden('tie', (slip) => sortKey(slip, 'date', names) + slip.id),
      ...GROUPINGS.map((by) =>
        column.accessor((slip) => groupOrder(slip, by, names), {
          id: `group:${by}`,
          sortFn: byText,
          getGroupingValue: (slip) => groupOf(slip, by, names).key,
        }),
      ),
    ]);
  }, [names]);
  const state = useMemo(
    () => ({
      grouping: group === 'none' ? [] : [`group:${group}`],
      sorting: [
        ...(group === 'none' ? [] : [{ id: `group:${group}`, desc: false }]),
        { id: `sort:${sort}`, desc: descending },
        { id: 'tie', desc: false },
      ],
      columnVisibility: { ...HIDDEN, ...Object.fromEntries(COLUMNS.map(({ name }) => [name, shown.has(name)])) },
    }),
    [group, sort, descending, shown],
  );
  const table = useTable({ features, columns, data: slips as Slip[], state, groupedColumnMode: false });
  const sorted = table.getRowModel().rows;
  const rows = useMemo(
    () =>
      sorted.flatMap((row): ListRow[] => {
        if (!row.getIsGrouped()) return [{ kind: 'post', slip: row.original }];
        const { key, label } = groupOf(row.original, group, names);
        const isFolded = folded.has(key);
        const head: ListRow = { kind: 'group', key, label, count: row.subRows.length, folded: isFolded };
        return isFolded
          ? [head]
          : [head, ...row.subRows.map(({ original }): ListRow => ({ kind: 'post', slip: original }))];
      }),
    [sorted, group, names, folded],
  );
  return { headers: table.getFlatHeaders().filter(({ column }) => column.getIsVisible()), rows };
}
