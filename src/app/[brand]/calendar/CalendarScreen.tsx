'use client';

import dynamic from 'next/dynamic';
import { useRouter } from 'next/navigation';
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
import type { DropGround } from '@/core/calendar/drop';
import { readFilter, writeFilter } from '@/core/calendar/filter';
import type { Grouping } from '@/core/calendar/list';
import { addMonths } from '@/core/calendar/months';
import type { Slip } from '@/core/calendar/slip';
import { fillOpenings } from '@/core/rhythm/fill';
import type { Opening } from '@/core/rhythm/openings';
import { addDays, daysBetween, weekNumber } from '@/core/time/days';
import type { LocalDate, LocalTime } from '@/core/time/plan';
import type { PostSheet } from '@/core/posts/sheet';
import type { Reading } from '@/data/readings';
import type { CalendarView, TrayIdea } from '@/usecases/calendar';
import { call, problemOf, type Answer } from '@/ui/api';
import { shortDate } from '@/ui/format';
import { useSay } from '@/ui/messages';
import { ShellProvider, useShell } from '@/ui/shell';
import { Carrier } from './Carrier';
import { presentAddress, titleOf, weekOf } from './heading';
import { InHand } from './InHand';
import { brandOfSlip, nameIn, timetableOf, unique, type BrandShown } from './makeTimetable';
import { gridOf, startOf } from './placeGrid';
import { Day } from './Day';
import { announcements, byPlaces, collision, INSTRUCTIONS, loadOf, placeOf, refusalFor, type Load } from './dragging';
import { FilterBar } from './FilterBar';
import { Lanes } from './Lanes';
import { Month } from './Month';
import { PickBox } from './PickBox';
import { openingId } from './places';
import { Readings } from './Readings';
import { Stages } from './Stages';
import { MARKS, MarksProvider, TimetableProvider } from './timetable';
import { Tray } from './Tray';
import { useChanges } from './useChanges';
import { usePicks } from './usePicks';
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
  readings,
  openSheet,
}: {
  asked: { arrangement: ViewName; date: LocalDate; weeks: 1 | 2 };
  today: LocalDate;
  /** The time on the wall of the brand's zone. */
  now: LocalTime;
  view: CalendarView;
  brandsShown: readonly BrandShown[];
  readings: readonly Reading[];
  openSheet: PostSheet | null;
}) {
  const shell = useShell();
  const { brand, brands } = shell;
  const router = useRouter();
  const say = useSay();
  const [turning, startTurning] = useTransition();
  const [query, setQuery] = useQueryStates(QUERY, { shallow: false, startTransition: startTurning, history: 'push' });
  const [{ post: openId }, setOpen] = useQueryStates({ post: parseAsString }, { history: 'push' });
  const changes = useChanges(brand.id, shown);
  const picks = usePicks();
  const [lifted, setLifted] = useState<Load | null>(null);
  const [planning, setPlanning] = useState<Planning | null>(null);
  const [adding, setAdding] = useState<Adding | null>(null);
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
  const { openings, extra } = useMemo(() => {
    if (shown.openings.length === 0 || look.dates === 'working') return { openings: NO_OPENINGS, extra: NO_IDS };
    // A filter hides posts that fill openings all the same; what shows may have been moved since.
    const moved = new Map(slips.map((slip) => [slip.id, slip]));
    const candidates = shown.planned ? [...shown.planned.filter((post) => !moved.has(post.id)), ...slips] : slips;
    const fill = fillOpenings(shown.openings, candidates);
    const rhythmic = new Set(shown.rhythmic);
    return {
      openings: shown.openings.filter(
        (opening) =>
          !fill.filledBy.has(opening.key) &&
          (filter.channels.length === 0 || filter.channels.includes(opening.channelId)),
      ),
      extra: new Set(
        slips
          .filter(
            ({ id, date: on, channelId }) => on !== null && on > today && fill.extra.has(id) && rhythmic.has(channelId),
          )
          .map(({ id }) => id),
      ),
    };
  }, [shown.openings, shown.planned, shown.rhythmic, slips, filter.channels, look.dates, today]);
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
  const mayRefresh = !changes.isSaving && lifted === null;
  useEffect(() => {
    const look = () => {
      if (mayRefresh && document.visibilityState === 'visible') router.refresh();
    };
    const timer = setInterval(look, REFRESH_EVERY_MS);
    document.addEventListener('visibilitychange', look);
    return () => {
      clearInterval(timer);
      document.removeEventListener('visibilitychange', look);
    };
  }, [router, mayRefresh]);

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

  async function plan(idea: TrayIdea, on: LocalDate, where: Partial<Adding>) {
    const channelIds = where.channelId ? [where.channelId] : idea.suggestedChannelIds;
    if (channelIds.length === 0) return setPlanning({ idea, date: on, ...(where.time ? { time: where.time } : {}) });
    const answer: Answer<{ slips: Slip[] }> = await call('POST', `/api/pieces/${idea.id}/plan`, {
      channelIds,
      date: on,
      time: where.time ?? null,
      format: where.opening?.format ?? null,
      pillarId: where.opening?.pillarId ?? null,
    });
    const problem = problemOf(answer);
    if (problem)
      say({ text: problem, wrong: true, deed: { label: 'Try again', run: () => void plan(idea, on, where) } });
    if (answer.kind === 'done') planned(idea, answer.value.slips);
  }

  function planned(idea: TrayIdea, made: readonly Slip[]) {
    made.forEach(changes.put);
    changes.readAnew();
    const on = made[0]?.date ? `on ${shortDate(made[0].date)}` : 'without a date';
    say({
      text: `Planned “${idea.title}” ${on}: ${made.map((slip) => slip.callSign).join(', ')}.`,
      deed: { label: 'Undo', run: () => void unplan(idea, made) },
    });
  }

  async function unplan(idea: TrayIdea, made: readonly Slip[]) {
    for (const { id, version } of made) {
      const problem = problemOf(await call('POST', `/api/posts/${id}/deeds`, { deed: 'delete', version }));
      if (problem) return say({ text: `Not undone. ${problem}`, wrong: true });
      changes.remove(id);
    }
    const { title, suggestedChannelIds, version } = idea;
    await call('PATCH', `/api/pieces/${idea.id}`, { version, title, channelIds: suggestedChannelIds });
    changes.readAnew();
  }

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
      void plan(load.idea, place.date, {
        ...(place.channelId ? { channelId: place.channelId } : {}),
        ...(place.time ? { time: place.time } : {}),
        ...(opening ? { opening } : {}),
      });
      return;
    }
    dropPosts(load.slips, place);
    focusSoon(load.slips[0]!.id);
  }

  function dropPosts(load: readonly Slip[], place: ReturnType<typeof placeOf>) {
    const first = load[0]!;
    if (place.kind === 'tray')
      return changes.change(
        load.filter((slip) => slip.date !== null),
        { kind: 'place', date: null },
      );
    if (place.kind === 'stage') {
      if (place.stage === 'published' || place.stage === 'setAside') return;
      return changes.change(
        load.filter((slip) => slip.stage !== place.stage),
        { kind: 'stage', stage: place.stage },
      );
    }
    const byDays = first.date === null ? 0 : daysBetween(first.date, place.date);
    if (load.length > 1 && first.date !== null)
      return byDays === 0 ? undefined : changes.change(load, { kind: 'shift', days: byDays });
    const isHere =
      place.date === first.date &&
      (place.channelId === null || place.channelId === first.channelId) &&
      (place.time === null || place.time === first.time);
    if (isHere) return;
    const minutes =
      first.time && place.time?.endsWith(':00') && !place.format && view === 'day' ? first.time.slice(3) : null;
    changes.change(load, {
      kind: 'place',
      date: place.date,
      ...(place.time ? { time: minutes ? `${place.time.slice(0, 2)}:${minutes}` : place.time } : {}),
      ...(place.channelId ? { channelId: place.channelId } : {}),
      ...(place.format ? { format: place.format } : {}),
    });
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
  const title = titleOf(view, date, shown.dates);
  const address = presentAddress(query);

  return (
    <TimetableProvider value={timetable}>
      <MarksProvider value={marksOf}>
        <header className="place-head calendar-head">
          <h1>{title}</h1>
          <span className="soft">
            {view === 'lanes' && `week ${weekNumber(date)} · `}
            {count === 1 ? '1 post' : `${count} posts`}
            {shown.openings.length > 0 &&
              ` · ${openings.length === 1 ? '1 opening left' : `${openings.length} openings left`}`}
          </span>
          {changes.waits && <span className="attention">not saved yet, trying again</span>}
          <nav className="arrangements push" aria-label="Arrangement">
            {VIEWS.map(({ name, label }, index) => (
              <button
                key={name}
                type="button"
                aria-current={name === view ? 'true' : undefined}
                aria-keyshortcuts={String(index + 1)}
                onClick={() => void setQuery({ as: name })}
              >
                <sup className="figures">{index + 1}</sup> {label}
              </button>
            ))}
          </nav>
          <div className="calendar-bar">
            {view !== 'stages' && (
              <div className="period" aria-busy={turning}>
                <button
                  type="button"
                  className="step"
                  onClick={() => turn(-1)}
                  aria-label="Period before"
                  aria-keyshortcuts="["
                >
                  ‹
                </button>
                <button
                  type="button"
                  className="word"
                  onClick={() => void setQuery({ date: null })}
                  aria-keyshortcuts="0"
                >
                  Today
                </button>
                <button
                  type="button"
                  className="step"
                  onClick={() => turn(1)}
                  aria-label="Period after"
                  aria-keyshortcuts="]"
                >
                  ›
                </button>
              </div>
            )}
            {view === 'lanes' && (
              <span className="weeks">
                <button
                  type="button"
                  className="word"
                  aria-pressed={weeks === 1}
                  onClick={() => void setQuery({ weeks: null })}
                >
                  One week
                </button>
                <span className="soft"> · </span>
                <button
                  type="button"
                  className="word"
                  aria-pressed={weeks === 2}
                  onClick={() => void setQuery({ weeks: '2' })}
                >
                  two
                </button>
              </span>
            )}
            <FilterBar
              filter={filter}
              onFilter={(next) => void setQuery(writeFilter(next))}
              look={look}
              onLook={(part, value) =>
                void setQuery({ [part]: value }, { shallow: part !== 'dates' && part !== 'whose' })
              }
              view={view}
              brands={brands}
              brandsShown={brandsShown.map((one) => one.brand.slug)}
              onBrands={(slugs) => void setQuery({ brands: slugs.length === 0 ? null : slugs.join(',') })}
              channels={channels}
              owners={unique(brandsShown.flatMap((one) => one.people))}
              pillars={brandsShown.flatMap((one) => one.pillars)}
              campaigns={brandsShown.flatMap((one) => one.campaigns)}
            />
            <Readings readings={readings} present={address} />
          </div>
        </header>
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
                  onClose={() => open(null)}
                />
              </ShellProvider>
            )}
          </Carrier>
          <DragOverlay dropAnimation={null}>
            {lifted && <InHand load={lifted} ground={ground} timetable={timetable} />}
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

interface Adding {
  date: LocalDate;
  time?: LocalTime;
  channelId?: string;
  opening?: Opening;
}

/** Height of the month's row of weekday names, in pixels: what scrolls stops below it. */
const MONTH_HEAD_PX = 26;
const NO_OPENINGS: readonly Opening[] = [];
const NO_SLIPS: readonly Slip[] = [];
const NO_IDS: ReadonlySet<string> = new Set();

const planFromTray = (setPlanning: (planning: Planning) => void, today: LocalDate) => (idea: TrayIdea) =>
  setPlanning({ idea, date: today });

/** Puts the focus on a post where it stands after a drop. */
function focusSoon(postId: string): void {
  setTimeout(() => {
    const slip = document.querySelector<HTMLElement>(`[data-post="${CSS.escape(postId)}"]`);
    if (document.activeElement === document.body || document.activeElement === null) slip?.focus();
  }, 60);
}
