'use client';

import { memo, useEffect, useMemo, useRef, useState } from 'react';
import { useVirtualizer } from '@tanstack/react-virtual';
import type { Change } from '@/core/calendar/change';
import { GROUPINGS, listRows, type Grouping, type ListRow, type Names, type Sort } from '@/core/calendar/list';
import type { Slip } from '@/core/calendar/slip';
import { FORMAT_LABELS } from '@/core/rulesheets/types';
import { STAGES, STAGE_LABELS, type Stage } from '@/core/stages/stages';
import { CallSign } from '@/ui/CallSign';
import { shortDate, spokenDate } from '@/ui/format';
import { InPlace } from '@/ui/InPlace';
import { Notches } from '@/ui/Notches';
import { Progress } from '@/ui/Progress';
import { LIFT_HELP_ID } from './Carrier';
import { MARKS, useMarks, useTimetable } from './timetable';
import { COLUMNS, type Column } from './view';

const ROW_PX = 34;
const WIDTHS: Record<Column, string> = {
  date: '92px',
  time: '64px',
  channel: '108px',
  title: 'minmax(180px, 1fr)',
  format: '84px',
  stage: '130px',
  owner: '64px',
  pillar: '140px',
  campaign: '140px',
  prep: '72px',
  missing: '96px',
};
const SORT_OF: Partial<Record<Column, Sort>> = {
  date: 'date',
  title: 'title',
  channel: 'channel',
  stage: 'stage',
  owner: 'owner',
  format: 'format',
};
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
  onSort,
  onGroup,
  onChange,
}: {
  slips: readonly Slip[];
  pieceTitles: Readonly<Record<string, string>>;
  campaignName: (id: string) => string;
  isCut: boolean;
  onSort: (sort: string) => void;
  onGroup: (group: Grouping) => void;
  onChange: (slips: readonly Slip[], change: Change) => void;
}) {
  const { look, channels, ownerName, pillarName, today } = useTimetable();
  const marksOf = useMarks();
  const [folded, setFolded] = useState<ReadonlySet<string>>(new Set());
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useMemo(() => {
    const names: Names = {
      channel: (id) => channels.get(id)?.name ?? '',
      owner: ownerName,
      pillar: pillarName,
      piece: (id) => pieceTitles[id] ?? '',
      day: (date) => `${spokenDate(date)} ${date.slice(0, 4)}`,
    };
    return listRows(slips, { ...look, folded }, names);
  }, [slips, look, folded, channels, ownerName, pillarName, pieceTitles]);

  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_PX,
    overscan: 6,
    getItemKey: (index) => keyOf(rows[index]!),
  });
  const startsAt = useRef(false);
  useEffect(() => {
    // Sorted by date, the list opens on today: what is past is a scroll away.
    if (startsAt.current || look.sort !== 'date' || look.descending) return;
    startsAt.current = true;
    const index = rows.findIndex((row) => row.kind === 'post' && row.slip.date !== null && row.slip.date >= today);
    if (index > 1) virtual.scrollToIndex(index - 1, { align: 'start' });
  }, [rows, look.sort, look.descending, today, virtual]);
  const columns = useMemo(() => COLUMNS.filter(({ name }) => look.columns.has(name)), [look.columns]);
  const template = columns.map(({ name }) => WIDTHS[name]).join(' ');

  const fold = (key: string) =>
    setFolded((all) => {
      const next = new Set(all);
      if (!next.delete(key)) next.add(key);
      return next;
    });

  return (
    <div className="list">
      <div className="list-bar soft">
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
          <button
            type="button"
            className="word"
            onClick={() =>
              setFolded(
                folded.size > 0 ? new Set() : new Set(rows.flatMap((row) => (row.kind === 'group' ? [row.key] : []))),
              )
            }
          >
            {folded.size > 0 ? 'Unfold all' : 'Fold all'}
          </button>
        )}
        {isCut && <span className="attention">Only the first 10,000 posts are listed: filter to see others.</span>}
      </div>
      <div
        className="list-rows"
        ref={scroller}
        role="table"
        aria-label="Posts"
        aria-rowcount={rows.length + 1}
        tabIndex={0}
      >
        <div className="list-row list-head" role="row" style={{ gridTemplateColumns: template }}>
          {columns.map(({ name, label }) => {
            const sort = SORT_OF[name];
            const isSorted = sort === look.sort;
            return (
              <span
                key={name}
                role="columnheader"
                aria-sort={isSorted ? (look.descending ? 'descending' : 'ascending') : undefined}
              >
                {sort ? (
                  <button
                    type="button"
                    className="word"
                    onClick={() => onSort(isSorted && !look.descending ? `-${sort}` : sort)}
                  >
                    {label}
                    {isSorted && (look.descending ? ' ↓' : ' ↑')}
                  </button>
                ) : (
                  label
                )}
              </span>
            );
          })}
        </div>
        <div role="rowgroup" style={{ height: virtual.getTotalSize(), position: 'relative' }}>
          {virtual.getVirtualItems().map((item) => {
            const row = rows[item.index]!;
            const style = { transform: `translateY(${item.start}px)`, height: ROW_PX };
            if (row.kind === 'group')
              return (
                <div key={item.key} role="row" className="list-group" style={style}>
                  <span role="cell">
                    <button type="button" onClick={() => fold(row.key)} aria-expanded={!row.folded}>
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
                campaignName={campaignName}
                onChange={onChange}
              />
            );
          })}
        </div>
        {rows.length === 0 && <p className="soft empty">No post matches. Take a filter off, or go to another month.</p>}
      </div>
    </div>
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
  campaignName,
  onChange,
}: {
  slip: Slip;
  marks: number;
  columns: readonly { name: Column }[];
  template: string;
  /** Pixels from the top of all rows. */
  top: number;
  campaignName: (id: string) => string;
  onChange: (slips: readonly Slip[], change: Change) => void;
}) {
  const { channels, ownerName, pillarName } = useTimetable();
  const [typedTitle, setTypedTitle] = useState<string | null>(null);
  const [isInUse, setIsInUse] = useState(false);
  const channel = channels.get(slip.channelId);
  const isOut = slip.stage === 'published';
  const cell: Record<Column, React.ReactNode> = {
    date: (
      <InPlace
        label={`Date of ${slip.title}`}
        type="date"
        className="figures"
        value={slip.date ?? ''}
        shown={slip.date ? shortDate(slip.date) : 'no date'}
        disabled={isOut}
        onCommit={(date) => onChange([slip], { kind: 'place', date: date || null })}
      />
    ),
    time: slip.date && (
      <InPlace
        label={`Time of ${slip.title}`}
        type="time"
        className="figures"
        value={slip.time ?? ''}
        shown={slip.time ?? 'none'}
        disabled={isOut}
        onCommit={(time) => onChange([slip], { kind: 'time', time: time || null })}
      />
    ),
    channel: (
      <span className="list-channel">
        <CallSign sign={slip.callSign} color={channel?.color ?? 'currentcolor'} /> {channel?.name}
      </span>
    ),
    title:
      typedTitle === null ? (
        <span className="list-title">
          <button
            type="button"
            className="open"
            data-post={slip.id}
            data-lift="post"
            aria-describedby={LIFT_HELP_ID}
            aria-current={(marks & MARKS.open) > 0 || undefined}
          >
            {slip.title}
          </button>
          {!isOut && isInUse && (
            <button
              type="button"
              className="word rename soft"
              aria-label={`Rename “${slip.title}”`}
              onClick={() => setTypedTitle(slip.title)}
            >
              Rename
            </button>
          )}
        </span>
      ) : (
        <input
          autoFocus
          aria-label={`Working title of ${slip.title}`}
          value={typedTitle}
          onChange={(event) => setTypedTitle(event.target.value)}
          onBlur={() => {
            if (typedTitle.trim() !== '' && typedTitle !== slip.title)
              onChange([slip], { kind: 'title', title: typedTitle });
            setTypedTitle(null);
          }}
          onKeyDown={(event) => {
            if (event.key === 'Enter') event.currentTarget.blur();
            if (event.key === 'Escape') setTypedTitle(null);
          }}
        />
      ),
    format: FORMAT_LABELS[slip.format],
    stage: (
      <span className="list-stage">
        <Notches stage={slip.stage} failed={slip.delivery?.state === 'failed'} />
        {isOut || !isInUse ? (
          <span className={isOut ? 'list-stage-name' : 'list-stage-name can-change'}>{STAGE_LABELS[slip.stage]}</span>
        ) : (
          <select
            className="plain-select"
            aria-label={`Stage of ${slip.title}`}
            value={slip.stage}
            onChange={(event) =>
              onChange([slip], { kind: 'stage', stage: event.target.value as Exclude<Stage, 'published' | 'setAside'> })
            }
          >
            {STAGES.filter((stage) => stage !== 'published').map((stage) => (
              <option key={stage} value={stage}>
                {STAGE_LABELS[stage]}
              </option>
            ))}
          </select>
        )}
      </span>
    ),
    owner: ownerName(slip.ownerId),
    pillar: slip.pillarId ? pillarName(slip.pillarId) : '',
    campaign: slip.campaignId ? campaignName(slip.campaignId) : '',
    prep: <Progress progress={slip.progress} />,
    missing: <span className="slip-missing">{slip.missing}</span>,
  };
  const classes = [
    'list-row',
    (marks & MARKS.open) > 0 ? 'is-open' : '',
    (marks & MARKS.picked) > 0 ? 'is-picked' : '',
    (marks & MARKS.unsaved) > 0 ? 'is-unsaved' : '',
  ];
  return (
    <div
      role="row"
      className={classes.filter(Boolean).join(' ')}
      style={{ transform: `translateY(${top}px)`, height: ROW_PX, gridTemplateColumns: template }}
      onPointerEnter={() => setIsInUse(true)}
      onPointerLeave={({ currentTarget }) => {
        if (!currentTarget.contains(document.activeElement)) setIsInUse(false);
      }}
      onFocus={() => setIsInUse(true)}
      onBlur={({ currentTarget, relatedTarget }) => {
        if (!currentTarget.contains(relatedTarget) && !currentTarget.matches(':hover')) setIsInUse(false);
      }}
    >
      {columns.map(({ name }) => (
        <span key={name} role="cell">
          {cell[name]}
        </span>
      ))}
    </div>
  );
});
