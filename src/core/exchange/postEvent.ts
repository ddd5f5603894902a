import { ICalAlarmType, ICalEventStatus, type ICalEventData } from 'ical-generator';
import { addDays } from '../time/days';
import { dueInstant, type Instant, type LocalDate, type LocalTime, type Zone } from '../time/plan';

/** A dated post as a calendar holds it. */
export interface DatedPost {
  id: string;
  title: string;
  caption: string;
  callSign: string;
  date: LocalDate;
  time: LocalTime | null;
  zone: Zone;
  /** Grows with each change. */
  version: number;
  /** It is still to be posted by a person, who is told so many minutes before; null where not. */
  leadMinutes: number | null;
  isOff: boolean;
}

/**
 * A post as an event (RFC 5545): its id as UID, its version as SEQUENCE, at its instant, or whole days without a time; one that
 * is posted by hand with an alarm at the lead of its channel, one that is off as cancelled.
 *
 * @param stamp when it was written down
 */
export function postEvent(post: DatedPost, stamp: Instant): ICalEventData {
  const shared: ICalEventData = {
    id: `${post.id}@bimlo`,
    stamp: new Date(stamp),
    sequence: post.version,
    summary: `${post.callSign} · ${post.title}`,
    description: post.caption,
    start: new Date(`${post.date}T00:00:00Z`),
    ...(post.isOff && { status: ICalEventStatus.CANCELLED }),
  };
  const due = post.time ? dueInstant(post.date, post.time, post.zone) : null;
  if (!due?.ok) return { ...shared, ...wholeDay(post.date) };
  const alarms = [
    {
      type: ICalAlarmType.display,
      trigger: (post.leadMinutes ?? 0) * 60,
      description: `Post by hand: ${post.title}`,
    },
  ];
  return {
    ...shared,
    start: new Date(due.value),
    end: new Date(due.value),
    ...(post.leadMinutes !== null && !post.isOff && { alarms }),
  };
}

/** A step as an event of its whole day. */
export const stepEvent = (
  { id, title, holder, day, version }: { id: string; title: string; holder: string; day: LocalDate; version: number },
  stamp: Instant,
): ICalEventData => ({
  id: `${id}@bimlo`,
  stamp: new Date(stamp),
  sequence: version,
  summary: `${title}: ${holder}`,
  ...wholeDay(day),
});

const wholeDay = (day: LocalDate) => ({
  start: new Date(`${day}T00:00:00Z`),
  end: new Date(`${addDays(day, 1)}T00:00:00Z`),
  allDay: true,
  timezone: 'UTC',
});
