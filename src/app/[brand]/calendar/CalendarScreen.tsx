'use client';

import dynamic from 'next/dynamic';
import { useCallback, useEffect, useMemo, useRef, useState, useTransition, type MouseEvent } from 'react';
import {
  DndContext,
  DragOverlay,
  KeyboardSensor,
  MeasuringStrategy,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import { useQueryStates, parseAsString } from 'nuqs';
import { useHotkeys } from 'react-hotkeys-hook';
import { changeOfDrop } from '@/core/calendar/changeOfDrop';
import type { DropGround } from '@/core/calendar/drop';
import { readFilter } from '@/core/calendar/filter';
import type { Grouping } from '@/core/calendar/list';
import { addMonths } from '@/core/calendar/months';
import type { Slip } from '@/core/calendar/slip';
import { openingsLeft } from '@/core/rhythm/openingsLeft';
import { addDays } from '@/core/time/days';
import type { LocalDate, LocalTime } from '@/core/time/plan';
import type { PostSheet } from '@/core/posts/sheet';
import type { SavedView } from '@/usecases/calendar/reading';
import type { CalendarView, TrayIdea } from '@/usecases/calendar/loadCalendar';
import { useSay } from '@/ui/messages';
import { ShellProvider, useShell } from '@/ui/shell';
import { useRefresh } from '@/ui/useRefresh';
import { CalendarHead } from './CalendarHead';
import { Carrier } from './Carrier';
import { weekOf } from './heading';
import { DragPreview } from './DragPreview';
import { brandOfSlip, nameIn, timetableOf, type BrandShown } from './makeTimetable';
import { gridOf, startOf } from './placeGrid';
import { Day } from './Day';
import { announcements, byPlaces, collision, INSTRUCTIONS, loadOf, placeOf, refusalFor, type Load } from './dragging';
import { Lanes } from './Lanes';
import { Month } from './Month';
import { PickBox } from './PickBox';
import { openingId } from './places';
import { Stages } from './Stages';
import { MARKS, MarksProvider, TimetableProvider } from './timetable';
import { Tray } from './Tray';
import { useChanges } from './useChanges';
import { usePicks } from './usePicks';
import { usePlanning, type Planned } from './usePlanning';
import { WorkingDatesProvider } from './WorkingDates';
import { KEPT_PARAMETERS, readLook, VIEWS, type ViewName } from './view';

const PlanDialog = dynamic(() => import('../PlanDialog').then((module) => module.PlanDialog), { ssr: false });
const NewPostDialog = dynamic(() => import('./NewPostDialog').then((module) => module.NewPostDialog), { ssr: false });
const MoveDialog = dynamic(() => import('./MoveDialog').then((module) => module.MoveDialog), { ssr: false });
const PickBar = dynamic(() => import('./PickBar').then((module) => module.PickBar), { ssr: false });
const List = dynamic(() => import('./List').then((module) => module.List));
const Sheet = dynamic(() => import('../sheet/Sheet').then((module) => module.Sheet));

/** How often the calendar looks what others, and the worker, changed, in milliseconds. */
const REFRESH_EVERY_MS = 30_000;

/** Everything of the calendar's look that stands in the address. */
const QUERY = Object.fromEntries(['date', 'fold', ...KEPT_PARAMETERS].map((name) => [name, parseAsString])) as Record<
  string,
  typeof parseAsString
>;

/** The calendar: one set of posts and one bar of filters, in five arrangements, with the tray and the open post's sheet. */
export function CalendarScreen({
  asked,
  today,
  now,
  view: shown,
  brandsShown,
  savedViews,
  openSheet,
}: {
  asked: { arrangement: ViewName; date: LocalDate; weeks: 1 | 2 };
  today: LocalDate;
  /** The time on the wall of the brand's zone. */
  now: LocalTime;
  view: CalendarView;
  brandsShown: readonly BrandShown[];
  savedViews: readonly SavedView[];
  openSheet: PostSheet | null;
}) {
  const shell = useShell();
  const { brand } = shell;
  const say = useSay();
  const [turning, startTurning] = useTransition();
  const [query, setQuery] = useQueryStates(QUERY, { shallow: false, startTransition: startTurning, history: 'push' });
  const [{ post: openId }, setOpen] = useQueryStates({ post: parseAsString }, { history: 'push' });
  const changes = useChanges(brand.id, shown);
  const picks = usePicks();
  const [lifted, setLifted] = useState<Load | null>(null);
  const [planning, setPlanning] = useState<Planning | null>(null);
  const [adding, setAdding] = useState<Planned | null>(null);
  const [moving, setMoving] = useState<Slip | null>(null);
  const { arrangement: view, date, weeks } = asked;
  const { slips } = changes;

  // ——— what is shown
  const get = useCallback((name: string) => query[name] ?? null, [query]);
  const look = useMemo(() => readLook(get), [get]);
  const filter = useMemo(() => readFilter(get), [get]);
  const folded = useMemo(() => new Set((query.fold ?? '').split(',').filter(Boolean)), [query.fold]);
  const channels = useMemo(() => brandsShown.flatMap((one) => one.channels), [brandsShown]);
  const lanes = useMemo(
    () => (filter.channels.length > 0 ? channels.filter(({ id }) => filter.channels.includes(id)) : channels),
    [channels, filter.channels],
  );
  const timetable = useMemo(() => timetableOf(brandsShown, look, today), [brandsShown, look, today]);
  const ground: DropGround = useMemo(
    () => ({
      todayOf: timetable.todayOf,
      brandOfChannel: (id) => timetable.channels.get(id)?.brandId,
    }),
    [timetable],
  );
  const { openings, extra } = useMemo(
    () => (look.dates === 'working' ? NO_OPENINGS : openingsLeft({ ...shown, slips }, new Set(filter.channels), today)),
    [shown, slips, filter.channels, look.dates, today],
  );
  const marksOf = useCallback(
    (id: string) =>
      (id === openId ? MARKS.open : 0) |
      (changes.unsaved.has(id) ? MARKS.unsaved : 0) |
      (picks.picked.has(id) ? MARKS.picked : 0) |
      (extra.has(id) ? MARKS.extra : 0),
    [openId, changes.unsaved, picks.picked, extra],
  );
  const dated = useMemo(() => {
    if (shown.dates.length > 0 && look.dates === 'working') return NO_SLIPS;
    if (shown.dates.length === 0) return slips.filter((slip) => view !== 'list' || slip.date !== null);
    const [from, to] = [shown.dates[0]!, shown.dates.at(-1)!];
    return slips.filter((slip) => slip.date !== null && slip.date >= from && slip.date <= to);
  }, [slips, shown.dates, look.dates, view]);
  const count =
    view === 'month' ? dated.filter((slip) => slip.date!.slice(0, 7) === date.slice(0, 7)).length : dated.length;

  // ——— going about
  const turn = useCallback(
    (steps: number) => {
      // Counted from the day asked for, which may still be on its way: pressing twice goes two periods.
      const from = query.date ?? today;
      const next =
        view === 'month' || view === 'list'
          ? addMonths(from, steps)
          : addDays(from, steps * (view === 'day' ? 1 : weeks * 7));
      void setQuery({ date: next });
    },
    [query.date, today, view, weeks, setQuery],
  );
  const open = useCallback((id: string | null) => void setOpen({ post: id }), [setOpen]);
  useHotkeys('bracketleft', () => turn(-1), [turn]);
  useHotkeys('bracketright', () => turn(1), [turn]);
  useHotkeys('0', () => void setQuery({ date: null }), [setQuery]);
  useHotkeys(['1', '2', '3', '4', '5'], (event) => void setQuery({ as: VIEWS[Number(event.key) - 1]!.name }), [
    setQuery,
  ]);
  useHotkeys('n', () => setAdding({ date: today }), { preventDefault: true }, [today]);
  useHotkeys('mod+z', () => void changes.undo(null), { preventDefault: true }, [changes.undo]);
  useHotkeys('m', () => setMoving(slips.find(({ id }) => id === openId) ?? null), [slips, openId]);
  useHotkeys(
    'escape',
    () => {
      if (picks.picked.size > 0) picks.clear();
      else open(null);
    },
    {
      enabled: !planning && !lifted && !adding && !moving && (openId !== null || picks.picked.size > 0),
      // What lies above the sheet, or is in the hand on it, takes the key for itself.
      ignoreEventWhen: () => document.querySelector('.modal, .part.is-lifted') !== null,
    },
  );

  // A narrow screen has room for one day.
  useEffect(() => {
    if (query.as === null && matchMedia('(max-width: 720px)').matches)
      void setQuery({ as: 'day' }, { history: 'replace' });
  }, [query.as, setQuery]);

  // What was moved and not saved, or is in the hand, must not be drawn over by the server's state.
  useRefresh(REFRESH_EVERY_MS, !changes.isSaving && lifted === null);

  const arrangement = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (openId)
      arrangement.current?.querySelector(`[data-post="${CSS.escape(openId)}"]`)?.scrollIntoView({ block: 'nearest' });
  }, [openId]);
  useEffect(() => {
    if (view !== 'month') return;
    const row = arrangement.current?.querySelector<HTMLElement>('td.is-today')?.parentElement;
    if (arrangement.current) arrangement.current.scrollTop = row ? row.offsetTop - MONTH_HEAD_PX : 0;
  }, [view, date]);

  // ——— moving things
  const grid = useMemo(() => gridOf(view, shown, lanes, openings), [view, shown, lanes, openings]);
  const start = startOf(view, today, shown.dates, lanes);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, {
      coordinateGetter: byPlaces(grid, start),
      keyboardCodes: { start: ['Space'], cancel: ['Escape'], end: ['Space', 'Enter'] },
    }),
  );

  const loadFor = useCallback(
    (element: HTMLElement): Load | null => {
      const idea = shown.ideas.find(({ id }) => id === element.dataset.idea);
      if (idea) return { kind: 'idea', idea };
      const slip = slips.find(({ id }) => id === element.dataset.post);
      if (!slip) return null;
      const others = picks.picked.has(slip.id) ? slips.filter(({ id }) => id !== slip.id && picks.picked.has(id)) : [];
      return { kind: 'posts', slips: [slip, ...others] };
    },
    [shown.ideas, slips, picks.picked],
  );

  const { plan, planned } = usePlanning(changes, (idea, { date, time }) =>
    setPlanning({ idea, date, ...(time ? { time } : {}) }),
  );

  function drop({ active, over }: DragEndEvent) {
    const load = loadOf(active);
    setLifted(null);
    if (!over) return;
    const place = placeOf(over);
    const why = refusalFor(load, place, ground);
    if (why) return say({ text: `Not moved: ${why}.`, wrong: true });
    if (load.kind === 'idea') {
      if (place.kind !== 'day') return;
      const opening = openings.find(({ key }) => openingId(key) === over.id);
      void plan(load.idea, {
        date: place.date,
        ...(place.channelId ? { channelId: place.channelId } : {}),
        ...(place.time ? { time: place.time } : {}),
        ...(opening ? { opening } : {}),
      });
      return;
    }
    const dropped = changeOfDrop(load.slips, place, view === 'day');
    if (dropped) changes.change(dropped.slips, dropped.change);
    focusSoon(load.slips[0].id);
  }

  const present = useRef(slips);
  useEffect(() => void (present.current = slips), [slips]);
  const { put, readAnew } = changes;
  const changedOnSheet = useCallback(
    (slip: Slip) => {
      put(slip);
      const before = present.current.find(({ id }) => id === slip.id);
      // Horizons and openings depend on these; on words being there, not on each word.
      if (before?.hasWords !== slip.hasWords || before.stage !== slip.stage || before.date !== slip.date) readAnew();
    },
    [put, readAnew],
  );

  function press(event: MouseEvent<HTMLDivElement>) {
    const target = event.target as HTMLElement;
    const slip = target.closest<HTMLElement>('[data-post]');
    if (slip) {
      if (!picks.pick(slip.dataset.post!, event)) open(slip.dataset.post!);
      return;
    }
    const opening = openings.find(({ key }) => key === target.closest<HTMLElement>('[data-opening]')?.dataset.opening);
    if (opening) return setAdding({ date: opening.date, time: opening.time, channelId: opening.channelId, opening });
    const add = target.closest<HTMLElement>('[data-add]')?.dataset;
    if (add) setAdding({ date: add.add!, ...(add.channel ? { channelId: add.channel } : {}) });
  }

  const pickedSlips = slips.filter(({ id }) => picks.picked.has(id));
  const own = brandsShown[0]!;
  const openBrand = brandOfSlip(brandsShown, openSheet, slips, openId) ?? own;

  return (
    <TimetableProvider value={timetable}>
      <MarksProvider value={marksOf}>
        <CalendarHead
          asked={asked}
          shown={shown}
          brandsShown={brandsShown}
          savedViews={savedViews}
          counts={{ posts: count, openings: openings.length }}
          query={query}
          onQuery={setQuery}
          turning={turning}
          onTurn={turn}
          waits={changes.waits}
          look={look}
          filter={filter}
        />
        <DndContext
          id="calendar"
          sensors={sensors}
          collisionDetection={collision}
          measuring={{ droppable: { strategy: MeasuringStrategy.BeforeDragging } }}
          accessibility={{
            announcements: announcements(ground, (id) => timetable.channels.get(id)?.name ?? ''),
            screenReaderInstructions: { draggable: INSTRUCTIONS },
          }}
          onDragStart={({ active }) => setLifted(loadOf(active))}
          onDragEnd={drop}
          onDragCancel={() => setLifted(null)}
        >
          <Carrier className={`calendar${openId ? ' has-sheet' : ''}`} loadFor={loadFor} onClick={press}>
            <Tray ideas={shown.ideas} slips={slips} onPlan={planFromTray(setPlanning, today)} />
            <WorkingDatesProvider steps={shown.steps} batchDays={shown.batchDays} onOpen={open}>
              <PickBox onPick={picks.add} className={`arrangement is-${view}${turning ? ' is-turning' : ''}`}>
                <div className="arrangement-scroll" ref={arrangement}>
                  {view === 'lanes' && (
                    <Lanes
                      dates={openId && weeks === 2 ? shown.dates.slice(...weekOf(shown.dates, date)) : shown.dates}
                      lanes={lanes}
                      slips={dated}
                      openings={openings}
                      asked={shown.openings}
                      horizons={shown.horizons}
                      knownDates={shown.knownDates}
                      onMore={(on) => void setQuery({ as: 'day', date: on })}
                    />
                  )}
                  {view === 'month' && (
                    <Month
                      month={date}
                      weeks={shown.weeks}
                      slips={dated}
                      openings={openings}
                      knownDates={shown.knownDates}
                    />
                  )}
                  {view === 'day' && (
                    <Day
                      date={date}
                      now={date === today ? now : null}
                      slips={dated}
                      openings={openings}
                      knownDates={shown.knownDates}
                    />
                  )}
                  {view === 'stages' && (
                    <Stages
                      slips={slips}
                      counts={shown.stageCounts}
                      folded={folded}
                      onFold={(stage) => {
                        const next = new Set(folded);
                        if (!next.delete(stage)) next.add(stage);
                        void setQuery({ fold: [...next].join(',') || null }, { shallow: true, history: 'replace' });
                      }}
                    />
                  )}
                  {view === 'list' && (
                    <List
                      slips={dated}
                      pieceTitles={shown.pieceTitles}
                      campaignName={nameIn(brandsShown.flatMap((one) => one.campaigns))}
                      isCut={shown.isCut}
                      onSort={(sort) => void setQuery({ sort: sort === 'date' ? null : sort }, { shallow: true })}
                      onGroup={(group: Grouping) =>
                        void setQuery({ group: group === 'day' ? null : group }, { shallow: true })
                      }
                      onChange={changes.change}
                    />
                  )}
                </div>
                {picks.picked.size > 0 && (
                  <PickBar
                    count={pickedSlips.length}
                    shownCount={dated.length}
                    channels={own.channels}
                    owners={own.people}
                    pillars={own.pillars}
                    campaigns={own.campaigns}
                    onChange={(change) => changes.change(pickedSlips, change)}
                    onPickAll={() => picks.add(dated.map(({ id }) => id))}
                    onCopyWeek={(count) =>
                      changes.change(pickedSlips, { kind: 'copy', days: count * 7, channelIds: null })
                    }
                    onClear={picks.clear}
                  />
                )}
              </PickBox>
            </WorkingDatesProvider>
            {openId && (
              <ShellProvider shell={{ ...shell, ...openBrand }}>
                <Sheet
                  key={openId}
                  postId={openId}
                  initial={openSheet?.id === openId ? openSheet : null}
                  slipVersion={slips.find((slip) => slip.id === openId)?.version ?? null}
                  onChanged={changedOnSheet}
                  onGone={changes.remove}
                  onMove={() => setMoving(slips.find(({ id }) => id === openId) ?? null)}
                  onOpen={open}
                  onClose={() => open(null)}
                />
              </ShellProvider>
            )}
          </Carrier>
          <DragOverlay dropAnimation={null}>
            {lifted && <DragPreview load={lifted} ground={ground} timetable={timetable} />}
          </DragOverlay>
        </DndContext>
        {planning && (
          <PlanDialog
            piece={planning.idea}
            date={planning.date}
            time={planning.time}
            onPlanned={(made) => planned(planning.idea, made)}
            onClose={() => setPlanning(null)}
          />
        )}
        {adding && (
          <NewPostDialog
            date={adding.date}
            time={adding.time}
            channelId={adding.channelId}
            opening={adding.opening}
            onMade={(made) => {
              made.forEach(changes.put);
              changes.readAnew();
              open(made[0]!.id);
            }}
            onClose={() => setAdding(null)}
          />
        )}
        {moving && (
          <MoveDialog
            slip={moving}
            channels={channels.filter(({ brandId }) => brandId === moving.brandId)}
            onMove={(change) => changes.change([moving], change)}
            onClose={() => setMoving(null)}
          />
        )}
      </MarksProvider>
    </TimetableProvider>
  );
}

interface Planning {
  idea: TrayIdea;
  date: LocalDate;
  time?: LocalTime;
}

/** Height of the month's row of weekday names, in pixels: what scrolls stops below it. */
const MONTH_HEAD_PX = 26;
const NO_OPENINGS = { openings: [], extra: new Set<string>() };
const NO_SLIPS: readonly Slip[] = [];

const planFromTray = (setPlanning: (planning: Planning) => void, today: LocalDate) => (idea: TrayIdea) =>
  setPlanning({ idea, date: today });

/** Puts the focus on a post where it stands after a drop. */
function focusSoon(postId: string): void {
  setTimeout(() => {
    const slip = document.querySelector<HTMLElement>(`[data-post="${CSS.escape(postId)}"]`);
    if (document.activeElement === document.body || document.activeElement === null) slip?.focus();
  }, 60);
}
