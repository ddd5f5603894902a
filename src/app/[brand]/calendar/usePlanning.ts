'use client';

import type { Slip } from '@/core/calendar/slip';
import type { Opening } from '@/core/rhythm/openings';
import type { LocalDate, LocalTime } from '@/core/time/plan';
import type { TrayIdea } from '@/usecases/calendar/loadCalendar';
import { call, problemOf, type Answer } from '@/ui/api';
import { plannedWords } from '../plannedWords';
import { useSay } from '@/ui/messages';
import type { useChanges } from './useChanges';

/** Posts that were made of an idea, and what that is undone by. */
export interface PlannedPosts {
  slips: Slip[];
  changeId: string;
}

/** Where an idea was dropped. */
export interface Planned {
  date: LocalDate;
  time?: LocalTime;
  channelId?: string;
  opening?: Opening;
}

/**
 * Makes posts of an idea and shows them: on the channel it was dropped on, else on those suggested for it; where there is
 * neither, `ask` is told to find out. `planned` shows what was made elsewhere.
 */
export function usePlanning(
  { put, undo, readAnew }: Pick<ReturnType<typeof useChanges>, 'put' | 'undo' | 'readAnew'>,
  ask: (idea: TrayIdea, at: Planned) => void,
) {
  const say = useSay();

  async function plan(idea: TrayIdea, at: Planned) {
    const channelIds = at.channelId ? [at.channelId] : idea.suggestedChannelIds;
    if (channelIds.length === 0) return ask(idea, at);
    const answer: Answer<PlannedPosts> = await call('POST', `/api/pieces/${idea.id}/plan`, {
      channelIds,
      date: at.date,
      time: at.time ?? null,
      format: at.opening?.format ?? null,
      pillarId: at.opening?.pillarId ?? null,
    });
    const problem = problemOf(answer);
    if (problem) say({ text: problem, wrong: true, deed: { label: 'Try again', run: () => void plan(idea, at) } });
    if (answer.kind === 'done') planned(idea, answer.value);
  }

  function planned(idea: TrayIdea, { slips: made, changeId }: PlannedPosts) {
    made.forEach(put);
    readAnew();
    say({
      text: `${plannedWords(idea.title, made)}.`,
      deed: { label: 'Undo', run: () => void undo(changeId) },
    });
  }

  return { plan, planned };
}
