'use client';

import { useState } from 'react';
import { problemOf } from '@/ui/api';
import { useSay } from '@/ui/messages';
import type { ChangedPost } from '../calendar/changed';
import type { PostEditor } from './usePostEditor';

/** Does one thing at a time about an open post, at the version it is seen at, and says why it was not done. */
export function usePostDeed(editor: PostEditor, postId: string) {
  const say = useSay();
  const [busy, setBusy] = useState(false);
  async function doIt(deed: string, more: object = {}): Promise<ChangedPost | null> {
    setBusy(true);
    const answer = await editor.change<ChangedPost>('POST', `/api/posts/${postId}/deeds`, (version) => ({
      deed,
      version,
      ...more,
    }));
    setBusy(false);
    const problem = problemOf(answer);
    if (problem) say({ text: problem, wrong: true });
    return answer.kind === 'done' ? answer.value : null;
  }
  return { doIt, busy };
}
