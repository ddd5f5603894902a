'use client';

import { useSyncExternalStore } from 'react';

/** The width up to which a screen is held in one hand. */
const NARROW = '(max-width: 720px)';

function subscribe(told: () => void): () => void {
  const query = matchMedia(NARROW);
  query.addEventListener('change', told);
  return () => query.removeEventListener('change', told);
}

/** Whether the screen is as narrow as a phone; the server takes it for wide. */
export const useIsNarrow = (): boolean =>
  useSyncExternalStore(
    subscribe,
    () => matchMedia(NARROW).matches,
    () => false,
  );
