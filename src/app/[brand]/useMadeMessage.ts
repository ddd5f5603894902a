'use client';

import { useRouter } from 'next/navigation';
import type { ChangeOutcome } from '@/usecases/calendar/changePosts';
import { call, problemOf } from '@/ui/api';
import { useSay } from '@/ui/messages';
import { useShell } from '@/ui/shell';

/**
 * Says what was made in one step, with its undo; what was changed since stays then, and is named.
 *
 * @param onChanged after it was made, and after it was undone
 */
export function useMadeMessage(onChanged?: () => void) {
  const router = useRouter();
  const say = useSay();
  const { brand } = useShell();
  const changed = () => {
    router.refresh();
    onChanged?.();
  };

  async function undo(changeId: string) {
    const answer = await call<{ outcome: Pick<ChangeOutcome, 'label' | 'refused'> }>('POST', '/api/calendar/undo', {
      brandId: brand.id,
      changeId,
    });
    const problem = problemOf(answer);
    if (problem) return say({ text: problem, wrong: true });
    if (answer.kind !== 'done') return;
    const { label, refused } = answer.value.outcome;
    const stays = refused.map(({ title }) => `“${title}”`).join(', ');
    say({ text: stays === '' ? `${label}.` : `${label}. Changed since, so it stays: ${stays}.` });
    changed();
  }

  return ({ label, changeId }: { label: string; changeId: string }) => {
    say({ text: `${label}.`, deed: { label: 'Undo', run: () => void undo(changeId) } });
    changed();
  };
}
