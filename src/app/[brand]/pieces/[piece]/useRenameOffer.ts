'use client';

import { useEffect, useEffectEvent, useRef } from 'react';
import type { Slip } from '@/core/calendar/slip';
import { call, problemOf } from '@/ui/api';
import { useSay } from '@/ui/messages';
import { useShell } from '@/ui/shell';
import type { ChangeAnswer } from '@/ui/undo';
import { useMadeMessage } from '../../useMadeMessage';

/** When a piece is given another title, offers to give it to those of its posts that had the old one and are not published. */
export function useRenameOffer(title: string, slips: readonly Slip[]): void {
  const { brand } = useShell();
  const say = useSay();
  const sayMade = useMadeMessage();
  const before = useRef(title);

  async function rename(posts: readonly Slip[]) {
    const answer = await call<ChangeAnswer>('POST', '/api/calendar/changes', {
      brandId: brand.id,
      posts: posts.map(({ id, version }) => ({ id, version })),
      change: { kind: 'title', title },
    });
    const problem = problemOf(answer);
    if (problem) return say({ text: problem, wrong: true });
    if (answer.kind !== 'done') return;
    const { label, changeId } = answer.value.outcome;
    if (changeId) sayMade({ label, changeId });
    else say({ text: `${label}.` });
  }

  const offer = useEffectEvent((old: string) => {
    const same = slips.filter((slip) => slip.title === old && slip.stage !== 'published');
    if (same.length === 0) return;
    say({
      text:
        same.length === 1 ? 'One of its posts has the old title.' : `${same.length} of its posts have the old title.`,
      deed: { label: same.length === 1 ? 'Rename it too' : 'Rename them too', run: () => void rename(same) },
    });
  });
  useEffect(() => {
    const old = before.current;
    before.current = title;
    if (old !== title) offer(old);
  }, [title]);
}
