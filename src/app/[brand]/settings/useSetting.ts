'use client';

import { useRef, useState } from 'react';
import { useRouter } from 'next/navigation';
import { call, problemOf, type Answer } from '@/ui/api';

/**
 * Saves a form over a setting that others may change meanwhile. A save that was based on an older state is refused; what
 * stands now is read then, and saving once more replaces it.
 *
 * @param version of the setting as the page has it; 0 for one that is new
 */
export function useSetting(version: number) {
  const router = useRouter();
  const [problem, setProblem] = useState<string | null>(null);
  const [isStale, setIsStale] = useState(false);
  const seen = useRef(version);

  async function save<T>(method: 'POST' | 'DELETE', path: string, body: object): Promise<Answer<T>> {
    if (isStale) seen.current = Math.max(seen.current, version);
    const answer = await call<T>(method, path, body, { seen: seen.current });
    setProblem(problemOf(answer));
    const stale = answer.kind === 'refused' && answer.refusal.code === 'stale';
    setIsStale(stale);
    if (answer.kind === 'done') seen.current++;
    if (answer.kind === 'done' || stale) router.refresh();
    return answer;
  }

  /** Takes what stands now for what was typed. */
  function takeTheirs(reset: () => void): void {
    seen.current = version;
    setIsStale(false);
    setProblem(null);
    reset();
  }

  return { save, problem, isStale, takeTheirs };
}
