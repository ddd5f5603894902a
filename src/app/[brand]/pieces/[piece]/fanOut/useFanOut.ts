'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import type { ChosenPost, MadeFanOut } from '@/usecases/fanOut/makeFanOut';
import type { FanOutAsk, FanOutPlan } from '@/usecases/fanOut/planFanOut';
import { plannedOf, type OwnDate } from '../../../PlannedDate';
import { call, problemOf } from '@/ui/api';

/** What somebody did to one post of the preview. */
export interface OwnChange extends OwnDate {
  isOff?: boolean;
  draft?: number;
  /** Undefined for that of the draft. */
  caption?: string | undefined;
}

/** How long after the last change of what is asked the preview is worked out again, in milliseconds. */
const PREVIEW_AFTER_MS = 250;

/**
 * A fan-out in preparation: what is asked, what it would make, and what was changed of single posts. The preview is worked out again
 * with each change of what is asked; what was changed of a post stays with it.
 */
export function useFanOut(pieceId: string, start: Pick<FanOutAsk, 'fanOut' | 'only'>) {
  const [ask, setAsk] = useState<FanOutAsk>({
    ...start,
    ...{ anchor: null, chosen: {}, on: null, under: null, seed: 1 },
  });
  const [plan, setPlan] = useState<FanOutPlan | null>(null);
  const [changes, setChanges] = useState<Record<string, OwnChange>>({});
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(true);
  const latest = useRef(0);

  const preview = useCallback(
    async (asked: FanOutAsk) => {
      const turn = ++latest.current;
      setBusy(true);
      const answer = await call<FanOutPlan>('POST', `/api/pieces/${pieceId}/fan-out/preview`, { ask: asked });
      if (turn !== latest.current) return;
      setBusy(false);
      setProblem(problemOf(answer));
      if (answer.kind === 'done') setPlan(answer.value);
    },
    [pieceId],
  );

  useEffect(() => {
    const timer = setTimeout(() => void preview(ask), PREVIEW_AFTER_MS);
    return () => clearTimeout(timer);
  }, [ask, preview]);

  const change = (key: string, part: OwnChange) => setChanges((now) => ({ ...now, [key]: { ...now[key], ...part } }));
  const asks = (part: Partial<FanOutAsk>) => setAsk((now) => ({ ...now, ...part }));
  const switchRow = (row: number) => {
    const on = plan!.rows.flatMap(({ isOn }, at) => (isOn ? [at] : []));
    asks({ on: on.includes(row) ? on.filter((at) => at !== row) : [...on, row] });
  };
  const chosen = (plan?.posts ?? []).filter(({ key }) => !changes[key]?.isOff);

  /** Makes what is chosen. @returns null where it was not done; then the reason stands there, and the preview is new */
  async function make(): Promise<MadeFanOut | null> {
    const posts = chosen.map(({ key, date, time, drafts }): ChosenPost => {
      const own = changes[key] ?? {};
      return {
        key,
        draft: own.draft ?? 0,
        shown: drafts[own.draft ?? 0]?.words.caption ?? '',
        ...plannedOf({ date, time }, own),
        ...(own.caption !== undefined && { caption: own.caption }),
      };
    });
    setBusy(true);
    const answer = await call<MadeFanOut>('POST', `/api/pieces/${pieceId}/fan-out`, { ask, posts });
    setBusy(false);
    if (answer.kind === 'done') return answer.value;
    const why = problemOf(answer);
    if (answer.kind === 'refused' && answer.refusal.code === 'changed') await preview(ask);
    setProblem(why);
    return null;
  }

  return { ask, asks, plan, changes, change, switchRow, chosen, make, problem, isBusy };
}
