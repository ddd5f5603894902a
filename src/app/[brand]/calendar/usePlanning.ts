'use client';

import type { Slip } from '@/core/calendar/slip';
import type { Opening } from '@/core/rhythm/openings';
import type { LocalDate, LocalTime } from '@/core/time/plan';
import type { TrayIdea } from '@/usecases/calendar/loadCalendar';
import { call, problemOf, type Answer } from '@/ui/api';
import { shortDate } from '@/ui/format';
import { useSay } from '@/ui/messages';
import type { useChanges } from './useChanges';

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
  { put, remove, readAnew }: Pick<ReturnType<typeof useChanges>, 'put' | 'remove' | 'readAnew'>,
  ask: (idea: TrayIdea, at: Planned) => void,
) {
  const say = useSay();

  async function plan(idea: TrayIdea, at: Planned) {
    const channelIds = at.channelId ? [at.channelId] : idea.suggestedChannelIds;
    if (channelIds.length === 0) return ask(idea, at);
    const answer: Answer<{ slips: Slip[] }> = await call('POST', `/api/pieces/${idea.id}/plan`, {
      channelIds,
      date: at.date,
      time: at.time ?? null,
      format: at.opening?.format ?? null,
      pillarId: at.opening?.pillarId ?? null,
    });
    const problem = problemOf(answer);
    if (problem) say({ text: problem, wrong: true, deed: { label: 'Try again', run: () => void plan(idea, at) } });
    if (answer.kind === 'done') planned(idea, answer.value.slips);
  }

  function planned(idea: TrayIdea, made: readonly Slip[]) {
    made.forEach(put);
    readAnew();
    const on = made[0]?.date ? `on ${shortDate(made[0].date)}` : 'without a date';
    say({
      text: `Planned “${idea.title}” ${on}: ${made.map((slip) => slip.callSign).join(', ')}.`,
      deed: { label: 'Undo', run: () => void unplan(idea, made) },
    });
  }

  async function unplan(idea: TrayIdea, made: readonly Slip[]) {
    for (const { id, version } of made) {
      const problem = problemOf(await call('POST', `/api/posts/${id}/deeds`, { deed: 'delete', version }));
      if (problem) return say({ text: `Not undone. ${problem}`, wrong: true });
      remove(id);
    }
    const { title, suggestedChannelIds, version } = idea;
    await call('PATCH', `/api/pieces/${idea.id}`, { version, title, channelIds: suggestedChannelIds });
    readAnew();
  }

  return { plan, planned };
}
