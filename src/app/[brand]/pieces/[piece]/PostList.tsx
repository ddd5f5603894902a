'use client';

import Link from 'next/link';
import type { Slip } from '@/core/calendar/slip';
import { CallSign } from '@/ui/CallSign';
import { shortDate } from '@/ui/format';
import { Notches } from '@/ui/Notches';
import { useShell } from '@/ui/shell';

/** The posts of a piece, a line each, with what is missing. */
export function PostList({ slips }: { slips: readonly Slip[] }) {
  const { brand, channels } = useShell();
  return (
    <ul className="posts-of-piece">
      {slips.map((slip) => (
        <li key={slip.id} data-post={slip.id}>
          <CallSign
            sign={slip.callSign}
            color={channels.find((channel) => channel.id === slip.channelId)?.color ?? ''}
          />
          <span className="figures">
            {slip.date ? shortDate(slip.date) : 'no date'} {slip.time}
          </span>
          <span>
            <Link
              dir="auto"
              href={`/${brand.slug}/calendar?post=${slip.id}${slip.date ? `&date=${slip.date}` : ''}`}
              prefetch={false}
            >
              {slip.title}
            </Link>{' '}
            {slip.missing && <span className="attention small-text">{slip.missing}</span>}
          </span>
          <Notches stage={slip.stage} failed={slip.delivery?.state === 'failed'} />
        </li>
      ))}
    </ul>
  );
}
