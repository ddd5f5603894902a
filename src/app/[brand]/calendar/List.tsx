'use client';

import { useMay } from '@/ui/shell';
import { memo, type CSSProperties, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useVirtualizer } from '@tanstack/react-virtual';
import type { Change } from '@/core/calendar/change';
import { LIST_PERIOD_LABELS, LIST_PERIODS, type ListPeriod } from '@/core/calendar/listPeriod';
import { GROUPINGS, type Grouping, type Names } from '@/core/calendar/list';
import type { Slip } from '@/core/calendar/slip';
import type { LocalDate } from '@/core/time/plan';
import { spokenDate } from '@/ui/format';
import { useIsNarrow } from '@/ui/useIsNarrow';
import { usePrinting } from '@/ui/usePrinting';
import { LIST_COLUMNS } from './listColumns';
import { RowTextsProvider, useTextsInSight } from './rowTexts';
import { MARKS, useMarks, useTimetable } from './timetable';
import { useListTable, type ListRow } from './useListTable';
import type { Column } from './view';
import { WordButton } from '@/ui/WordButton';

/** Heights of a row in pixels: of one line, and with room for several. */
const ROW_PX = { low: 34, tall: 112 } as const;
const GROUPING_LABELS: Record<Grouping, string> = {
  none: 'nothing',
  day: 'day',
  channel: 'channel',
  stage: 'stage',
  piece: 'piece',
  pillar: 'pillar',
  owner: 'owner',
};

/** Every post as a row: sorted, in groups that fold, edited in place; only the rows in sight are drawn. */
export const List = memo(function List({
  slips,
  pieceTitles,
  campaignName,
  isCut,
  date,
  onPeriod,
  onSort,
  onGroup,
  onShape,
  onChange,
  onWritten,
}: {
  slips: readonly Slip[];
  pieceTitles: Readonly<Record<string, string>>;
  campaignName: (id: string) => string;
  isCut: boolean;
  /** The day asked for: sorted by date, the list opens on it. */
  date: LocalDate;
  onPeriod: (period: ListPeriod) => void;
  onSort: (sort: string) => void;
  onGroup: (group: Grouping) => void;
  /** Gives rows or columns of texts more room, or with null less. */
  onShape: (part: 'rows' | 'texts', shape: string | null) => void;
  onChange: (slips: readonly Slip[], change: Change) => void;
  /** Told of a post as it is after a text of it was written. */
  onWritten: (slip: Slip) => void;
}) {
  const { look, channels, ownerName, pillarName } = useTimetable();
  const [folded, setFolded] = useState<ReadonlySet<string>>(new Set());
  // As state, not as a ref: the rows are drawn anew once what scrolls them is there.
  const [scroller, setScroller] = useState<HTMLDivElement | null>(null);
  const names: Names = useMemo(
    () => ({
      channel: (id) => channels.get(id)?.name ?? '',
      owner: ownerName,
      pillar: pillarName,
      piece: (id) => pieceTitles[id] ?? '',
      day: (date) => `${spokenDate(date)} ${date.slice(0, 4)}`,
    }),
    [channels, ownerName, pillarName, pieceTitles],
  );
  const { headers, rows } = useListTable(slips, look, folded, names);
  const isNarrow = useIsNarrow();
  const isShown = (name: Column) => !isNarrow || LIST_COLUMNS[name].narrow !== undefined;
  const columns = headers.map(({ column }) => column.id as Column).filter(isShown);
  const widthOf = (name: Column) => {
    const { narrow, width, wide } = LIST_COLUMNS[name];
    return isNarrow ? narrow : look.wide ? (wide ?? width) : width;
  };
  const widths = columns.map((name) => widthOf(name)!);
  const template = widths.join(' ');
  const key = columns.join(' ');
  const shown = useMemo(() => key.split(' ') as Column[], [key]);

  const fold = useCallback(
    (group: string) =>
      setFolded((all) => {
        const next = new Set(all);
        if (!next.delete(group)) next.add(group);
        return next;
      }),
    [],
  );

  return (
    <div className="list">
      <div className="list-bar soft">
        <label>
          Shows{' '}
          <select
            className="plain-select"
            value={look.period}
            onChange={(event) => onPeriod(event.target.value as ListPeriod)}
          >
            {LIST_PERIODS.map((period) => (
              <option key={period} value={period}>
                {LIST_PERIOD_LABELS[period]}
              </option>
            ))}
          </select>
        </label>
        <label>
          Grouped by{' '}
          <select
            className="plain-select"
            value={look.group}
            onChange={(event) => onGroup(event.target.value as Grouping)}
          >
            {GROUPINGS.map((group) => (
              <option key={group} value={group}>
                {GROUPING_LABELS[group]}
              </option>
            ))}
          </select>
        </label>
        {look.group !== 'none' && (
          <WordButton
            onClick={() =>
              setFolded(
                folded.size > 0 ? new Set() : new Set(rows.flatMap((row) => (row.kind === 'group' ? [row.key] : []))),
              )
            }
          >
            {folded.size > 0 ? 'Unfold all' : 'Fold all'}
          </WordButton>
        )}
        <WordButton aria-pressed={look.tall} onClick={() => onShape('rows', look.tall ? null : 'tall')}>
          Tall rows
        </WordButton>
        <WordButton aria-pressed={look.wide} onClick={() => onShape('texts', look.wide ? null : 'wide')}>
          Wide columns
        </WordButton>
        {isCut && <span className="attention">Only the first 10,000 posts are listed: filter to see others.</span>}
      </div>
      <div
        className="list-rows"
        ref={setScroller}
        role="table"
        aria-label="Posts"
        aria-rowcount={rows.length + 1}
        tabIndex={0}
        style={{ '--least-width': leastWidth(widths) } as CSSProperties}
      >
        <div className="list-row list-head" role="row" style={{ gridTemplateColumns: template }}>
          {headers
            .filter(({ column }) => isShown(column.id as Column))
            .map(({ column }) => {
              const { sort, short } = LIST_COLUMNS[column.id as Column];
              const name = column.columnDef.header as string;
              const label = isNarrow && short ? <abbr title={name}>{short}</abbr> : name;
              const isSorted = sort === look.sort;
              return (
                <span
                  key={column.id}
                  role="columnheader"
                  aria-sort={isSorted ? (look.descending ? 'descending' : 'ascending') : undefined}
                >
                  {sort ? (
                    <WordButton onClick={() => onSort(isSorted && !look.descending ? `-${sort}` : sort)}>
                      {label}
                      {isSorted && (look.descending ? ' ↓' : ' ↑')}
                    </WordButton>
                  ) : (
                    label
                  )}
                </span>
              );
            })}
        </div>
        <ListRows
          rows={rows}
          columns={shown}
          template={template}
          scroller={scroller}
          date={date}
          campaignName={campaignName}
          pieceTitle={names.piece}
          onFold={fold}
          onChange={onChange}
          onWritten={onWritten}
        />
        {rows.length === 0 && <p className="soft empty">No post matches. Remove a filter, or go to another month.</p>}
      </div>
    </div>
  );
});

/** How wide rows of such columns are at least: below that they scroll sideways. */
const leastWidth = (widths: readonly string[]): string => {
  const tracks = widths.reduce((sum, width) => sum + parseInt(/\d+/.exec(width)![0], 10), 0);
  return `calc(${tracks}px + ${widths.length - 1} * var(--space-4) + 2 * var(--space-5))`;
};

/** The rows in sight. While one scrolls, only this is drawn anew, and of it only what comes into sight. */
const ListRows = memo(function ListRows({
  rows,
  columns,
  template,
  scroller,
  date,
  campaignName,
  pieceTitle,
  onFold,
  onChange,
  onWritten,
}: {
  rows: readonly ListRow[];
  columns: readonly Column[];
  template: string;
  scroller: HTMLDivElement | null;
  date: LocalDate;
  campaignName: (id: string) => string;
  pieceTitle: (id: string) => string;
  onFold: (group: string) => void;
  onChange: (slips: readonly Slip[], change: Change) => void;
  onWritten: (slip: Slip) => void;
}) {
  const { look } = useTimetable();
  const marksOf = useMarks();
  const heightOf = (row: ListRow) => (look.tall && row.kind === 'post' ? ROW_PX.tall : ROW_PX.low);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller,
    estimateSize: (index) => heightOf(rows[index]!),
    overscan: 6,
    getItemKey: (index) => keyOf(rows[index]!),
  });
  useEffect(() => virtual.measure(), [virtual, look.tall]);
  const startsAt = useRef<string | null>(null);
  useEffect(() => {
    // Sorted by date, the list opens on the day asked for: what is before is a scroll away.
    const asked = `${date} ${look.period}`;
    if (scroller === null || startsAt.current === asked || look.sort !== 'date' || look.descending) return;
    startsAt.current = asked;
    const index = rows.findIndex((row) => row.kind === 'post' && row.slip.date !== null && row.slip.date >= date);
    virtual.scrollToIndex(index < 0 ? rows.length - 1 : Math.max(0, index - 1), { align: 'start' });
  }, [rows, scroller, look.sort, look.descending, look.period, date, virtual]);

  // On paper there is no scrolling: every row is drawn.
  const isPrinting = usePrinting();
  const drawn = isPrinting
    ? rows.map((row, index) => ({ index, key: keyOf(row), start: index * heightOf(row) }))
    : virtual.getVirtualItems();
  const inSight = drawn.flatMap(({ index }) => {
    const row = rows[index]!;
    return row.kind === 'post' ? [row.slip] : [];
  });
  const texts = useTextsInSight(inSight, columns);
  return (
    <RowTextsProvider value={texts}>
      <div role="rowgroup" className="list-drawn" style={{ height: virtual.getTotalSize(), position: 'relative' }}>
        {drawn.map((item) => {
          const row = rows[item.index]!;
          const style = { transform: `translateY(${item.start}px)`, height: heightOf(row) };
          if (row.kind === 'group')
            return (
              <div key={item.key} role="row" className="list-group" style={style}>
                <span role="cell">
                  <button type="button" onClick={() => onFold(row.key)} aria-expanded={!row.folded}>
                    {row.folded ? '+' : '–'} {row.label} <span className="figures soft">{row.count}</span>
                  </button>
                </span>
              </div>
            );
          return (
            <ListPost
              key={item.key}
              slip={row.slip}
              marks={marksOf(row.slip.id)}
              columns={columns}
              template={template}
              top={item.start}
              height={heightOf(row)}
              campaignName={campaignName}
              pieceTitle={pieceTitle}
              onChange={onChange}
              onWritten={onWritten}
            />
          );
        })}
      </div>
    </RowTextsProvider>
  );
});

const keyOf = (row: ListRow): string => (row.kind === 'group' ? `group:${row.key}` : row.slip.id);

/**
 * A row; while one scrolls, only those that come into sight are drawn. Its rarer controls are there while it is pointed at
 * or has the focus: drawing them for each row would make scrolling stutter.
 */
const ListPost = memo(function ListPost({
  slip,
  marks,
  columns,
  template,
  top,
  height,
  campaignName,
  pieceTitle,
  onChange,
  onWritten,
}: {
  slip: Slip;
  marks: number;
  columns: readonly Column[];
  template: string;
  /** Pixels from the top of all rows. */
  top: number;
  /** In pixels. */
  height: number;
  campaignName: (id: string) => string;
  pieceTitle: (id: string) => string;
  onChange: (slips: readonly Slip[], change: Change) => void;
  onWritten: (slip: Slip) => void;
}) {
  const mayChange = useMay()('changePosts');
  const [isInUse, setIsInUse] = useState(false);
  const isOpen = (marks & MARKS.open) > 0;
  const isOut = slip.stage === 'published' || !mayChange;
  const cell = { slip, isOut, isInUse, isOpen, campaignName, pieceTitle, onChange, onWritten };
  const classes = [
    'list-row',
    height > ROW_PX.low ? 'is-tall' : '',
    isOpen ? 'is-open' : '',
    (marks & MARKS.picked) > 0 ? 'is-picked' : '',
    (marks & MARKS.unsaved) > 0 ? 'is-unsaved' : '',
  ];
  return (
    <div
      role="row"
      className={classes.filter(Boolean).join(' ')}
      style={{ transform: `translateY(${top}px)`, height, gridTemplateColumns: template }}
      onPointerEnter={() => setIsInUse(true)}
      onPointerLeave={({ currentTarget }) => {
        if (!currentTarget.contains(document.activeElement)) setIsInUse(false);
      }}
      onFocus={() => setIsInUse(true)}
      onBlur={({ currentTarget, relatedTarget }) => {
        if (!currentTarget.contains(relatedTarget) && !currentTarget.matches(':hover')) setIsInUse(false);
      }}
    >
      {columns.map((name) => {
        const { Cell } = LIST_COLUMNS[name];
        return (
          <span key={name} role="cell">
            <Cell {...cell} />
          </span>
        );
      })}
    </div>
  );
});
