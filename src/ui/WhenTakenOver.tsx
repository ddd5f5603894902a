'use client';

import { useSyncExternalStore, type ReactNode } from 'react';

const never = () => () => undefined;

/**
 * Fields that answer only once the browser has taken the page over: what is ticked or chosen in the moment before would be put
 * back then, without a word.
 */
export function WhenTakenOver({ children }: { children: ReactNode }) {
  const isTakenOver = useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
  return <fieldset disabled={!isTakenOver}>{children}</fieldset>;
}
