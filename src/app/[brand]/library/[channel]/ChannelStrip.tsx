'use client';

import Link from 'next/link';
import { useEffect, useRef } from 'react';
import type { LocalDate } from '@/core/time/plan';
import type { StripFrame } from '@/usecases/media/loadChannelStrip';
import { CroppedPicture } from '@/ui/CroppedPicture';
import { dayMonth } from '@/ui/format';
import { useShell } from '@/ui/shell';
import { LibraryNav } from '../LibraryNav';

/** One strip of a channel's pictures by date, in their true shapes: whether the look holds together. */
export function ChannelStrip({
  channel,
  frames,
  today,
}: {
  channel: { name: string; callSign: string; color: string };
  frames: readonly StripFrame[];
  today: LocalDate;
}) {
  const { brand } = useShell();
  const now = useRef<HTMLLIElement>(null);
  const firstComing = frames.findIndex(({ isOut, date }) => !isOut && date >= today);
  useEffect(() => now.current?.scrollIntoView({ block: 'center' }), []);
  return (
    <>
      <header className="place-head">
        <h1>{channel.name}</h1>
        <span className="soft">as it will look, by date</span>
      </header>
      <LibraryNav />
      {frames.length === 0 && <p className="place-body soft">Nothing of this channel has a date near today.</p>}
      <ol className="strip">
        {frames.map((frame, index) => (
          <li
            key={frame.postId}
            ref={index === firstComing ? now : undefined}
            className={`${frame.isOut ? 'is-out' : ''}${index === firstComing ? ' is-next' : ''}`}
            data-post={frame.postId}
          >
            {frame.picture ? (
              <CroppedPicture
                sha256={frame.picture.sha256}
                alt={frame.picture.alt || frame.title}
                crop={frame.picture.crop}
                size={frame.picture}
              />
            ) : (
              <div className="strip-missing">no picture</div>
            )}
            <span className="figures">{dayMonth(frame.date)}</span>
            <Link dir="auto" href={`/${brand.slug}/calendar?post=${frame.postId}&date=${frame.date}`} prefetch={false}>
              {frame.title}
            </Link>
            <span className="soft">{frame.isOut ? 'published' : frame.format}</span>
          </li>
        ))}
      </ol>
    </>
  );
}
