import {
  closestCenter,
  pointerWithin,
  type Announcements,
  type CollisionDetection,
  type KeyboardCoordinateGetter,
  type UniqueIdentifier,
} from '@dnd-kit/core';
import type { DropPlace, Dragged } from '@/core/calendar/drop';
import { whyNoDrop } from '@/core/calendar/drop';
import type { Slip } from '@/core/calendar/slip';
import type { LocalDate } from '@/core/time/plan';
import type { TrayIdea } from '@/usecases/views';
import { spokenDate } from '@/ui/format';

/** What hangs on a draggable, so that a drop knows what it was. */
export type Load = { kind: 'post'; slip: Slip } | { kind: 'idea'; idea: TrayIdea };

export const dayId = (date: LocalDate): string => `day:${date}`;
export const TRAY_ID = 'tray';

/** The place a droppable stands for. */
export function placeOf(id: UniqueIdentifier): DropPlace {
  const text = String(id);
  return text === TRAY_ID ? { kind: 'tray' } : { kind: 'day', date: text.slice(4) };
}

/** What core needs to know of what is dragged. */
export const draggedOf = (load: Load): Dragged =>
  load.kind === 'idea'
    ? { kind: 'idea' }
    : { kind: 'post', stage: load.slip.stage, leaving: load.slip.delivery?.leaving ?? false, date: load.slip.date };

/** Why a load may not be dropped at a place, or null. */
export const refusalFor = (load: Load | null, id: UniqueIdentifier | undefined, today: LocalDate): string | null =>
  load && id !== undefined ? whyNoDrop(draggedOf(load), placeOf(id), today) : null;

/** By the pointer where there is one, by the nearest centre when moved by keyboard. */
export const collision: CollisionDetection = (input) =>
  input.pointerCoordinates ? pointerWithin(input) : closestCenter(input);

const STEPS: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -7, ArrowDown: 7 };

/**
 * Moves what was lifted by days: left and right by one, up and down by a week; Home goes to the tray. From the tray the
 * first arrow goes to today, or to the first day shown.
 *
 * @param dates the days shown, in order
 */
export function byDays(dates: readonly LocalDate[], today: LocalDate): KeyboardCoordinateGetter {
  return (event, { context: { over, active, droppableRects, collisionRect } }) => {
    const step = STEPS[event.code];
    if (step === undefined && event.code !== 'Home') return undefined;
    event.preventDefault();
    const load = active?.data.current as Load | undefined;
    const here = over ? placeOf(over.id) : { kind: 'tray' as const };
    const startDate = load?.kind === 'post' && !over ? load.slip.date : null;
    const from = here.kind === 'day' ? here.date : startDate;
    const index = from === null ? -1 : dates.indexOf(from);
    const first = Math.max(0, dates.indexOf(today));
    const target = index < 0 ? first : Math.min(dates.length - 1, Math.max(0, index + (step ?? 0)));
    const id = event.code === 'Home' ? TRAY_ID : dayId(dates[target]!);
    const rect = droppableRects.get(id);
    if (!rect || !collisionRect) return undefined;
    return {
      x: rect.left + rect.width / 2 - collisionRect.width / 2,
      y: rect.top + rect.height / 2 - collisionRect.height / 2,
    };
  };
}

/** What screen readers are told before anything is lifted. */
export const INSTRUCTIONS =
  'Press Space to lift. Then arrows move by day and by week, Home goes to the tray, Space drops, Escape puts back. Enter opens.';

const titleOf = (load: Load): string => (load.kind === 'idea' ? load.idea.title : load.slip.title);
const placeName = (id: UniqueIdentifier): string => {
  const place = placeOf(id);
  return place.kind === 'tray' ? 'the tray' : spokenDate(place.date);
};

/** What screen readers are told while something is moved. */
export function announcements(today: LocalDate): Announcements {
  const load = (data: { current?: unknown }) => data.current as Load;
  return {
    onDragStart: ({ active }) => `Lifted “${titleOf(load(active.data))}”.`,
    onDragOver: ({ active, over }) => {
      if (!over) return 'Over nothing that takes it.';
      const refusal = refusalFor(load(active.data), over.id, today);
      return refusal ? `${placeName(over.id)}: not here, ${refusal}.` : `${placeName(over.id)}.`;
    },
    onDragEnd: ({ active, over }) => {
      if (!over) return `“${titleOf(load(active.data))}” is back where it was.`;
      const refusal = refusalFor(load(active.data), over.id, today);
      return refusal
        ? `Not dropped: ${refusal}. It is back where it was.`
        : `Dropped “${titleOf(load(active.data))}” on ${placeName(over.id)}.`;
    },
    onDragCancel: ({ active }) => `“${titleOf(load(active.data))}” is back where it was.`,
  };
}
