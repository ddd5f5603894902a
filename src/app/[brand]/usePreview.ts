'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import { call, problemOf } from '@/ui/api';
import { useKept } from '@/ui/useKept';

/** How long after the last change of what is asked the preview is worked out again, in milliseconds. */
const PREVIEW_AFTER_MS = 250;

/**
 * Posts in preparation: what is asked, what it would make, and what was changed of single posts. The preview is worked out again with
 * each change of what is asked; what was changed of a post stays with it, over Escape and a reload too, until the posts are made.
 *
 * @param path where they are made; `/preview` behind it shows them
 */
export function usePreview<Ask, Shown, Own extends object>(path: string, start: Ask) {
  const { typed, set, forget } = useKept<{ ask: Ask; changes: Record<string, Own> }>(
    `preview.${path}.${JSON.stringify(start)}`,
    { ask: start, changes: {} },
  );
  const { ask, changes } = typed;
  const now = useRef(typed);
  const change = (part: Partial<typeof typed>) => {
    now.current = { ...now.current, ...part };
    set(part);
  };
  const [shown, setShown] = useState<Shown | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(true);
  const latest = useRef(0);

  const preview = useCallback(
    async (asked: Ask) => {
      const turn = ++latest.current;
      setBusy(true);
      const answer = await call<Shown>('POST', `${path}/preview`, { ask: asked });
      if (turn !== latest.current) return;
      setBusy(false);
      setProblem(problemOf(answer));
      if (answer.kind === 'done') setShown(answer.value);
    },
    [path],
  );
  useEffect(() => {
    const timer = setTimeout(() => void preview(ask), PREVIEW_AFTER_MS);
    return () => clearTimeout(timer);
  }, [ask, preview]);

  /** Makes posts. @returns null where it was not done; then the reason stands there, and the preview is new where it has changed */
  async function make<Made>(posts: readonly object[]): Promise<Made | null> {
    setBusy(true);
    const answer = await call<Made>('POST', path, { ask, posts });
    setBusy(false);
    if (answer.kind === 'done') {
      forget();
      return answer.value;
    }
    const why = problemOf(answer);
    if (answer.kind === 'refused' && answer.refusal.code === 'changed') await preview(ask);
    setProblem(why);
    return null;
  }

  return {
    ask,
    asks: (part: Partial<Ask>) => change({ ask: { ...now.current.ask, ...part } }),
    shown,
    changes,
    change: (key: string, part: Own) =>
      change({ changes: { ...now.current.changes, [key]: { ...now.current.changes[key], ...part } } }),
    make,
    /** Lets go of what was asked and changed, which is kept over Escape and a reload. */
    forget,
    problem,
    isBusy,
  };
}
