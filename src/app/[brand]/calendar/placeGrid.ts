import type { Opening } from '@/core/rhythm/openings';
import { STAGES } from '@/core/stages/stages';
import type { LocalDate } from '@/core/time/plan';
import type { CalendarView } from '@/usecases/calendar/loadCalendar';
import { dayId, hourId, laneId, openingId, stageId, type PlaceGrid } from './places';
import type { ViewName } from './view';

/** The places of the arrangement shown, for moving by arrows. */
export function gridOf(
  view: ViewName,
  shown: CalendarView,
  lanes: readonly { id: string }[],
  openings: readonly Opening[],
): PlaceGrid {
  const openingsAt = (date: LocalDate, channelId: string | null) =>
    openings
      .filter((opening) => opening.date === date && (channelId === null || opening.channelId === channelId))
      .map(({ key }) => openingId(key));
  switch (view) {
    case 'lanes':
      return lanes.map(({ id }) => shown.dates.map((date) => [laneId(id, date), ...openingsAt(date, id)]));
    case 'month':
      return shown.weeks.map((week) => week.map(({ date }) => [dayId(date)]));
    case 'day':
      return [[[dayId(shown.dates[0]!)]], ...Array.from({ length: 24 }, (_, hour) => [[hourId(hour)]])];
    case 'stages':
      return [STAGES.map((stage) => [stageId(stage)])];
    case 'list':
      return [];
  }
}

/** Where the first arrow leads from the tray: today, or the first place there is. */
export function startOf(
  view: ViewName,
  today: LocalDate,
  dates: readonly LocalDate[],
  lanes: readonly { id: string }[],
): string | undefined {
  const day = dates.includes(today) ? today : dates[0];
  if (view === 'lanes') return lanes[0] && day && laneId(lanes[0].id, day);
  if (view === 'stages') return stageId('drafting');
  return day && dayId(day);
}
