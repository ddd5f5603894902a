'use client';

import { saidBy, type OwnTexts } from '@/core/drafts/draft';
import type { ChosenPost, MadeFanOut } from '@/usecases/fanOut/makeFanOut';
import type { FanOutAsk, FanOutPlan } from '@/usecases/fanOut/planFanOut';
import { plannedOf, type OwnDate } from '../../../PlannedDate';
import { usePreview } from '../../../usePreview';

/** What somebody did to one post of the preview. */
export interface OwnChange extends OwnDate, OwnTexts {
  isOff?: boolean;
  draft?: number;
}

/** A fan-out in preparation, its rows switched on and off. */
export function useFanOut(pieceId: string, start: Pick<FanOutAsk, 'fanOut' | 'only'>) {
  const {
    shown: plan,
    make,
    ...preview
  } = usePreview<FanOutAsk, FanOutPlan, OwnChange>(`/api/pieces/${pieceId}/fan-out`, {
    ...start,
    ...{ anchor: null, chosen: {}, on: null, under: null, seed: 1 },
  });
  const chosen = (plan?.posts ?? []).filter(({ key }) => !preview.changes[key]?.isOff);
  return {
    ...preview,
    plan,
    chosen,
    switchRow: (row: number) => {
      const on = plan!.rows.flatMap(({ isOn }, at) => (isOn ? [at] : []));
      preview.asks({ on: on.includes(row) ? on.filter((at) => at !== row) : [...on, row] });
    },
    make: () =>
      make<MadeFanOut>(
        chosen.map(({ key, date, time, drafts }): ChosenPost => {
          const own = preview.changes[key] ?? {};
          return {
            key,
            draft: own.draft ?? 0,
            shown: saidBy(drafts[own.draft ?? 0]),
            ...plannedOf({ date, time }, own),
            ...(own.words && { words: own.words }),
            ...(own.parts && { parts: own.parts }),
          };
        }),
      ),
  };
}
