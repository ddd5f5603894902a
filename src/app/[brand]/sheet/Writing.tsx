'use client';

import dynamic from 'next/dynamic';
import { useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import type { DraftField } from '@/ui/drafts';
import { insertText } from '@/ui/insertText';
import type { PostEditor } from './usePostEditor';
import { WordButton } from '@/ui/WordButton';

const InsertPalette = dynamic(() => import('./InsertPalette').then((module) => module.InsertPalette), { ssr: false });
const EmojiPicker = dynamic(() => import('./EmojiPicker').then((module) => module.EmojiPicker), { ssr: false });

const FIELD = '[data-field]';

/**
 * The texts of a post with what helps to write them: things of the shelf, names and emoji are put where the caret stands,
 * and steps can be taken back, also after a reload. Fields say by `data-field` which text they are.
 */
export function Writing({
  editor,
  postId,
  network,
  disabled,
  tools,
  children,
}: {
  editor: PostEditor;
  postId: string;
  /** The slug of the rule sheet, which names go by. */
  network: string;
  disabled: boolean;
  /** Further words beside the tools. */
  tools?: ReactNode;
  children: ReactNode;
}) {
  const frame = useRef<HTMLDivElement>(null);
  const lastField = useRef<HTMLElement | null>(null);
  const [open, setOpen] = useState<'palette' | 'emoji' | null>(null);

  /** The field that was written in last, else the caption. */
  const field = () => {
    const known = lastField.current;
    if (known?.isConnected) return known;
    return frame.current?.querySelector<HTMLElement>('[data-field="caption"]') ?? null;
  };
  const put = (text: string) => {
    setOpen(null);
    const target = field();
    // The dialog gives the focus back as it closes; only then has the field its caret again.
    if (target) setTimeout(() => insertText(target, text));
  };

  function onKeyDown(event: KeyboardEvent) {
    const target = (event.target as HTMLElement).closest<HTMLElement>(FIELD);
    if (!target || disabled || !(event.ctrlKey || event.metaKey) || event.altKey) return;
    if (event.key === '.') {
      event.preventDefault();
      setOpen('palette');
    }
    const way = wayOf(event);
    if (way && !target.isContentEditable) {
      event.preventDefault();
      editor.step(target.dataset.field as DraftField, way);
    }
  }

  return (
    <div
      className="writing"
      ref={frame}
      onKeyDown={onKeyDown}
      onFocus={(event) => {
        const target = (event.target as HTMLElement).closest<HTMLElement>(FIELD);
        if (target) lastField.current = target;
      }}
    >
      {!disabled && (
        <div className="writing-tools" data-deeds>
          <WordButton
            aria-keyshortcuts="Control+."
            title="Shelf and names, where the caret stands (Ctrl .)"
            onClick={() => setOpen('palette')}
          >
            Insert from the shelf
          </WordButton>
          <WordButton aria-expanded={open === 'emoji'} onClick={() => setOpen(open === 'emoji' ? null : 'emoji')}>
            Emoji
          </WordButton>
          {tools}
        </div>
      )}
      {open === 'emoji' && <EmojiPicker onPick={put} onClose={() => setOpen(null)} />}
      {children}
      {open === 'palette' && (
        <InsertPalette postId={postId} network={network} onPick={put} onClose={() => setOpen(null)} />
      )}
    </div>
  );
}

function wayOf({ key, shiftKey }: KeyboardEvent): 'undo' | 'redo' | null {
  const letter = key.toLowerCase();
  if (letter === 'z') return shiftKey ? 'redo' : 'undo';
  return letter === 'y' ? 'redo' : null;
}
