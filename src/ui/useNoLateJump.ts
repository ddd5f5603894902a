'use client';

import { useRouter } from 'next/navigation';
import { useLayoutEffect, useState } from 'react';

/** How long a page that was asked for may be waited for without a connection, in milliseconds. */
const WAITED_FOR_MS = 10_000;

/**
 * Lets nobody be carried away by what they pressed minutes ago: without a connection the router keeps the page that was asked for,
 * and opens it whenever there is one again. Links pressed meanwhile open nothing; what was asked for before is waited for shortly,
 * and then this page is asked for in its place.
 *
 * @returns whether what was asked for is not opened any more
 */
export function useNoLateJump(isOffline: boolean): boolean {
  const router = useRouter();
  const [isGivenUp, giveUp] = useState(false);
  // Links open again in the moment in which the page stops saying that nothing can be reached, not some time after.
  useLayoutEffect(() => {
    if (!isOffline) return;
    const timer = setTimeout(() => {
      giveUp(true);
      router.replace(`${location.pathname}${location.search}${location.hash}`, { scroll: false });
    }, WAITED_FOR_MS);
    const stopLinks = (event: MouseEvent) => {
      const link = event.target instanceof Element ? event.target.closest('a[href]') : null;
      if (!(link instanceof HTMLAnchorElement) || link.origin !== location.origin || link.hasAttribute('download'))
        return;
      if (link.pathname === location.pathname && link.search === location.search) return;
      event.preventDefault();
      event.stopPropagation();
      giveUp(true);
    };
    document.addEventListener('click', stopLinks, { capture: true });
    return () => {
      clearTimeout(timer);
      document.removeEventListener('click', stopLinks, { capture: true });
      giveUp(false);
    };
  }, [isOffline, router]);
  return isGivenUp;
}
