'use client';

import Link from 'next/link';
import { useCallback, useMemo, useRef, useState } from 'react';
import type { PostSheet } from '@/core/posts/sheet';
import type { Name } from '@/core/shelf/shelf';
import { CallSign } from '@/ui/CallSign';
import { useShell } from '@/ui/shell';
import { SaidOfPiece } from '../../../sheet/PublishedOfPiece';
import { FindAndReplace } from './FindAndReplace';
import { SiblingColumn } from './SiblingColumn';
import type { OpenSibling } from './openSibling';
import { WordButton } from '@/ui/WordButton';

/** A piece's posts side by side, each with its own words: carried from one to others, compared, found and replaced. */
export function SiblingsScreen({
  piece,
  siblings,
  names,
}: {
  piece: { id: string; title: string };
  siblings: readonly PostSheet[];
  names: readonly Name[];
}) {
  const { brand, channels } = useShell();
  const [hidden, setHidden] = useState<ReadonlySet<string>>(new Set());
  const [referenceId, setReferenceId] = useState<string | null>(null);
  const [isFinding, setFinding] = useState(false);
  const [isSaidShown, setSaidShown] = useState(false);
  const [referenceText, setReferenceText] = useState('');
  const open = useRef(new Map<string, OpenSibling>());

  const register = useCallback((id: string, sibling: OpenSibling | null) => {
    if (sibling) open.current.set(id, sibling);
    else open.current.delete(id);
  }, []);
  const shown = useMemo(() => siblings.filter(({ id }) => !hidden.has(id)), [siblings, hidden]);
  const list = useCallback(() => shown.flatMap(({ id }) => open.current.get(id) ?? []), [shown]);

  function compareWith(id: string) {
    setReferenceId(id === referenceId ? null : id);
    setReferenceText(open.current.get(id)?.editor.texts?.caption ?? '');
  }
  function toggle(id: string) {
    const next = new Set(hidden);
    if (!next.delete(id)) next.add(id);
    setHidden(next);
  }

  return (
    <div className="words-page">
      <header className="place-head">
        <h1 dir="auto">{piece.title}</h1>
        <span className="soft">{siblings.length === 1 ? '1 post to write' : `${siblings.length} posts to write`}</span>
        <Link className="word push" href={`/${brand.slug}/pieces/${piece.id}`}>
          Back to the piece
        </Link>
      </header>
      <div className="sibling-bar">
        <div className="sibling-tabs" role="group" aria-label="Shown">
          {siblings.map((sheet) => {
            const channel = channels.find(({ id }) => id === sheet.channelId);
            return (
              channel && (
                <button
                  key={sheet.id}
                  type="button"
                  aria-pressed={!hidden.has(sheet.id)}
                  aria-label={`${channel.name}: ${sheet.title}`}
                  title={sheet.title}
                  onClick={() => toggle(sheet.id)}
                >
                  <CallSign sign={channel.callSign} color={channel.color} />
                </button>
              )
            );
          })}
        </div>
        <WordButton aria-expanded={isFinding} onClick={() => setFinding(!isFinding)}>
          Find and replace
        </WordButton>
        <WordButton aria-expanded={isSaidShown} onClick={() => setSaidShown(!isSaidShown)}>
          Published of this piece
        </WordButton>
        {isFinding && <FindAndReplace list={list} />}
      </div>
      {siblings.length === 0 && (
        <div className="place-body">
          <p className="soft">
            Nothing of this piece is left to write.{' '}
            <Link href={`/${brand.slug}/pieces/${piece.id}`}>Plan it on a date</Link> for a channel, and its post
            appears here.
          </p>
        </div>
      )}
      <div className="siblings">
        {isSaidShown && (
          <section className="sibling is-reference" aria-label="Published of this piece">
            <h2>Published</h2>
            <SaidOfPiece pieceId={piece.id} />
          </section>
        )}
        {shown.map((sheet) => (
          <SiblingColumn
            key={sheet.id}
            initial={sheet}
            siblings={shown}
            names={names}
            list={list}
            register={register}
            isReference={sheet.id === referenceId}
            reference={referenceId === null || sheet.id === referenceId ? null : referenceText}
            onCompare={() => compareWith(sheet.id)}
            onReferenceTyped={setReferenceText}
          />
        ))}
      </div>
    </div>
  );
}
