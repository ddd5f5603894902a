'use client';

import { ofEachText } from '@/core/posts/texts';
import Link from 'next/link';
import { useState, type FormEvent } from 'react';
import Button from 'react-bootstrap/Button';
import type { Block } from '@/core/posts/readiness';
import type { DraftedMark } from '@/core/posts/unread';
import type { Want } from '@/core/posts/wants';
import { problemOf } from '@/ui/api';
import { useSay } from '@/ui/messages';
import { useMay, useShell } from '@/ui/shell';
import type { PostEditor } from './usePostEditor';
import { WordButton } from '@/ui/WordButton';

/** What stands between the post and its departure: each leads to its place; what only the team wants, a manager may waive. */
export function Missing({
  blocks,
  wants,
  unread,
  editor,
  postId,
  pieceId,
}: {
  blocks: readonly Block[];
  wants: readonly Want[];
  /** Sentences of its draft that nobody has touched. */
  unread: readonly DraftedMark[];
  editor: PostEditor;
  postId: string;
  pieceId: string;
}) {
  const { brand } = useShell();
  const may = useMay();
  const count = blocks.length + wants.length;
  if (count === 0) return null;
  return (
    <section className="notice" aria-label="What is missing">
      <b>{count === 1 ? 'One thing' : `${count} things`} before it can be sent:</b>
      <ul>
        {blocks.map((block) => (
          <li key={block.code + block.field}>
            <LeadsTo place={PLACES[block.field]}>{block.message}</LeadsTo>
          </li>
        ))}
        {wants.map((want) => (
          <li key={want.key}>
            {want.ofPiece ? (
              <Link href={`/${brand.slug}/pieces/${pieceId}`}>{want.message}</Link>
            ) : (
              <LeadsTo place={placeOfWant(want, unread)}>{want.message}</LeadsTo>
            )}
            {want.key === 'unread' && may('changePosts') && <Unread unread={unread} editor={editor} postId={postId} />}
          </li>
        ))}
      </ul>
      {wants.length > 0 && may('waive') && <Waive editor={editor} postId={postId} count={wants.length} />}
    </section>
  );
}

/** Where what a network would refuse stands on the sheet. */
const PLACES: Record<Block['field'], string> = {
  ...ofEachText((_text, name) => `[data-field="${name}"]`),
  parts: '.parts textarea, .add-picture input',
  format: '.facts-line select',
  pictures: '.picture-row textarea, .picture-row input',
};

/** Where a want stands: a step by itself, the others by their field. */
const placeOfWant = ({ key, field }: Want, unread: readonly DraftedMark[]): string =>
  field === 'words'
    ? unread[0]?.field === 'parts'
      ? '.parts textarea'
      : `[data-field="${unread[0]?.field}"]`
    : field === 'prep'
      ? `[data-step="${key.replace('step:', '')}"] input`
      : field === 'signOff'
        ? '.sign-off button'
        : PLACES[field];

function LeadsTo({ place, children }: { place: string; children: string }) {
  return (
    <WordButton
      className="leads-to"
      onClick={(event) => event.currentTarget.closest('.sheet')?.querySelector<HTMLElement>(place)?.focus()}
    >
      {children}
    </WordButton>
  );
}

/** The sentences that are not the piece's own, to be read: changing one clears it, and so does saying that it is right. */
function Unread({ unread, editor, postId }: { unread: readonly DraftedMark[]; editor: PostEditor; postId: string }) {
  const say = useSay();
  async function agree() {
    const answer = await editor.change('POST', `/api/posts/${postId}/deeds`, (version) => ({
      deed: 'looksRight',
      version,
    }));
    const problem = problemOf(answer);
    if (problem) say({ text: problem, wrong: true });
  }
  return (
    <>
      {' '}
      <span className="soft">{unread.map(({ text }) => `“${text}”`).join(' ')}</span>{' '}
      <WordButton onClick={() => void agree()}>Looks right</WordButton>
    </>
  );
}

function Waive({ editor, postId, count }: { editor: PostEditor; postId: string; count: number }) {
  const say = useSay();
  const [reason, setReason] = useState<string | null>(null);

  async function waive(event: FormEvent) {
    event.preventDefault();
    const answer = await editor.change('POST', `/api/posts/${postId}/deeds`, (version) => ({
      deed: 'waive',
      version,
      reason,
    }));
    const problem = problemOf(answer);
    if (problem) say({ text: problem, wrong: true });
    else setReason(null);
  }

  if (reason === null)
    return (
      <WordButton onClick={() => setReason('')}>
        {count === 1 ? 'Waive a requirement…' : `Waive ${count} requirements…`}
      </WordButton>
    );
  return (
    <form
      className="waive"
      onKeyDown={(event) => {
        if (event.key !== 'Escape') return;
        event.stopPropagation();
        setReason(null);
      }}
      onSubmit={(event) => void waive(event)}
    >
      <input
        dir="auto"
        aria-label="Why it is waived"
        placeholder="Why? It is kept in the history"
        value={reason}
        autoFocus
        onChange={(event) => setReason(event.target.value)}
      />
      <Button type="submit" size="sm">
        Waive
      </Button>
    </form>
  );
}
