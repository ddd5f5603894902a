'use client';

import dynamic from 'next/dynamic';
import Link from 'next/link';
import { memo, useDeferredValue, useEffect, useMemo, useState } from 'react';
import { unreadOf } from '@/core/posts/unread';
import { blocksOf } from '@/core/posts/readiness';
import type { PostSheet } from '@/core/posts/sheet';
import { FORMAT_LABELS } from '@/core/rulesheets/types';
import type { Name } from '@/core/shelf/shelf';
import { STAGE_LABELS } from '@/core/stages/stages';
import { CallSign } from '@/ui/CallSign';
import { shortDate } from '@/ui/format';
import { useShell } from '@/ui/shell';
import { Notes } from '../../../sheet/Notes';
import { Parts } from '../../../sheet/Parts';
import { usePostEditor, writtenSheet } from '../../../sheet/usePostEditor';
import { BothTexts, Words } from '../../../sheet/Words';
import { Writing } from '../../../sheet/Writing';
import { Carry } from './Carry';
import type { OpenSibling } from './openSibling';
import { WordButton } from '@/ui/WordButton';

const Differences = dynamic(() => import('../../../sheet/Versions').then((module) => module.Differences), {
  ssr: false,
});

const NOTHING = () => undefined;

/** One post of a piece among its siblings: its words, what they lack, and how they differ from the sibling compared with. */
export const SiblingColumn = memo(function SiblingColumn({
  initial,
  siblings,
  names,
  list,
  register,
  isReference,
  reference,
  onCompare,
  onReferenceTyped,
}: {
  initial: PostSheet;
  siblings: readonly PostSheet[];
  names: readonly Name[];
  list: () => readonly OpenSibling[];
  register: (id: string, sibling: OpenSibling | null) => void;
  isReference: boolean;
  /** The caption of the sibling compared with; null while nothing is compared. */
  reference: string | null;
  onCompare: () => void;
  onReferenceTyped: (caption: string) => void;
}) {
  const { brand, channels } = useShell();
  const editor = usePostEditor(initial.id, initial, NOTHING);
  const { sheet, texts } = editor;
  const [isCarrying, setCarrying] = useState(false);
  const channel = channels.find(({ id }) => id === initial.channelId);

  useEffect(() => {
    if (sheet) register(sheet.id, { sheet, editor });
  });
  useEffect(() => () => register(initial.id, null), [initial.id, register]);
  const caption = texts?.caption ?? '';
  const spoken = useDeferredValue(caption);
  useEffect(() => {
    if (isReference) onReferenceTyped(spoken);
  }, [isReference, spoken, onReferenceTyped]);

  const late = useDeferredValue(texts);
  const block = useMemo(
    () => (sheet && late && channel ? (blocksOf(writtenSheet(sheet, late), channel.sheet)[0] ?? null) : null),
    [sheet, late, channel],
  );
  const unread = useMemo(
    () => (sheet && late ? unreadOf(writtenSheet(sheet, late), sheet.drafted) : []),
    [sheet, late],
  );
  if (!sheet || !texts || !channel) return null;

  return (
    <section className={`sibling${isReference ? ' is-reference' : ''}`} aria-label={`${channel.name}: ${sheet.title}`}>
      <div className="sibling-head">
        <CallSign sign={channel.callSign} color={channel.color} name={channel.name} />
        <Link
          dir="auto"
          className="sibling-title"
          href={`/${brand.slug}/calendar?post=${sheet.id}${sheet.date ? `&date=${sheet.date}` : ''}`}
          prefetch={false}
        >
          {sheet.title}
        </Link>
        <span className={`small-text ${editor.saveState === 'saved' ? 'soft' : 'attention'}`}>{editor.saveState}</span>
        <span className="sibling-facts">
          {FORMAT_LABELS[sheet.format]} ·{' '}
          <span className="figures">{sheet.date ? shortDate(sheet.date) : 'no date'}</span> ·{' '}
          {sheet.stage === 'setAside' ? 'set aside' : STAGE_LABELS[sheet.stage]}
          {block && <span className="attention"> · {block.short}</span>}
        </span>
      </div>
      <Writing
        editor={editor}
        postId={sheet.id}
        network={channel.sheet.slug}
        disabled={false}
        tools={
          siblings.length > 1 && (
            <>
              <WordButton aria-expanded={isCarrying} onClick={() => setCarrying(!isCarrying)}>
                Copy text to…
              </WordButton>
              <WordButton aria-pressed={isReference} onClick={onCompare}>
                {isReference ? 'Compared with' : 'Compare'}
              </WordButton>
            </>
          )
        }
      >
        {isCarrying && (
          <Carry
            from={{ sheet, editor }}
            network={channel.sheet.slug}
            list={list}
            names={names}
            onDone={() => setCarrying(false)}
          />
        )}
        {reference !== null && caption !== '' && <Differences from={reference} to={caption} />}
        <BothTexts editor={editor} field="title" />
        <Words
          editor={editor}
          texts={texts}
          sheet={channel.sheet}
          format={sheet.format}
          unread={unread}
          disabled={false}
        />
        <Parts editor={editor} texts={texts} sheet={sheet} rules={channel.sheet} unread={unread} disabled={false} />
        <Notes editor={editor} texts={texts} format={sheet.format} disabled={false} />
      </Writing>
      {editor.problem && (
        <div className="notice is-wrong" role="alert">
          {editor.problem.message}
        </div>
      )}
    </section>
  );
});
