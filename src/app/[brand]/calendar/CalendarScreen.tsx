'use client';

import dynamic from 'next/dynamic';
import { useCallback, useEffect, useMemo, useRef, useTransition, type MouseEvent, useEffectEvent } from 'react';
import { DndContext, DragOverlay } from '@dnd-kit/core';
import { CALENDAR_DEEDS, type CalendarDeed } from '../goAndDo';
import { useQueryStates, parseAsString, parseAsStringLiteral } from 'nuqs';
import type { DropGround } from '@/core/calendar/drop';
import { readFilter } from '@/core/calendar/filter';
import { monthsTurned } from '@/core/calendar/listPeriod';
import { addMonths } from '@/core/calendar/months';
import type { Slip } from '@/core/calendar/slip';
import { openingsLeft } from '@/core/rhythm/openingsLeft';
import { addDays } from '@/core/time/days';
import type { LocalDate, LocalTime } from '@/core/time/plan';
import type { PostSheet } from '@/core/posts/sheet';
import type { SavedView } from '@/usecases/calendar/reading';
import type { CalendarView, TrayIdea } from '@/usecases/calendar/loadCalendar';
import { spokenDate } from '@/ui/format';
import { FirstChannel } from '@/ui/FirstChannel';
import { ShellProvider, useMay, useShell } from '@/ui/shell';
import { useFetchAhead } from '@/ui/useFetchAhead';
import { useRefresh } from '@/ui/useRefresh';
import { CALENDAR_DIALOGS, CalendarDialogs, useCalendarDialogs, type Planning } from './CalendarDialogs';
import { CalendarHead } from './CalendarHead';
import { Carrier } from './Carrier';
import { DragPreview } from './DragPreview';
import { brandOfSlip, timetableOf, type BrandShown } from './makeTimetable';
import { PickBox } from './PickBox';
import { MARKS, MarksProvider, TimetableProvider } from './timetable';
import { Tray } from './Tray';
import { Arrangement } from './Arrangement';
import { useCalendarKeys } from './useCalendarKeys';
import { useChanges } from './useChanges';
import { useDragging } from './useDragging';
import { useNeighbours } from './useNeighbours';
import { useKeptInSight } from './useKeptInSight';
import { usePicks } from './usePicks';
import { usePlanning } from './usePlanning';
import { WorkingDatesProvider } from './WorkingDates';
import { KEPT_PARAMETERS, readLook, type ViewName } from './view';

const loadPickBar = () => import('./PickBar').then((module) => module.PickBar);
const loadSheet = () => import('../sheet/Sheet').then((module) => module.Sheet);
const PickBar = dynamic(loadPickBar, { ssr: false });
const Sheet = dynamic(loadSheet);
/** What opens over the calendar, or beside it. */
const OPENED = [loadSheet, loadPickBar, ...CALENDAR_DIALOGS];

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
  const [turning, startTurning] = useTransition();
  const [query, setQuery] = useQueryStates(QUERY, { shallow: false, startTransition: startTurning, history: 'push' });
  const [{ post: openId }, setOpen] = useQueryStates({ post: parseAsString }, { history: 'push' });
  const changes = useChanges(brand.id, shown);
  const picks = usePicks();
  const dialogs = useCalendarDialogs();
  const { setPlanning, setAdding, setMoving } = dialogs;
  const { arrangement: view, date, weeks } = asked;
  const { slips } = changes;

  // ——— what is shown
  const get = useCallback((name: string) => query[name] ?? null, [query]);
  const look = useMemo(() => readLook(get), [get]);
  const filter = useMemo(() => readFilter(get), [get]);
  const campaigns = useMemo(() => brandsShown.flatMap((one) => one.campaigns), [brandsShown]);
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
    () => (look.dates === 'working' ? NO_OPENINGS : openingsLeft({ ...shown, slips }, new Set(filter.channels))),
    [shown, slips, filter.channels, look.dates],
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

  // ——— moving things
  const { plan, planned } = usePlanning(changes, (idea, { date, time }) =>
    setPlanning({ idea, date, isDropped: true, ...(time ? { time } : {}) }),
  );
  const may = useMay();
  const mayChange = may('changePosts');
  const { lifted, loadFor, context } = useDragging({
    isOff: !mayChange,
    view,
    today,
    shown,
    slips,
    lanes,
    openings,
    ground,
    picked: picks.picked,
    channelName: (id) => timetable.channels.get(id)?.name ?? '',
    onPlan: (idea, place) => void plan(idea, place),
    onChange: changes.change,
  });

  // ——— going about
  // Counted from the day asked for, which may still be on its way: pressing twice goes two periods.
  const from = query.date ?? today;
  const turned = useCallback(
    (steps: number): LocalDate =>
      view === 'month' || view === 'list'
        ? addMonths(from, steps * (view === 'list' ? monthsTurned(look.period) : 1))
        : addDays(from, steps * (view === 'day' ? 1 : weeks * 7)),
    [from, view, weeks, look.period],
  );
  const turn = useCallback((steps: number) => void setQuery({ date: turned(steps) }), [turned, setQuery]);
  useNeighbours(date, [turned(1), turned(-1)], shown);
  const open = useCallback((id: string | null) => void setOpen({ post: id }), [setOpen]);
  const [{ do: deed }, setDeed] = useQueryStates({ do: parseAsStringLiteral(CALENDAR_DEEDS) });
  const startNew = () => mayChange && setAdding({ date: today });
  // What was asked for elsewhere is done once, as soon as the calendar is there.
  const doAsked = useEffectEvent((asked: CalendarDeed) => {
    void setDeed({ do: null });
    if (asked === 'new') startNew();
    else print();
  });
  useEffect(() => {
    if (deed) doAsked(deed);
  }, [deed]);
  useCalendarKeys({
    onTurn: turn,
    onToday: () => void setQuery({ date: null }),
    onArrangement: (as) => void setQuery({ as }),
    onNew: startNew,
    // By the sheet's own button: it knows the post also where its slip is out of sight.
    onMove: () => document.querySelector<HTMLElement>('.sheet [aria-keyshortcuts="m"]')?.click(),
    onPick: (id, isRange) => mayChange && void picks.pick(id, { ctrlKey: true, metaKey: false, shiftKey: isRange }),
    // What lies above takes the key for itself.
    onEscape:
      dialogs.isOpen || lifted ? null : picks.picked.size > 0 ? picks.clear : openId !== null ? () => open(null) : null,
  });

  // A narrow screen has room for one day.
  useEffect(() => {
    if (query.as === null && matchMedia('(max-width: 720px)').matches)
      void setQuery({ as: 'day' }, { history: 'replace' });
  }, [query.as, setQuery]);

  useFetchAhead(OPENED);

  // What was moved and not saved, or is in the hand, must not be drawn over by the server's state.
  useRefresh(REFRESH_EVERY_MS, !changes.isSaving && lifted === null);

  const arrangement = useKeptInSight(openId, view, date);

  const present = useRef(slips);
  useEffect(() => void (present.current = slips), [slips]);
  const { put, readAnew } = changes;
  const changedInWords = useCallback(
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
      if (!mayChange || !picks.pick(slip.dataset.post!, event)) open(slip.dataset.post!);
      return;
    }
    if (!mayChange) return;
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
        <DndContext {...context}>
          <Carrier
            className={`calendar${openId ? ' has-sheet' : ''}${mayChange ? '' : ' is-looked-at'}`}
            loadFor={loadFor}
            onClick={press}
          >
            <Tray ideas={shown.ideas} slips={slips} onPlan={planFromTray(setPlanning, today)} />
            <WorkingDatesProvider steps={shown.steps} batchDays={shown.batchDays} onOpen={open}>
              <PickBox
                onPick={mayChange ? picks.add : null}
                className={`arrangement is-${view}${turning ? ' is-turning' : ''}`}
              >
                <div className="arrangement-scroll" ref={arrangement}>
                  <FirstChannel whatFor="Each channel is a lane of the calendar, with its openings and posts." />
                  <Arrangement
                    asked={asked}
                    today={today}
                    now={now}
                    shown={shown}
                    lanes={lanes}
                    openings={openings}
                    slips={view === 'stages' ? slips : dated}
                    isNarrow={openId !== null}
                    fold={query.fold ?? null}
                    campaigns={campaigns}
                    onQuery={setQuery}
                    onChange={changes.change}
                    onWritten={changedInWords}
                  />
                  <p className="print-foot">
                    {brandsShown
                      .map(({ brand: { name, zone } }) => `${name}, ${zone.split('/').at(-1)!.replace('_', ' ')} time`)
                      .join('; ')}
                    {' · printed '}
                    {spokenDate(today)} {today.slice(0, 4)}
                  </p>
                </div>
                {picks.picked.size > 0 && (
                  <PickBar
                    count={pickedSlips.length}
                    shownCount={dated.length}
                    channels={own.channels}
                    owners={own.people}
                    pillars={own.pillars}
                    campaigns={own.campaigns}
                    firstDate={pickedSlips.flatMap(({ date: on }) => on ?? []).sort()[0] ?? null}
                    weekStart={own.brand.weekStart}
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
                  onChanged={changedInWords}
                  onGone={changes.remove}
                  onMove={(post) => setMoving({ ...post, brandId: openBrand.brand.id })}
                  onOpen={open}
                  undone={changes.undone}
                  onUndo={changes.undo}
                  onClose={() => open(null)}
                />
              </ShellProvider>
            )}
          </Carrier>
          <DragOverlay dropAnimation={null}>
            {lifted && <DragPreview load={lifted} ground={ground} timetable={timetable} />}
          </DragOverlay>
        </DndContext>
        <CalendarDialogs
          asked={dialogs}
          ideas={shown.ideas}
          channels={channels}
          onChange={changes.change}
          onPlanned={planned}
          onMade={(made) => {
            made.forEach(changes.put);
            changes.readAnew();
            open(made[0]!.id);
          }}
        />
      </MarksProvider>
    </TimetableProvider>
  );
}

const NO_OPENINGS = { openings: [], extra: new Set<string>() };
const NO_SLIPS: readonly Slip[] = [];

const planFromTray = (setPlanning: (planning: Planning) => void, today: LocalDate) => (idea: TrayIdea) =>
  setPlanning({ idea, date: today });
