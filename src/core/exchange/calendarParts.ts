import ical, { type ICalEventData } from 'ical-generator';

const END = 'END:VCALENDAR';

/** An iCalendar text that is written part by part, so that a long one holds nothing up: its head, events, and its end. */
export function calendarParts(name: string): {
  head: string;
  part: (events: readonly ICalEventData[]) => string;
  end: string;
} {
  const whole = (events: readonly ICalEventData[]) =>
    ical({ name, prodId: { company: 'Bimlo', product: 'Bimlo' }, events: [...events] }).toString();
  const head = whole([]).slice(0, -END.length);
  return { head, part: (events) => whole(events).slice(head.length, -END.length), end: END };
}
