'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { problemOf, type Answer } from '@/ui/api';
import { useShell } from '@/ui/shell';

/** Saves what was filled in, one after the other, and goes on; at the first that is not to be, says why and stays. */
export function useSteps(next: string) {
  const { brand } = useShell();
  const router = useRouter();
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);

  async function goOn(saves: readonly { name: string; save: () => Promise<Answer<unknown>> }[]) {
    setBusy(true);
    setProblem(null);
    for (const { name, save } of saves) {
      const why = problemOf(await save());
      if (why === null) continue;
      setProblem(`${name}: ${why}`);
      setBusy(false);
      // What was saved before it is there already.
      return router.refresh();
    }
    router.push(next.startsWith('/') ? next : `/${brand.slug}/begin?step=${next}`);
    router.refresh();
  }
  return { goOn, problem, isBusy };
}
