import {
  closestCenter,
  pointerWithin,
  type Active,
  type Announcements,
  type CollisionDetection,
  type KeyboardCoordinateGetter,
  type Over,
} from '@dnd-kit/core';
import { whyNoDrop, type Dragged, type DropGround, type DropPlace } from '@/core/calendar/drop';
import type { Slip } from '@/core/calendar/slip';
import { STAGE_LABELS } from '@/core/stages/stages';
import type { TrayIdea } from '@/usecases/calendar/loadCalendar';
import { spokenDate } from '@/ui/format';
import type { Aim } from '@/ui/KeyByKeySensor';
import { nextStop, TRAY_ID, type PlaceGrid } from './places';

/** What is in the hand: an idea, or one or more posts, the first of which was taken hold of. */
export type Load = { kind: 'posts'; slips: readonly [Slip, ...Slip[]] } | { kind: 'idea'; idea: TrayIdea };

/** What hangs on the one draggable: filled with a load just before it is lifted. */
export interface Carried {
  load: Load | null;
  /** What was taken hold of, on the page. */
  element: HTMLElement | null;
}

/** The load of a drag. */
export const loadOf = (active: Pick<Active, 'data'>): Load => (active.data.current as Carried).load!;

/** The place a droppable stands for. */
export const placeOf = (over: Pick<Over, 'data'>): DropPlace => over.data.current as DropPlace;

/** What core needs to know of each thing in the hand. */
const draggedOf = (load: Load): Dragged[] =>
  load.kind === 'idea'
    ? [{ kind: 'idea', brandId: load.idea.brandId }]
    : load.slips.map((slip) => ({
        kind: 'post',
        brandId: slip.brandId,
        stage: slip.stage,
        leaving: slip.delivery?.leaving ?? false,
        date: slip.date,
        channelId: slip.channelId,
      }));

/** Why a load may not be dropped at a place, or null. Of several posts, one that may is enough: the others are told of after. */
export function refusalFor(load: Load | null, place: DropPlace | null, ground: DropGround): string | null {
  if (!load || !place) return null;
  const reasons = draggedOf(load).map((dragged) => whyNoDrop(dragged, place, ground));
  return reasons.includes(null) ? null : (reasons[0] ?? null);
}

/** By the pointer where there is one (the smallest place under it); by keyboard what the last key leads to, else the nearest centre. */
export const collisionBy =
  (aim: Aim): CollisionDetection =>
  (input) => {
    if (!input.pointerCoordinates) {
      const aimed = input.droppableContainers.find(({ id }) => id === aim.id);
      return aimed ? [{ id: aimed.id }] : closestCenter(input);
    }
    const area = (id: string | number) => {
      const rect = input.droppableRects.get(id);
      return rect ? rect.width * rect.height : Infinity;
    };
    return pointerWithin(input).sort((a, b) => area(a.id) - area(b.id));
  };

const ARROWS = ['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown'];

/**
 * Moves what was lifted from place to place: by day and week, by day and lane, by hour or by stage, as the arrangement is
 * laid out; Home goes to the tray. From where there is no place of the grid, the first arrow goes to `start`. `aim` is
 * told where each key leads.
 */
export function byPlaces(grid: PlaceGrid, start: string | undefined, aim: Aim): KeyboardCoordinateGetter {
  return (event, { context: { over, active, droppableRects, collisionRect } }) => {
    if (!ARROWS.includes(event.code) && event.code !== 'Home') return undefined;
    event.preventDefault();
    const id =
      event.code === 'Home'
        ? TRAY_ID
        : ((over ? nextStop(grid, String(over.id), event.code) : undefined) ??
          firstStop(active, grid, event.code, start));
    const rect = id === undefined ? undefined : droppableRects.get(id);
    if (id === undefined || !rect || !collisionRect) return undefined;
    aim.id = id;
    return {
      x: rect.left + rect.width / 2 - collisionRect.width / 2,
      y: rect.top + rect.height / 2 - collisionRect.height / 2,
    };
  };
}

/** Where the first arrow leads: from a post's own place in the grid to its neighbour, else to `start`. */
function firstStop(active: Active | null, grid: PlaceGrid, key: string, start: string | undefined): string | undefined {
  const load = active ? loadOf(active) : null;
  const slip = load?.kind === 'posts' ? load.slips[0] : undefined;
  if (!slip) return start;
  const own = [`lane:${slip.channelId}:${slip.date}`, `day:${slip.date}`, `stage:${slip.stage}`, hourOf(slip)];
  for (const id of own) {
    const next = id && nextStop(grid, id, key);
    if (next) return next;
  }
  return start;
}

const hourOf = (slip: Slip): string => (slip.time ? `hour:${Number(slip.time.slice(0, 2))}` : '');

/** What screen readers are told before anything is lifted. */
export const INSTRUCTIONS =
  'Press Space to lift. Then arrows move by day, lane, hour or stage, Home goes to the tray, Space drops, Escape puts back. Enter opens.';

/** What is in the hand, by name. */
function nameOf(load: Load): string {
  if (load.kind === 'idea') return `“${load.idea.title}”`;
  return load.slips.length === 1 ? `“${load.slips[0].title}”` : `${load.slips.length} posts`;
}

/**
 * A place by name: “Thursday 26 November, Glassrow, 18:00”.
 *
 * @internal
 */
export function placeName(place: DropPlace, channelName: (id: string) => string): string {
  if (place.kind === 'tray') return 'the tray';
  if (place.kind === 'stage') return STAGE_LABELS[place.stage];
  return [spokenDate(place.date), place.channelId && channelName(place.channelId), place.time]
    .filter(Boolean)
    .join(', ');
}

/** What screen readers are told while something is moved. */
export function announcements(ground: DropGround, channelName: (id: string) => string): Announcements {
  const back = (active: Active) => `${nameOf(loadOf(active))} is back where it was.`;
  return {
    onDragStart: ({ active }) => `Lifted ${nameOf(loadOf(active))}.`,
    onDragOver: ({ active, over }) => {
      if (!over) return 'Over nothing that takes it.';
      const refusal = refusalFor(loadOf(active), placeOf(over), ground);
      const name = placeName(placeOf(over), channelName);
      return refusal ? `${name}: not here, ${refusal}.` : `${name}.`;
    },
    onDragEnd: ({ active, over }) => {
      if (!over) return back(active);
      const refusal = refusalFor(loadOf(active), placeOf(over), ground);
      return refusal
        ? `Not dropped: ${refusal}. It is back where it was.`
        : `Dropped ${nameOf(loadOf(active))} on ${placeName(placeOf(over), channelName)}.`;
    },
    onDragCancel: ({ active }) => back(active),
  };
}
