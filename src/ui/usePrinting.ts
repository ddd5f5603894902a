'use client';

import { useEffect, useState } from 'react';
import { flushSync } from 'react-dom';

/** Whether the page is being printed: what is drawn as one scrolls has to be drawn whole then, before the browser looks. */
export function usePrinting(): boolean {
  const [isPrinting, setPrinting] = useState(false);
  useEffect(() => {
    const begin = () => flushSync(() => setPrinting(true));
    const end = () => setPrinting(false);
    addEventListener('beforeprint', begin);
    addEventListener('afterprint', end);
    return () => {
      removeEventListener('beforeprint', begin);
      removeEventListener('afterprint', end);
    };
  }, []);
  return isPrinting;
}
