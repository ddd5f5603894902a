'use client';

import { useRouter } from 'next/navigation';
import { useCallback } from 'react';
import { useSay } from '@/ui/messages';
import { useUndo } from '@/ui/undo';

/**
 * Says what was made in one step, with its undo.
 *
 * @param onChanged after it was made, and after anything was undone or redone
 */
export function useMadeMessage(onChanged?: () => void) {
  const router = useRouter();
  const say = useSay();
  const { undo } = useUndo(useCallback(() => onChanged?.(), [onChanged]));
  return ({ label, changeId }: { label: string; changeId: string }) => {
    say({ text: `${label}.`, deed: { label: 'Undo', run: () => undo(changeId) } });
    router.refresh();
    onChanged?.();
  };
}
