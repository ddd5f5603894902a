'use client';

import dynamic from 'next/dynamic';
import { useState } from 'react';
import type { PostSheet } from '@/core/posts/sheet';
import type { Repeat } from '@/usecases/repeats/reading';
import { call, problemOf } from '@/ui/api';
import { useSay } from '@/ui/messages';
import { useMay } from '@/ui/shell';
import { WordButton } from '@/ui/WordButton';

const RepeatDialog = dynamic(() => import('./RepeatDialog').then((module) => module.RepeatDialog), { ssr: false });

/** Which number a post is of what repeats, and the way to change that from this post on, or to let it repeat. */
export function OfRepeat({ sheet, onDone }: { sheet: PostSheet; onDone: () => void }) {
  const say = useSay();
  const may = useMay();
  const [open, setOpen] = useState<(Repeat & { version: number }) | 'new' | null>(null);
  const { repeat } = sheet;
  const words = repeat === null ? 'no repeat' : `number ${repeat.number} of “${repeat.name}”`;

  async function show() {
    if (repeat === null) return setOpen('new');
    const answer = await call<Repeat & { version: number }>('GET', `/api/repeats/${repeat.id}`);
    const problem = problemOf(answer);
    if (problem) say({ text: problem, wrong: true });
    if (answer.kind === 'done') setOpen(answer.value);
  }

  if (!may('runRepeats')) return repeat === null ? null : <span className="soft">{words}</span>;
  return (
    <>
      <WordButton
        onClick={() => void show()}
        title={repeat === null ? 'Let it come again by itself' : 'Change it from this post on'}
      >
        {words}
      </WordButton>
      {open !== null && (
        <RepeatDialog
          from={open === 'new' ? { ...sheet, postId: sheet.id } : null}
          change={open === 'new' ? null : { repeat: open, fromNumber: repeat?.number ?? null }}
          onDone={onDone}
          onClose={() => setOpen(null)}
        />
      )}
    </>
  );
}
