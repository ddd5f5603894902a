'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useEffectEvent, useRef, useState } from 'react';
import { noticeWords, placeOfNotice, type FreshNotices, type Notice } from '@/core/notices/notice';
import type { Instant } from '@/core/time/plan';
import { call } from './api';
import { useSay } from './messages';

/** How often it is asked whether there is something new, in milliseconds. */
const ASK_EVERY_MS = 15_000;

/**
 * How much somebody has still to look at, kept up to date. What is new is said in a message, and by the browser where that was allowed
 * and they look at something else.
 *
 * @param shown what the page came with: it is not said again
 */
export function useFreshNotices(shown: FreshNotices): number {
  const router = useRouter();
  const say = useSay();
  const [count, setCount] = useState(shown.count);
  /** When the last was made that the page came with, or that was said. */
  const last = useRef('');
  const [drawnFor, setDrawnFor] = useState(shown);
  if (drawnFor !== shown) {
    setDrawnFor(shown);
    setCount(shown.count);
  }
  useEffect(() => {
    last.current = latestOf(last.current, shown.notices);
  }, [shown]);

  const ask = useEffectEvent(async () => {
    const answer = await call<FreshNotices>('GET', '/api/notices');
    if (answer.kind !== 'done') return;
    setCount(answer.value.count);
    const fresh = answer.value.notices.filter(({ madeAt }) => madeAt > last.current);
    last.current = latestOf(last.current, fresh);
    for (const notice of fresh) void sayByBrowser(notice);
    const [newest] = fresh;
    if (!newest) return;
    say({
      text: noticeWords(newest) + (fresh.length > 1 ? ` And ${fresh.length - 1} more.` : ''),
      deed: {
        label: fresh.length > 1 ? 'Notices' : 'Open',
        run: () => router.push(fresh.length > 1 ? `/${newest.brand.slug}/notices` : placeOfNotice(newest)),
      },
    });
    router.refresh();
  });
  useEffect(() => {
    const timer = setInterval(() => void ask(), ASK_EVERY_MS);
    return () => clearInterval(timer);
  }, []);
  return count;
}

const latestOf = (before: Instant, notices: readonly Notice[]): Instant =>
  notices.reduce((latest, { madeAt }) => (madeAt > latest ? madeAt : latest), before);

/** Lets the browser say it, where that was allowed and the page is not looked at; pressed on, the place of it opens. */
async function sayByBrowser(notice: Notice): Promise<void> {
  if (!('Notification' in window) || Notification.permission !== 'granted' || document.visibilityState === 'visible')
    return;
  const registration = await navigator.serviceWorker?.getRegistration();
  await registration?.showNotification(notice.brand.name, {
    body: noticeWords(notice),
    tag: notice.id,
    data: { place: placeOfNotice(notice) },
  });
}
