'use client';

import { offeredAsDone, worksSeen } from '@/core/prep/seenDone';
import { unreadOf } from '@/core/posts/unread';
import type { PostSheet } from '@/core/posts/sheet';
import { problemOf } from '@/ui/api';
import { OnlyTyped, useShell } from '@/ui/shell';
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
  const { channels } = useShell();
  const rules = channels.find(({ id }) => id === sheet.channelId)?.sheet;
  const seen = rules ? worksSeen(sheet, rules, unreadOf(sheet, sheet.drafted).length) : new Set<never>();
  const renew = () => void write('POST', `/api/posts/${sheet.id}/deeds`, { deed: 'renewPrep', version: sheet.version });

  return (
    <OnlyTyped deed="doSteps">
      <PrepSteps
        steps={sheet.steps}
        offered={new Set(offeredAsDone(sheet.steps, seen).map(({ id }) => id))}
        path={`/api/posts/${sheet.id}/steps`}
        write={write}
        renew={{ label: 'Use those of its format', run: renew }}
      />
    </OnlyTyped>
  );
}
