'use client';

import { useEffect } from 'react';
import { useReadAnew } from './useReadAnew';

/**
 * Has the server's view read anew every so often while the page is looked at, and when it comes to be looked at again.
 *
 * @param everyMs milliseconds between two readings
 * @param isAllowed false while what is on screen must not be drawn over
 */
export function useRefresh(everyMs: number, isAllowed = true): void {
  const readAnew = useReadAnew();
  useEffect(() => {
    const look = () => {
      if (isAllowed && document.visibilityState === 'visible') readAnew();
    };
    const timer = setInterval(look, everyMs);
    document.addEventListener('visibilitychange', look);
    return () => {
      clearInterval(timer);
      document.removeEventListener('visibilitychange', look);
    };
  }, [readAnew, everyMs, isAllowed]);
}
