'use client';

import { useOffline } from 'next/offline';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useRef, useTransition } from 'react';

/**
 * Has the server's view read anew, unless that is under way. Without a connection the router keeps what it was asked for and asks again
 * when there is one: several readings of one page would all come at once then, and those of an address that was left meanwhile
 * make it load the page from the start.
 */
export function useReadAnew(): () => void {
  const router = useRouter();
  const isOffline = useOffline();
  const [isReading, startReading] = useTransition();
  const isUnderWay = useRef(false);
  useEffect(() => {
    isUnderWay.current = isOffline || isReading;
  }, [isOffline, isReading]);
  return useCallback(() => {
    if (isUnderWay.current) return;
    isUnderWay.current = true;
    startReading(() => router.refresh());
  }, [router]);
}
