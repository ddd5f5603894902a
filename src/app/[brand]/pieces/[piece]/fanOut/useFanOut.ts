'use client';

import { saidBy, type OwnTexts } from '@/core/drafts/draft';
import { overIn, roomOf } from '@/core/fanOut/ownTexts';
import { useShell } from '@/ui/shell';
import type { ChosenPost, MadeFanOut } from '@/usecases/fanOut/makeFanOut';
import type { FanOutAsk, FanOutPlan } from '@/usecases/fanOut/planFanOut';
import { plannedOf, type OwnDate } from '../../../PlannedDate';
import { usePreview } from '../../../usePreview';

/** What somebody did to one post of the preview. */
export interface OwnChange extends OwnDate, OwnTexts {
  isOff?: boolean;
  draft?: number;
}

/** What somebody did to a post, as far as it still has the draft and the parts that this was done to. */
export function ownOf(own: OwnChange, { drafts }: FanOutPlan['posts'][number]): OwnChange {
  const draft = drafts[own.draft ?? 0] ? own.draft : undefined;
  const hasParts = own.parts?.length === (drafts[draft ?? 0]?.parts.length ?? 0);
  return { ...own, draft, parts: hasParts ? own.parts : undefined };
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
  const { channels } = useShell();
  const overOf = (post: FanOutPlan['posts'][number]): string[] => {
    const own = ownOf(preview.changes[post.key] ?? {}, post);
    const channel = channels.find(({ id }) => id === post.channelId);
    return channel ? overIn(roomOf(post.drafts[own.draft ?? 0], own, channel.sheet, post.format)) : [];
  };
  return {
    ...preview,
    plan,
    chosen,
    /** The chosen posts of which what somebody typed does not fit. */
    tooLong: chosen.filter((post) => overOf(post).length > 0),
    switchRow: (row: number) => {
      const on = plan!.rows.flatMap(({ isOn }, at) => (isOn ? [at] : []));
      preview.asks({ on: on.includes(row) ? on.filter((at) => at !== row) : [...on, row] });
    },
    make: () =>
      make<MadeFanOut>(
        chosen.map((post): ChosenPost => {
          const { key, date, time, drafts } = post;
          const own = ownOf(preview.changes[key] ?? {}, post);
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
