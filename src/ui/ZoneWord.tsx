'use client';

import { useSyncExternalStore } from 'react';
import { useShell } from './shell';

const never = () => () => undefined;
const readersZone = () => Intl.DateTimeFormat().resolvedOptions().timeZone;

/** Says in whose time a time is meant, where that is not the reader's own. */
export function ZoneWord() {
  const { brand } = useShell();
  // Where the reader is, only their browser knows.
  const zone = useSyncExternalStore(never, readersZone, () => brand.zone);
  if (zone === brand.zone) return null;
  return <span className="soft"> ({brand.zone.split('/').at(-1)!.replaceAll('_', ' ')} time)</span>;
}
