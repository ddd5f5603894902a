'use client';

import { weekdaysOf, type RhythmEntry } from '@/core/rhythm/entry';
import { addDays, daysBetween, minutesOf, weekdayOf } from '@/core/time/days';
import { shortDate, weekdayName } from '@/ui/format';

const WIDTH = 1000;
const HEIGHT = 168;
const LEFT = 44;
const TOP = 18;
/** The hours drawn. */
const FIRST_MINUTE = 5 * 60;
const LAST_MINUTE = 24 * 60;

const IS_TIME = /^\d\d:\d\d$/;

/**
 * What was really published in the last weeks, by weekday and hour (one dot a post, older ones paler), with the rhythm's
 * weekly entries drawn over it as dashes: where dots lie without a dash, a habit is not in the rhythm; where a dash has no
 * dots, the rhythm asks for what was never done.
 */
export function PracticeGrid({
  entries,
  practice,
  since,
  weeks,
}: {
  entries: readonly RhythmEntry[];
  practice: readonly { date: string; time: string | null; title: string }[];
  /** First day of the first week. */
  since: string;
  weeks: number;
}) {
  const days = Array.from({ length: 7 }, (_, index) => addDays(since, index));
  const columnWidth = (WIDTH - LEFT) / 7;
  const columnOf = (weekday: number) => days.findIndex((date) => weekdayOf(date) === weekday);
  const y = (minutes: number) =>
    TOP + ((Math.max(FIRST_MINUTE, minutes) - FIRST_MINUTE) / (LAST_MINUTE - FIRST_MINUTE)) * (HEIGHT - TOP);
  const timed = practice.filter((post) => post.time !== null && post.date >= since);
  return (
    <figure className="practice">
      <figcaption>
        Published in the last {weeks} weeks <span className="soft">({timed.length} posts, a dot each)</span> against the
        rhythm <span className="soft">(dashes)</span>
      </figcaption>
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-label={summary(entries, timed.length, weeks)}>
        {[6, 9, 12, 15, 18, 21].map((hour) => (
          <g key={hour}>
            <line className="rule" x1={LEFT} x2={WIDTH} y1={y(hour * 60)} y2={y(hour * 60)} />
            <text className="hour" x={LEFT - 6} y={y(hour * 60) + 4} textAnchor="end">
              {String(hour).padStart(2, '0')}:00
            </text>
          </g>
        ))}
        {days.map((date, column) => (
          <g key={date}>
            <line
              className="rule"
              x1={LEFT + column * columnWidth}
              x2={LEFT + column * columnWidth}
              y1={TOP - 4}
              y2={HEIGHT}
            />
            <text x={LEFT + column * columnWidth + 6} y={11}>
              {weekdayName(date)}
            </text>
          </g>
        ))}
        {timed.map((post, index) => {
          const week = Math.floor(daysBetween(since, post.date) / 7);
          const x = LEFT + (columnOf(weekdayOf(post.date)) + (week + 0.5) / (weeks + 1)) * columnWidth;
          return (
            <circle
              key={index}
              className="done"
              cx={x}
              cy={y(minutesOf(post.time!))}
              r={4}
              opacity={0.35 + (0.65 * week) / weeks}
            >
              <title>{`${shortDate(post.date)} ${post.time}: ${post.title}`}</title>
            </circle>
          );
        })}
        {entries.flatMap((entry) => {
          if (!IS_TIME.test(entry.time)) return [];
          const at = y(minutesOf(entry.time));
          const end = entry.until && IS_TIME.test(entry.until) ? y(minutesOf(entry.until)) : at;
          return weekdaysOf(entry.recurrence).map((weekday) => {
            const x = LEFT + columnOf(weekday) * columnWidth;
            return (
              <g key={`${entry.id} ${weekday}`}>
                {end > at && (
                  <rect className="asked-window" x={x + 3} width={columnWidth - 6} y={at} height={end - at} />
                )}
                <line className="asked" x1={x + 3} x2={x + columnWidth - 3} y1={at} y2={at} />
              </g>
            );
          });
        })}
      </svg>
    </figure>
  );
}

const summary = (entries: readonly RhythmEntry[], posts: number, weeks: number): string =>
  `${posts} posts in the last ${weeks} weeks by weekday and hour, against ${entries.length} entries of the rhythm`;
