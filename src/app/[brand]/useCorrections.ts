'use client';

import { useCallback, useEffect, useState } from 'react';
import type { ShownCorrection } from '@/usecases/corrections/reading';
import { call, problemOf } from '@/ui/api';
import { changeMessage } from '@/ui/changeMessage';
import { useSay } from '@/ui/messages';
import { useUndo, type ChangeAnswer } from '@/ui/undo';

/** What is asked for of posts that say what their piece said. */
type Decision = 'correct' | 'leave';

/** How long a piece has to rest until it is asked which posts say what it said, in milliseconds. */
const RESTS_MS = 800;

/**
 * The posts that say what a piece no longer says, and what can be done about them.
 *
 * @param seen anything that is another when they may have changed; null while there are none to ask for
 * @param onDone after something was done about them
 */
export function useCorrections(pieceId: string, seen: string | number | null, onDone: () => void) {
  const at = `/api/pieces/${pieceId}/corrections`;
  const say = useSay();
  const [found, setFound] = useState<readonly ShownCorrection[] | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const [asked, setAsked] = useState(0);
  const { undo } = useUndo(useCallback(() => setAsked((times) => times + 1), []));

  useEffect(() => {
    if (seen === null) return;
    let isCurrent = true;
    const timer = setTimeout(async () => {
      const answer = await call<ShownCorrection[]>('GET', at);
      if (!isCurrent) return;
      setProblem(problemOf(answer));
      if (answer.kind === 'done') setFound(answer.value);
    }, RESTS_MS);
    return () => {
      isCurrent = false;
      clearTimeout(timer);
    };
  }, [at, seen, asked]);

  const decide = useCallback(
    async (deed: Decision, posts: readonly { id: string; version: number }[]): Promise<boolean> => {
      setBusy(true);
      const answer = await call<ChangeAnswer>('POST', at, { deed, posts });
      setBusy(false);
      setProblem(problemOf(answer));
      if (answer.kind !== 'done') return false;
      const { outcome } = answer.value;
      const { changeId } = outcome;
      say({
        text: changeMessage(outcome),
        wrong: outcome.refused.length > 0,
        ...(changeId !== null && { deed: { label: 'Undo', run: () => undo(changeId) } }),
      });
      setAsked((times) => times + 1);
      onDone();
      return true;
    },
    [at, say, undo, onDone],
  );

  return { found: seen === null ? null : found, problem, isBusy, decide };
}
