'use client';

import { useEffect, useRef } from 'react';
import { usePathname, useRouter } from 'next/navigation';
import { createSerializer, parseAsString } from 'nuqs';
import type { LocalDate } from '@/core/time/plan';

type Router = ReturnType<typeof useRouter>;
/** What of the router's options says that all of a page is fetched, not only its frame (`PrefetchKind.FULL`). */
const WHOLE = { kind: 'full' } as Parameters<Router['prefetch']>[1];

/** How long what is on screen stands before its neighbours are fetched, in milliseconds: who leafs on does not want them. */
const SETTLED_MS = 400;
/** From which age on what was fetched ahead is read anew once it is on screen, in milliseconds: others may have changed it. */
const OLD_AFTER_MS = 5_000;

const addressOf = createSerializer({ date: parseAsString });

/**
 * Fetches the periods before and after what is on screen ahead, so that turning shows them at once. What was fetched a while
 * ago is read anew behind what it shows.
 *
 * @param date the period on screen, which may lag behind the one asked for
 * @param neighbours the periods beside it
 * @param shown stands for what is on screen
 */
export function useNeighbours(date: LocalDate, neighbours: readonly LocalDate[], shown: object): void {
  const router = useRouter();
  const pathname = usePathname();
  const fetchedAt = useRef(new Map<string, number>());
  const key = neighbours.join(' ');
  useEffect(() => {
    const address = (of: LocalDate) => `${pathname}${addressOf(new URLSearchParams(location.search), { date: of })}`;
    const ahead = fetchedAt.current;
    const at = ahead.get(address(date));
    if (at !== undefined && performance.now() - at > OLD_AFTER_MS) {
      ahead.clear();
      router.refresh();
    }
    const timer = setTimeout(() => {
      for (const neighbour of key.split(' ')) {
        router.prefetch(address(neighbour), WHOLE);
        if (!ahead.has(address(neighbour))) ahead.set(address(neighbour), performance.now());
      }
    }, SETTLED_MS);
    return () => clearTimeout(timer);
  }, [router, pathname, date, key, shown]);
}
