'use client';

import type { ChosenAgain } from '@/usecases/encores/makeAgain';
import type { AgainAsk, AgainPost } from '@/usecases/encores/planAgain';
import type { MadeFanOut } from '@/usecases/fanOut/makeFanOut';
import { plannedOf, type OwnDate } from '../PlannedDate';
import { usePreview } from '../usePreview';

/** What somebody did to one post of the preview. */
export interface OwnChange extends OwnDate {
  isOff?: boolean;
  caption?: string;
}

/** A post that is about to be used again. What cannot be made shows no posts. */
export function useAgain(postId: string, start: AgainAsk) {
  const { shown, make, ...preview } = usePreview<AgainAsk, AgainPost[], OwnChange>(`/api/posts/${postId}/again`, start);
  const posts = preview.ask.channelIds.length === 0 ? [] : (shown ?? []);
  const chosen = posts.filter(({ key }) => !preview.changes[key]?.isOff);
  return {
    ...preview,
    posts,
    chosen,
    make: () =>
      make<MadeFanOut>(
        chosen.map(({ key, date, time, caption }): ChosenAgain => {
          const own = preview.changes[key] ?? {};
          return { key, caption: own.caption ?? caption, ...plannedOf({ date, time }, own) };
        }),
      ),
  };
}
