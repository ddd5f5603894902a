'use client';

import { useCallback } from 'react';
import type { ChangeOutcome } from '@/core/calendar/changeOutcome';
import { changeMessage } from './changeMessage';
import { useSay } from './messages';
import { useUndo } from './undo';

/** Tells what came of a change of posts, with a way to undo it. @returns takes the outcome, and words that stand before it */
export function useSayChange(): (outcome: ChangeOutcome, before?: string) => void {
  const say = useSay();
  const { undo } = useUndo();
  return useCallback(
    (outcome, before = '') => {
      const { changeId, refused } = outcome;
      say({
        text: `${before}${changeMessage(outcome)}`,
        wrong: refused.length > 0,
        ...(changeId && { deed: { label: 'Undo', run: () => undo(changeId) } }),
      });
    },
    [say, undo],
  );
}
