'use client';

import { useRouter } from 'next/navigation';
import { familyOf, type FamilyMember } from '@/core/encores/family';
import type { LocalDate } from '@/core/time/plan';
import { counted } from '@/core/words';
import { dayMonth, shortDate } from '@/ui/format';
import { useShell } from '@/ui/shell';

/** Pixels of the drawing. The page scales it to the room there is. */
const [WIDTH, LINE, LEFT, RIGHT, HEAD] = [430, 26, 34, 14, 10] as const;
/** Side of a mark. */
const MARK = 9;

/** The posts of a piece on one scale of time, a line for each channel; what was done again is tied to what it is again. */
export function FamilyDrawing({ members, today }: { members: readonly FamilyMember[]; today: LocalDate }) {
  const { brand, channels } = useShell();
  const router = useRouter();
  const family = familyOf(
    members,
    channels.map(({ id }) => id),
    today,
  );
  // One post is told by the list already.
  if (!family || members.length < 2) return null;
  const { from, to, lines, again } = family;
  const xOf = (at: number) => LEFT + at * (WIDTH - LEFT - RIGHT);
  const yOf = (channelId: string) => HEAD + (lines.findIndex((line) => line.channelId === channelId) + 0.5) * LINE;
  const foot = HEAD + lines.length * LINE;
  const published = members.filter(({ isPublished }) => isPublished).length;
  return (
    <figure className="family">
      <svg
        viewBox={`0 0 ${WIDTH} ${foot + 24}`}
        role="img"
        aria-label={`${counted(members.length, 'post')} from ${shortDate(from)} to ${shortDate(to)}, ${published} published, ${again.length} done again`}
      >
        {family.today !== null && (
          <line className="family-today" x1={xOf(family.today)} x2={xOf(family.today)} y1={0} y2={foot} />
        )}
        {lines.map(({ channelId, members: own }) => {
          const channel = channels.find(({ id }) => id === channelId)!;
          const y = yOf(channelId);
          return (
            <g key={channelId}>
              <line className="family-line" x1={LEFT} x2={WIDTH - RIGHT} y1={y} y2={y} />
              <text className="family-sign" x={0} y={y + 4}>
                {channel.callSign}
              </text>
              <rect x={0} y={y + 7} width={18} height={3} fill={channel.color} />
              {again
                .filter((tie) => tie.channelId === channelId)
                .map(({ from: start, to: end }) => (
                  <path
                    key={`${start} ${end}`}
                    className="family-again"
                    d={`M ${xOf(start)} ${y - 5} Q ${(xOf(start) + xOf(end)) / 2} ${y - 20} ${xOf(end)} ${y - 5}`}
                  />
                ))}
              {own.map(({ id, title, at, date, isPublished }) => (
                <rect
                  key={id}
                  className={isPublished ? 'family-out' : 'family-planned'}
                  x={xOf(at) - MARK / 2}
                  y={y - MARK / 2}
                  width={MARK}
                  height={MARK}
                  onClick={() => router.push(`/${brand.slug}/calendar?post=${id}&date=${date}`)}
                >
                  <title>{`${shortDate(date)}: ${title}`}</title>
                </rect>
              ))}
            </g>
          );
        })}
        <text className="family-day" x={LEFT} y={foot + 16}>
          {dayMonth(from)}
        </text>
        {from !== to && (
          <text className="family-day" x={WIDTH - RIGHT} y={foot + 16} textAnchor="end">
            {dayMonth(to)}
          </text>
        )}
        {family.today !== null && family.today > 0.15 && family.today < 0.85 && (
          <text className="family-day" x={xOf(family.today)} y={foot + 16} textAnchor="middle">
            today
          </text>
        )}
      </svg>
    </figure>
  );
}
