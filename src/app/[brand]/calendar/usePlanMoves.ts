'use client';

import { useCallback, useState } from 'react';
import { useRouter } from 'next/navigation';
import type { Slip } from '@/core/calendar/slip';
import type { PostSheet } from '@/core/posts/sheet';
import type { LocalDate } from '@/core/time/plan';
import type { TrayIdea } from '@/usecases/views';
import { call, problemOf, type Answer } from '@/ui/api';
import { shortDate } from '@/ui/format';
import { useSay } from '@/ui/messages';

/** What the server answers to a change of a post. */
export interface ChangedPost {
  outcome: { unscheduled?: boolean; retimed?: boolean; tookBack?: boolean };
  sheet: PostSheet;
  slip: Slip;
}

/**
 * The calendar's posts as they show: the server's, with the moves on top that are under way. A move shows at once; one that
 * is refused goes back and says why, one that could not be saved stays marked and can be tried again.
 */
export function usePlanMoves(fromServer: readonly Slip[]) {
  const say = useSay();
  const router = useRouter();
  const [source, setSource] = useState(fromServer);
  const [slips, setSlips] = useState<readonly Slip[]>(fromServer);
  const [unsaved, setUnsaved] = useState<ReadonlySet<string>>(new Set());
  if (source !== fromServer) {
    setSource(fromServer);
    setSlips(fromServer);
    setUnsaved(new Set());
  }

  const put = useCallback(
    (slip: Slip) => setSlips((all) => [...all.filter((other) => other.id !== slip.id), slip]),
    [],
  );
  const remove = useCallback((id: string) => setSlips((all) => all.filter((slip) => slip.id !== id)), []);
  const mark = useCallback((id: string, isUnsaved: boolean) => {
    setUnsaved((all) => {
      const next = new Set(all);
      if (isUnsaved) next.add(id);
      else next.delete(id);
      return next;
    });
  }, []);

  async function move(slip: Slip, date: LocalDate | null): Promise<void> {
    put({ ...slip, date, time: date === null ? null : slip.time });
    const answer: Answer<ChangedPost> = await call('POST', `/api/posts/${slip.id}/move`, {
      version: slip.version,
      date,
    });
    if (answer.kind === 'done') {
      put(answer.value.slip);
      mark(slip.id, false);
      const moved = answer.value.slip;
      const where = date === null ? 'to the tray' : `to ${shortDate(date)}`;
      const also = answer.value.outcome.unscheduled
        ? ' It is not scheduled any more and will not leave.'
        : answer.value.outcome.retimed
          ? ` It leaves then, at ${moved.time}.`
          : '';
      say({
        text: `Moved “${slip.title}” ${where}.${also}`,
        deed: { label: 'Undo', run: () => void undo(slip, moved) },
      });
      return;
    }
    if (answer.kind === 'refused') {
      put(slip);
      mark(slip.id, false);
      say({ text: answer.refusal.message, wrong: true });
      if (answer.refusal.code === 'stale') router.refresh();
      return;
    }
    mark(slip.id, true);
    say({ text: problemOf(answer)!, wrong: true, deed: { label: 'Try again', run: () => void move(slip, date) } });
  }

  async function undo(before: Slip, after: Slip): Promise<void> {
    const answer: Answer<ChangedPost> = await call('POST', `/api/posts/${before.id}/move`, {
      version: after.version,
      date: before.date,
      time: before.time,
    });
    const problem = problemOf(answer);
    if (problem) say({ text: `Not undone. ${problem}`, wrong: true });
    if (answer.kind !== 'done') return;
    put(answer.value.slip);
    if (before.stage !== 'scheduled' || answer.value.slip.stage === 'scheduled') return;
    const again: Answer<ChangedPost> = await call('POST', `/api/posts/${before.id}/deeds`, {
      deed: 'schedule',
      version: answer.value.slip.version,
    });
    if (again.kind === 'done') put(again.value.slip);
    const why = problemOf(again);
    if (why) say({ text: `It is back on its day, but not scheduled. ${why}`, wrong: true });
  }

  function planned(idea: TrayIdea, made: readonly Slip[]): void {
    made.forEach(put);
    router.refresh();
    const where = made[0]?.date ? `on ${shortDate(made[0].date)}` : 'without a date';
    say({
      text: `Planned “${idea.title}” ${where}: ${made.map((slip) => slip.callSign).join(', ')}.`,
      deed: {
        label: 'Undo',
        run: () =>
          void (async () => {
            for (const { id, version } of made) {
              const answer = await call('POST', `/api/posts/${id}/deeds`, { deed: 'delete', version });
              const problem = problemOf(answer);
              if (problem) return say({ text: `Not undone. ${problem}`, wrong: true });
              remove(id);
            }
            const { title, suggestedChannelIds, version } = idea;
            await call('PATCH', `/api/pieces/${idea.id}`, { version, title, channelIds: suggestedChannelIds });
            router.refresh();
          })(),
      },
    });
  }

  return { slips, unsaved, put, remove, move, planned };
}
