'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { isFresh, noticeWords, placeOfNotice, type Notice } from '@/core/notices/notice';
import type { Ways } from '@/core/notices/ways';
import { groupBy } from '@/core/group';
import { localOf } from '@/core/time/plan';
import { clockTime, spokenDate } from '@/ui/format';
import { useShell } from '@/ui/shell';
import { useDeed } from '@/ui/useDeed';
import { WordButton } from '@/ui/WordButton';
import { BrowserNotices } from './BrowserNotices';
import { FeedList, type ListedFeed } from './FeedList';
import { WaysForm } from './WaysForm';

/** What somebody has been told of, by the days, what they have still to look at marked. */
export function NoticeList({
  notices,
  ways,
  mailTrouble,
  feeds,
  zone,
  hasMailbox,
}: {
  notices: readonly Notice[];
  ways: Ways;
  /** Why the last mail to them was not taken; null where all is well. */
  mailTrouble: string | null;
  feeds: readonly ListedFeed[];
  /** Theirs. */
  zone: string;
  /** Mails go into the mailbox that ships with Bimlo. */
  hasMailbox: boolean;
}) {
  const { brand, brands } = useShell();
  const router = useRouter();
  const { run, busy } = useDeed();
  const hasFresh = notices.some(isFresh);

  async function read(ids: string[] | null) {
    const answer = await run('POST', '/api/notices', { ids });
    if (answer.kind === 'done') router.refresh();
  }

  return (
    <>
      <header className="place-head">
        <h1>Notices</h1>
        {hasFresh && (
          <WordButton className="push" disabled={busy} onClick={() => void read(null)}>
            Mark all as read
          </WordButton>
        )}
      </header>
      <div className="place-body by-days">
        {notices.length === 0 && (
          <p className="soft">
            Nothing yet. What is to be posted by hand comes here when it is due, and what did not go out as it should.
          </p>
        )}
        {[...groupBy(notices, ({ madeAt }) => localOf(madeAt, brand.zone).date)].map(([day, own]) => (
          <section key={day} aria-label={spokenDate(day)}>
            <h2>{spokenDate(day)}</h2>
            <ul>
              {own.map((notice) => (
                <li key={notice.id} data-notice={notice.kind} className={isFresh(notice) ? 'is-fresh' : undefined}>
                  <span className="figures soft">{clockTime(notice.madeAt, brand.zone)}</span>
                  <span>
                    <Link
                      href={placeOfNotice(notice)}
                      prefetch={false}
                      dir="auto"
                      onClick={() => isFresh(notice) && void read([notice.id])}
                    >
                      {noticeWords(notice)}
                    </Link>{' '}
                    <span className="soft small-text">
                      {[
                        ...(brands.length > 1 ? [notice.brand.name] : []),
                        ...(notice.isSettled ? ['dealt with since'] : []),
                      ].join(', ')}
                    </span>
                  </span>
                  {isFresh(notice) && (
                    <WordButton
                      disabled={busy}
                      onClick={() => void read([notice.id])}
                      aria-label={`Mark as read: ${noticeWords(notice)}`}
                    >
                      Mark as read
                    </WordButton>
                  )}
                </li>
              ))}
            </ul>
          </section>
        ))}
        <section aria-label="How you are told">
          <h2>How you are told</h2>
          <BrowserNotices />
          {mailTrouble !== null && (
            <p className="wrong">The last mail to you could not be sent: {mailTrouble}. It is tried again for a day.</p>
          )}
          <WaysForm ways={ways} zone={zone} />
          {hasMailbox && (
            <p className="soft small-text">
              No mail server is set, so mails go into the <a href="/standins/mailbox">mailbox</a> that comes with Bimlo.
            </p>
          )}
        </section>
        <FeedList feeds={feeds} />
      </div>
    </>
  );
}
