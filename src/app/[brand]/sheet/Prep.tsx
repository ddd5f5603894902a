'use client';

import type { PostSheet } from '@/core/posts/sheet';
import { problemOf } from '@/ui/api';
import { useSay } from '@/ui/messages';
import { PrepSteps, type WritePrep } from './PrepSteps';
import type { PostEditor } from './usePostEditor';

/** The post’s prep, on its sheet. */
export function Prep({ editor, sheet }: { editor: PostEditor; sheet: PostSheet }) {
  const say = useSay();

  const write: WritePrep = async (method, path, body) => {
    const answer = await editor.change(method, path, body);
    const problem = problemOf(answer);
    if (problem) say({ text: problem, wrong: true });
    return answer.kind === 'done';
  };
  const renew = () => void write('POST', `/api/posts/${sheet.id}/deeds`, { deed: 'renewPrep', version: sheet.version });

  return (
    <PrepSteps
      steps={sheet.steps}
      path={`/api/posts/${sheet.id}/steps`}
      write={write}
      renew={{ label: 'Use those of its format', run: renew }}
    />
  );
}
