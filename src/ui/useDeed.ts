'use client';

import { useState } from 'react';
import { call, problemOf, type Answer } from './api';
import { useSay } from './messages';

/** Does one thing at a time on the server and says why it was not done. */
export function useDeed() {
  const say = useSay();
  const [busy, setBusy] = useState(false);
  async function run<T>(method: 'POST' | 'PATCH' | 'DELETE', path: string, body?: object | File): Promise<Answer<T>> {
    setBusy(true);
    const answer = await call<T>(method, path, body);
    setBusy(false);
    const problem = problemOf(answer);
    if (problem) say({ text: problem, wrong: true });
    return answer;
  }
  return { run, busy };
}
