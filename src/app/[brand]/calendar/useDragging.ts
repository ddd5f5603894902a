'use client';

import { LIFT_HELP_ID } from './Carrier';
import { useCallback, useMemo, useState, type ComponentProps } from 'react';
import {
  MeasuringStrategy,
  MouseSensor,
  TouchSensor,
  useSensor,
  useSensors,
  type DndContext,
  type DragEndEvent,
} from '@dnd-kit/core';
import type { Change } from '@/core/calendar/change';
import { changeOfDrop } from '@/core/calendar/changeOfDrop';
import type { DropGround } from '@/core/calendar/drop';
import type { Slip } from '@/core/calendar/slip';
import type { Opening } from '@/core/rhythm/openings';
import type { LocalDate } from '@/core/time/plan';
import { KeyByKeySensor, type Aim } from '@/ui/KeyByKeySensor';
import { useSay } from '@/ui/messages';
import type { Shell } from '@/ui/shell';
import type { CalendarView, TrayIdea } from '@/usecases/calendar/loadCalendar';
import { announcements, byPlaces, collisionBy, INSTRUCTIONS, loadOf, placeOf, refusalFor, type Load } from './dragging';
import { gridOf, startOf } from './placeGrid';
import { openingId } from './places';
import type { Planned } from './usePlanning';
import type { ViewName } from './view';

/** How long a finger stays on something until it is lifted, in milliseconds. */
const LONG_PRESS_MS = 350;

/** What dragging depends on, and what comes of a drop. */
interface Dragging {
  /** Nothing is moved. */
  isOff: boolean;
  view: ViewName;
  today: LocalDate;
  shown: CalendarView;
  slips: readonly Slip[];
  lanes: Shell['channels'];
  openings: readonly Opening[];
  ground: DropGround;
  /** Posts that are dragged together. */
  picked: ReadonlySet<string>;
  channelName: (id: string) => string;
  onPlan: (idea: TrayIdea, place: Planned) => void;
  onChange: (slips: readonly Slip[], change: Change) => void;
}

/** Dragging posts and ideas on the calendar, by mouse and by keyboard: what is lifted, and what the drag library is told. */
export function useDragging({
  isOff,
  view,
  today,
  shown,
  slips,
  lanes,
  openings,
  ground,
  picked,
  channelName,
  onPlan,
  onChange,
}: Dragging): {
  lifted: Load | null;
  loadFor: (element: HTMLElement) => Load | null;
  context: ComponentProps<typeof DndContext>;
} {
  const say = useSay();
  const [lifted, setLifted] = useState<Load | null>(null);
  const [aim] = useState<Aim>({ id: null });
  const grid = useMemo(() => gridOf(view, shown, lanes, openings), [view, shown, lanes, openings]);
  const start = startOf(view, today, shown.dates, lanes);
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 5 } }),
    // A swipe scrolls; a finger that stays lifts.
    useSensor(TouchSensor, { activationConstraint: { delay: LONG_PRESS_MS, tolerance: 8 } }),
    useSensor(KeyByKeySensor, {
      coordinateGetter: byPlaces(grid, start, aim),
      aim,
      keyboardCodes: { start: ['Space'], cancel: ['Escape'], end: ['Space', 'Enter'] },
    }),
  );

  const loadFor = useCallback(
    (element: HTMLElement): Load | null => {
      if (isOff) return null;
      const idea = shown.ideas.find(({ id }) => id === element.dataset.idea);
      if (idea) return { kind: 'idea', idea };
      const slip = slips.find(({ id }) => id === element.dataset.post);
      if (!slip) return null;
      const others = picked.has(slip.id) ? slips.filter(({ id }) => id !== slip.id && picked.has(id)) : [];
      return { kind: 'posts', slips: [slip, ...others] };
    },
    [isOff, shown.ideas, slips, picked],
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
      onPlan(load.idea, {
        date: place.date,
        ...(place.channelId ? { channelId: place.channelId } : {}),
        ...(place.time ? { time: place.time } : {}),
        ...(opening ? { opening } : {}),
      });
      return;
    }
    const dropped = changeOfDrop(load.slips, place, view === 'day');
    if (dropped) onChange(dropped.slips, dropped.change);
    focusSoon(load.slips[0].id);
  }

  return {
    lifted,
    loadFor,
    context: {
      id: LIFT_HELP_ID,
      sensors,
      collisionDetection: collisionBy(aim),
      measuring: { droppable: { strategy: MeasuringStrategy.BeforeDragging } },
      accessibility: {
        announcements: announcements(ground, channelName),
        screenReaderInstructions: { draggable: INSTRUCTIONS },
      },
      onDragStart: ({ active }) => {
        aim.id = null;
        setLifted(loadOf(active));
      },
      onDragEnd: drop,
      onDragCancel: () => setLifted(null),
    },
  };
}

/** Puts the focus on a post where it stands after a drop. */
function focusSoon(postId: string): void {
  setTimeout(() => {
    const slip = document.querySelector<HTMLElement>(`[data-post="${CSS.escape(postId)}"]`);
    if (document.activeElement === document.body || document.activeElement === null) slip?.focus();
  }, 60);
}
