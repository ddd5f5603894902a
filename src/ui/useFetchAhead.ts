'use client';

import { useEffect } from 'react';

/** How long after a page is there what opens over it is fetched, so that it opens at once, also without a connection; in milliseconds. */
const FETCH_AFTER_MS = 2_000;

/** Fetches parts of a page soon after it is there. @param loads what loads each of them; the same at each call */
export function useFetchAhead(loads: readonly (() => Promise<unknown>)[]): void {
  useEffect(() => {
    const timer = setTimeout(() => {
      // What fails here is fetched again when it is wanted.
      for (const load of loads) load().catch((error: unknown) => console.warn('not fetched ahead', error));
    }, FETCH_AFTER_MS);
    return () => clearTimeout(timer);
  }, [loads]);
}
