'use client';

import dynamic from 'next/dynamic';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState, useTransition } from 'react';
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
import { useQueryState } from 'nuqs';
import { useHotkeys } from 'react-hotkeys-hook';
import type { MonthDay } from '@/core/calendar/month';
import { addMonths } from '@/core/calendar/months';
import { groupByDay, byTimeOfDay } from '@/core/calendar/order';
import type { Slip } from '@/core/calendar/slip';
import type { PostSheet } from '@/core/posts/sheet';
import type { LocalDate } from '@/core/time/plan';
import type { TrayIdea } from '@/usecases/views';
import { call, problemOf, type Answer } from '@/ui/api';
import { monthName, weekdayName } from '@/ui/format';
import { useSay } from '@/ui/messages';
import { useShell } from '@/ui/shell';
import { SlipFace, slipClass } from '@/ui/SlipFace';
import { announcements, byDays, collision, INSTRUCTIONS, placeOf, refusalFor, type Load } from './dragging';
import { DayCell } from './DayCell';
import { Tray } from './Tray';
import { usePlanMoves } from './usePlanMoves';

const PlanDialog = dynamic(() => import('../PlanDialog').then((module) => module.PlanDialog), { ssr: false });
const NewPostDialog = dynamic(() => import('./NewPostDialog').then((module) => module.NewPostDialog), { ssr: false });
const Sheet = dynamic(() => import('./sheet/Sheet').then((module) => module.Sheet));

/** How often the calendar looks what others, and the worker, changed, in milliseconds. */
const REFRESH_EVERY_MS = 30_000;
/** Height of the row of weekday names, in pixels: what scrolls stops below it. */
const HEAD_HEIGHT = 26;
const NO_SLIPS: readonly Slip[] = [];

/** The calendar: the tray on the left, the month, and the open post's sheet on the right. */
export function CalendarScreen({
  month,
  today,
  weeks,
  slips: fromServer,
  ideas,
  openSheet,
}: {
  month: LocalDate;
  today: LocalDate;
  weeks: MonthDay[][];
  slips: readonly Slip[];
  ideas: readonly TrayIdea[];
  openSheet: PostSheet | null;
}) {
  const { channels } = useShell();
  const router = useRouter();
  const say = useSay();
  const [turning, startTurning] = useTransition();
  const [date, setDate] = useQueryState('date', { shallow: false, startTransition: startTurning, history: 'push' });
  // Counted from the month asked for, which may still be on its way: pressing twice goes two months.
  const turn = (months: number) => void setDate(addMonths(date ?? today, months));
  const [openId, setOpenId] = useQueryState('post', { history: 'push' });
  const moves = usePlanMoves(fromServer);
  const [lifted, setLifted] = useState<Load | null>(null);
  const [over, setOver] = useState<string | undefined>();
  const [planning, setPlanning] = useState<{ idea: TrayIdea; date: LocalDate } | null>(null);
  const [addingOn, setAddingOn] = useState<LocalDate | null>(null);

  useHotkeys('bracketleft', () => turn(-1), [date, today]);
  useHotkeys('bracketright', () => turn(1), [date, today]);
  useHotkeys('0', () => void setDate(null));
  useHotkeys('n', () => setAddingOn(today), { preventDefault: true }, [today]);
  useHotkeys('escape', () => void setOpenId(null), { enabled: openId !== null && !planning && !lifted });

  const grid = useRef<HTMLDivElement>(null);
  useLayoutEffect(() => {
    function showToday() {
      const row = grid.current?.querySelector<HTMLElement>('td.is-today')?.parentElement;
      if (grid.current) grid.current.scrollTop = row ? row.offsetTop - HEAD_HEIGHT : 0;
    }
    showToday();
    // Rows above change their height when the type arrives.
    if (document.fonts.status === 'loading') void document.fonts.ready.then(showToday);
  }, [month]);

  useEffect(() => {
    if (openId)
      grid.current?.querySelector(`[data-post="${CSS.escape(openId)}"]`)?.scrollIntoView({ block: 'nearest' });
  }, [openId]);

  // What was moved and not saved, or is in the hand, must not be drawn over by the server's state.
  const mayRefresh = moves.unsaved.size === 0 && lifted === null;
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

  const colors = useMemo(() => new Map(channels.map((channel) => [channel.id, channel.color])), [channels]);
  const dates = useMemo(() => weeks.flat().map((day) => day.date), [weeks]);
  const byDay = useMemo(() => groupByDay(moves.slips), [moves.slips]);
  const undated = useMemo(() => moves.slips.filter((slip) => slip.date === null).sort(byTimeOfDay), [moves.slips]);
  const count = useMemo(
    () => weeks.flat().reduce((sum, day) => sum + (day.inMonth ? (byDay.get(day.date)?.length ?? 0) : 0), 0),
    [weeks, byDay],
  );

  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, {
      coordinateGetter: byDays(dates, today),
      keyboardCodes: { start: ['Space'], cancel: ['Escape'], end: ['Space', 'Enter'] },
    }),
  );

  const open = useCallback((id: string) => void setOpenId(id), [setOpenId]);
  const refusal = refusalFor(lifted, over, today);

  async function planOn(idea: TrayIdea, on: LocalDate) {
    if (idea.suggestedChannelIds.length === 0) return setPlanning({ idea, date: on });
    const answer: Answer<{ slips: Slip[] }> = await call('POST', `/api/pieces/${idea.id}/plan`, {
      channelIds: idea.suggestedChannelIds,
      date: on,
      time: null,
    });
    const problem = problemOf(answer);
    if (problem) say({ text: problem, wrong: true, deed: { label: 'Try again', run: () => void planOn(idea, on) } });
    if (answer.kind === 'done') moves.planned(idea, answer.value.slips);
  }

  function drop({ active, over: target }: DragEndEvent) {
    const load = active.data.current as Load;
    setLifted(null);
    setOver(undefined);
    if (!target) return;
    const why = refusalFor(load, target.id, today);
    if (why) return say({ text: `Not moved: ${why}.`, wrong: true });
    const place = placeOf(target.id);
    if (load.kind === 'idea') {
      if (place.kind === 'day') void planOn(load.idea, place.date);
      return;
    }
    const to = place.kind === 'day' ? place.date : null;
    if (to !== load.slip.date) void moves.move(load.slip, to);
  }

  return (
    <>
      <header className="place-head">
        <h1>{monthName(month)}</h1>
        <span className="soft">{count === 1 ? '1 post' : `${count} posts`}</span>
        <div className="period push" aria-busy={turning}>
          <button
            type="button"
            className="step"
            onClick={() => turn(-1)}
            aria-label="Month before"
            aria-keyshortcuts="["
          >
            ‹
          </button>
          <button type="button" className="word" onClick={() => void setDate(null)} aria-keyshortcuts="0">
            Today
          </button>
          <button type="button" className="step" onClick={() => turn(1)} aria-label="Month after" aria-keyshortcuts="]">
            ›
          </button>
        </div>
      </header>
      <DndContext
        id="calendar"
        sensors={sensors}
        collisionDetection={collision}
        measuring={{ droppable: { strategy: MeasuringStrategy.BeforeDragging } }}
        accessibility={{ announcements: announcements(today), screenReaderInstructions: { draggable: INSTRUCTIONS } }}
        onDragStart={({ active }) => setLifted(active.data.current as Load)}
        onDragOver={({ over: target }) => setOver(target ? String(target.id) : undefined)}
        onDragEnd={drop}
        onDragCancel={() => {
          setLifted(null);
          setOver(undefined);
        }}
      >
        <div className={`calendar${openId ? ' has-sheet' : ''}`}>
          <Tray
            ideas={ideas}
            undated={undated}
            colors={colors}
            openId={openId}
            unsaved={moves.unsaved}
            onOpen={open}
            onPlan={(idea) => setPlanning({ idea, date: today })}
          />
          <div className="month" ref={grid}>
            <table className="month-grid" aria-label={monthName(month)}>
              <thead>
                <tr>
                  {weeks[0]!.map((day) => (
                    <th key={day.date} scope="col">
                      {weekdayName(day.date)}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {weeks.map((week) => (
                  <tr key={week[0]!.date}>
                    {week.map((day) => (
                      <DayCell
                        key={day.date}
                        day={day}
                        today={today}
                        slips={byDay.get(day.date) ?? NO_SLIPS}
                        colors={colors}
                        openId={openId}
                        unsaved={moves.unsaved}
                        refusing={refusal !== null}
                        onOpen={open}
                        onAdd={setAddingOn}
                      />
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          {openId && (
            <Sheet
              key={openId}
              postId={openId}
              initial={openSheet?.id === openId ? openSheet : null}
              slipVersion={moves.slips.find((slip) => slip.id === openId)?.version ?? null}
              onChanged={moves.put}
              onGone={moves.remove}
              onClose={() => void setOpenId(null)}
            />
          )}
        </div>
        <DragOverlay dropAnimation={null}>
          {lifted && (
            <div className="slip-overlay">
              {lifted.kind === 'post' ? (
                <div className={slipClass(lifted.slip)}>
                  <SlipFace slip={lifted.slip} color={colors.get(lifted.slip.channelId) ?? 'currentcolor'} />
                </div>
              ) : (
                <div className="slip">
                  <span className="slip-title">{lifted.idea.title}</span>
                </div>
              )}
              {refusal && <div className="drop-refusal">{refusal}</div>}
            </div>
          )}
        </DragOverlay>
      </DndContext>
      {planning && (
        <PlanDialog
          piece={planning.idea}
          date={planning.date}
          onPlanned={(made) => moves.planned(planning.idea, made)}
          onClose={() => setPlanning(null)}
        />
      )}
      {addingOn && (
        <NewPostDialog
          date={addingOn}
          onMade={(made) => {
            made.forEach(moves.put);
            void setOpenId(made[0]!.id);
          }}
          onClose={() => setAddingOn(null)}
        />
      )}
    </>
  );
}
