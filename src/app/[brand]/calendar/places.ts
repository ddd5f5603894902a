import { dayPlace, type DropPlace } from '@/core/calendar/drop';
import type { Opening } from '@/core/rhythm/openings';
import type { Stage } from '@/core/stages/stages';
import type { LocalDate } from '@/core/time/plan';

// The ids of everything something can be dropped on. What each stands for hangs on it as its data.

export const TRAY_ID = 'tray';
export const dayId = (date: LocalDate): string => `day:${date}`;
export const laneId = (channelId: string, date: LocalDate): string => `lane:${channelId}:${date}`;
export const hourId = (hour: number): string => `hour:${hour}`;
export const openingId = (key: string): string => `opening:${key}`;
export const stageId = (stage: Stage): string => `stage:${stage}`;

/** A day of a channel. */
export const lanePlace = (channelId: string, date: LocalDate): DropPlace => ({
  ...(dayPlace(date) as Extract<DropPlace, { kind: 'day' }>),
  channelId,
});

/** An hour of a day, on its first minute. */
export const hourPlace = (date: LocalDate, hour: number): DropPlace => ({
  ...(dayPlace(date) as Extract<DropPlace, { kind: 'day' }>),
  time: `${String(hour).padStart(2, '0')}:00`,
});

/** An opening with all it asks for. */
export const openingPlace = (opening: Opening): DropPlace => ({
  kind: 'day',
  date: opening.date,
  channelId: opening.channelId,
  time: opening.time,
  format: opening.format,
  theme: opening.theme,
});

/**
 * The places of an arrangement in rows and columns, for moving by arrows. A cell is one or more stops, one below the
 * other: a day, then its openings.
 */
export type PlaceGrid = readonly (readonly (readonly string[])[])[];

/** The next stop from one, or the same at the edge; undefined where the id is not in the grid. */
export function nextStop(grid: PlaceGrid, from: string, key: string): string | undefined {
  for (const [row, cells] of grid.entries())
    for (const [column, stops] of cells.entries()) {
      const at = stops.indexOf(from);
      if (at < 0) continue;
      if (key === 'ArrowDown') return stops[at + 1] ?? grid[row + 1]?.[column]?.[0] ?? from;
      if (key === 'ArrowUp') return stops[at - 1] ?? grid[row - 1]?.[column]?.at(-1) ?? from;
      const ways = key === 'ArrowRight' ? 1 : -1;
      const beside = cells[column + ways];
      if (beside) return beside[0];
      // Off the end of a row of days: on to the next week, where rows are weeks.
      const wrapped = grid[row + ways]?.at(ways > 0 ? 0 : -1)?.[0];
      return wrapped && from.startsWith('day:') ? wrapped : from;
    }
  return undefined;
}
