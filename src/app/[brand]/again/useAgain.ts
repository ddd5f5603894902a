'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import type { ChosenAgain, MadeAgain } from '@/usecases/encores/makeAgain';
import type { AgainAsk, AgainPost } from '@/usecases/encores/planAgain';
import { plannedOf, type OwnDate } from '../PlannedDate';
import { call, problemOf } from '@/ui/api';

/** What somebody did to one post of the preview. */
export interface OwnChange extends OwnDate {
  isOff?: boolean;
  caption?: string;
}

/** How long after the last change of what is asked the preview is worked out again, in milliseconds. */
const PREVIEW_AFTER_MS = 200;

/** A post that is about to be used again: what is asked, what would be made, and what was changed of it. */
export function useAgain(postId: string, start: AgainAsk) {
  const [ask, setAsk] = useState(start);
  const [posts, setPosts] = useState<AgainPost[]>([]);
  const [changes, setChanges] = useState<Record<string, OwnChange>>({});
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(true);
  const latest = useRef(0);

  const preview = useCallback(
    async (asked: AgainAsk) => {
      const turn = ++latest.current;
      setBusy(true);
      const answer = await call<AgainPost[]>('POST', `/api/posts/${postId}/again/preview`, { ask: asked });
      if (turn !== latest.current) return;
      setBusy(false);
      setProblem(problemOf(answer));
      setPosts(answer.kind === 'done' ? answer.value : []);
    },
    [postId],
  );
  useEffect(() => {
    const timer = setTimeout(() => void preview(ask), PREVIEW_AFTER_MS);
    return () => clearTimeout(timer);
  }, [ask, preview]);

  const asks = (part: Partial<AgainAsk>) => setAsk((now) => ({ ...now, ...part }));
  const change = (key: string, part: OwnChange) => setChanges((now) => ({ ...now, [key]: { ...now[key], ...part } }));
  const chosen = posts.filter(({ key }) => !changes[key]?.isOff);

  /** Makes what is chosen. @returns null where it was not done; then the reason stands there */
  async function make(): Promise<MadeAgain | null> {
    const wanted = chosen.map(({ key, date, time, caption }): ChosenAgain => {
      const own = changes[key] ?? {};
      return { key, caption: own.caption ?? caption, ...plannedOf({ date, time }, own) };
    });
    setBusy(true);
    const answer = await call<MadeAgain>('POST', `/api/posts/${postId}/again`, { ask, posts: wanted });
    setBusy(false);
    if (answer.kind === 'done') return answer.value;
    const why = problemOf(answer);
    if (answer.kind === 'refused' && answer.refusal.code === 'changed') await preview(ask);
    setProblem(why);
    return null;
  }

  return { ask, asks, posts, changes, change, chosen, make, problem, isBusy };
}
