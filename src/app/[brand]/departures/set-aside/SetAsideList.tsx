'use client';

import Link from 'next/link';
import type { SetAside } from '@/usecases/delivery/setAside';
import { CallSign } from '@/ui/CallSign';
import { monthName, shortDate } from '@/ui/format';
import { useShell } from '@/ui/shell';

/** What was set aside or taken down, by month, with why; a reason shows what was set aside for it alone. */
export function SetAsideList({ setAside, reason }: { setAside: SetAside; reason: string | null }) {
  const { brand, channels } = useShell();
  const here = `/${brand.slug}/departures/set-aside`;
  const { reasons, months, isCut } = setAside;
  return (
    <>
      <header className="place-head">
        <h1>Set aside</h1>
        <span className="soft">what was not published, or taken down again, and why</span>
        <Link className="push" href={`/${brand.slug}/departures`} prefetch={false}>
          Departures
        </Link>
      </header>
      <div className="place-body by-days">
        {reasons.length > 1 && (
          <nav aria-label="Reasons" className="reasons">
            <Link href={here} aria-current={reason === null ? 'page' : undefined} prefetch={false}>
              all reasons
            </Link>
            {reasons.map((one) => (
              <Link
                key={one.reason}
                dir="auto"
                href={`${here}?${new URLSearchParams({ reason: one.reason })}`}
                aria-current={reason === one.reason ? 'page' : undefined}
                prefetch={false}
              >
                {one.reason || 'no reason'} <span className="figures soft">{one.count}</span>
              </Link>
            ))}
          </nav>
        )}
        {months.length === 0 && <p className="soft">Nothing was set aside{reason === null ? '' : ' for that'}.</p>}
        {months.map(({ month, posts }) => (
          <section key={month} aria-label={month === null ? 'Without a day' : monthName(month)}>
            <h2>{month === null ? 'Without a day' : monthName(month)}</h2>
            <ul>
              {posts.map((post) => {
                const channel = channels.find(({ id }) => id === post.channelId);
                return (
                  <li key={post.id} data-set-aside={post.id}>
                    <span className="figures soft">{post.date ? shortDate(post.date) : ''}</span>
                    <span>
                      {channel && <CallSign sign={channel.callSign} color={channel.color} name={channel.name} />}{' '}
                      <Link dir="auto" href={`/${brand.slug}/calendar?post=${post.id}`} prefetch={false}>
                        {post.title}
                      </Link>
                    </span>
                    <span className="soft" dir="auto">
                      {post.isTakenDown && 'taken down: '}
                      {post.reason || 'no reason'}
                    </span>
                  </li>
                );
              })}
            </ul>
          </section>
        ))}
        {isCut && <p className="soft">The last 500 are shown.</p>}
      </div>
    </>
  );
}
