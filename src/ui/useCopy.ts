'use client';

import copyText from 'copy-to-clipboard';
import { useCallback } from 'react';
import { useSay } from './messages';

/** Copies a text and says so, also on a page that came by plain HTTP, where browsers have no clipboard to write to. */
export function useCopy(): (label: string, text: string) => Promise<void> {
  const say = useSay();
  return useCallback(
    async (label, text) => {
      if (await copyText(text)) say({ text: `${label} copied.` });
      else say({ text: 'The browser does not let Bimlo copy. Select the text and copy it by hand.', wrong: true });
    },
    [say],
  );
}
