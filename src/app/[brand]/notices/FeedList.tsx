'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import type { Instant } from '@/core/time/plan';
import { call, problemOf } from '@/ui/api';
import { FieldRefusal } from '@/ui/FieldRefusal';
import { dayAndTime } from '@/ui/format';
import { useSay } from '@/ui/messages';
import { useShell } from '@/ui/shell';
import { useCopy } from '@/ui/useCopy';
import { WordButton } from '@/ui/WordButton';

/** A calendar feed as it is listed. */
export interface ListedFeed {
  id: string;
  /** Null: of what is one's own. */
  brand: string | null;
  madeAt: Instant;
  usedAt: Instant | null;
}

/** One's private calendar feeds: made, copied once, listed, and revoked. */
export function FeedList({ feeds }: { feeds: readonly ListedFeed[] }) {
  const { brand } = useShell();
  const router = useRouter();
  const say = useSay();
  const copy = useCopy();
  const [address, setAddress] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const nameOf = (feed: ListedFeed) => (feed.brand === null ? 'your posts and steps' : `the posts of ${feed.brand}`);

  async function make(brandId: string | null) {
    const answer = await call<{ address: string }>('POST', '/api/feeds', { brandId });
    setProblem(problemOf(answer));
    if (answer.kind !== 'done') return;
    setAddress(answer.value.address);
    router.refresh();
  }

  async function revoke(feed: ListedFeed) {
    const answer = await call('DELETE', '/api/feeds', { id: feed.id });
    setProblem(problemOf(answer));
    if (answer.kind !== 'done') return;
    say({ text: `Revoked: the calendar with ${nameOf(feed)} gets nothing any more.` });
    router.refresh();
  }

  return (
    <section aria-label="In your calendar">
      <h2>In your calendar</h2>
      <p className="soft small-text">
        A private address that the calendar of your phone or computer can follow. Whoever has it sees what it gives.
      </p>
      <p className="feed-deeds">
        <Button variant="outline" onClick={() => void make(null)}>
          Make one for your posts and steps
        </Button>{' '}
        <Button variant="outline" onClick={() => void make(brand.id)}>
          Make one for all posts of {brand.name}
        </Button>
      </p>
      {address && (
        <div className="feed-address" role="status">
          <p className="small-text">Its address, which is shown this once:</p>
          <code>{address}</code> <WordButton onClick={() => void copy('Address', address)}>Copy the address</WordButton>
        </div>
      )}
      <FieldRefusal>{problem}</FieldRefusal>
      {feeds.length > 0 && (
        <ul aria-label="Calendar feeds">
          {feeds.map((feed) => (
            <li key={feed.id}>
              <span>{nameOf(feed)}</span>
              <span className="soft small-text">
                made {dayAndTime(feed.madeAt, brand.zone)},{' '}
                {feed.usedAt === null ? 'not used yet' : `last used ${dayAndTime(feed.usedAt, brand.zone)}`}
              </span>
              <WordButton onClick={() => void revoke(feed)} aria-label={`Revoke the feed with ${nameOf(feed)}`}>
                Revoke
              </WordButton>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
