'use client';

import { useOffline } from 'next/offline';
import { useEffect } from 'react';
import { onUnreachable } from './api';
import { useNoLateJump } from './useNoLateJump';
import { useReadAnew } from './useReadAnew';

/**
 * Says that Bimlo cannot be reached, for as long as that is so. The page stays as it was; what was asked for just before
 * comes when Bimlo is back within seconds. A page that is loaded then shows the same (`public/sw.js`).
 */
export function ConnectionBar() {
  const isOffline = useOffline();
  const isGivenUp = useNoLateJump(isOffline);
  const readAnew = useReadAnew();
  useEffect(() => {
    // The router goes on asking until there is an answer, and reads the page anew then.
    const stop = onUnreachable(readAnew);
    if (process.env.NODE_ENV === 'production' && 'serviceWorker' in navigator)
      navigator.serviceWorker
        .register('/sw.js')
        .catch((error: unknown) => console.warn('pages are not stood in for without a connection', error));
    return stop;
  }, [readAnew]);
  return (
    <div className="connection" role="status">
      {isOffline && (
        <p>
          <b>Bimlo cannot be reached.</b> This page stays as it was. What you type is kept here and saved when Bimlo is
          back.{isGivenUp && ' The page you asked for was not opened: press it again then.'}
        </p>
      )}
    </div>
  );
}
