'use client';

import { useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import { EXTRACT_LABELS } from '@/core/extracts/extracts';
import type { PieceReading, ShownExtract } from '@/usecases/extracts/reading';
import Link from 'next/link';
import { CallSign } from '@/ui/CallSign';
import { useMay, useShell } from '@/ui/shell';
import { WordButton } from '@/ui/WordButton';
import { lengthWords } from '@/core/captions/spoken';
import { moment } from '@/core/extracts/moments';
import { moveEdge, nameMarks, wordsOf, type NamedMark } from './marks';
import type { useReading } from './useReading';

/** A row of the list: what was kept, or what is proposed. */
interface ExtractRow {
  key: string;
  sign: string;
  kind: ShownExtract['kind'];
  text: string;
  start: number;
  end: number;
  inMs?: number;
  outMs?: number;
  reason: string;
  /** Null for one that is only proposed. */
  kept: ShownExtract | null;
}

/** The rows of extracts, or of clips: those that are kept first in the order of the text, then what is proposed. */
export function rowsOf(reading: PieceReading, marks: readonly NamedMark[], clips: boolean): ExtractRow[] {
  const signs = new Map(marks.map(({ key, sign }) => [key, sign]));
  const kept = reading.kept
    .filter(({ kind, state }) => state === 'accepted' && (kind === 'clip') === clips)
    .sort((one, other) => one.start - other.start)
    .map((one): ExtractRow => ({ ...one, key: one.id, sign: signs.get(one.id) ?? '', kept: one }));
  const proposals = clips
    ? reading.proposedClips.map((clip) => ({ ...clip, kind: 'clip' as const, reason: 'the best of this stretch' }))
    : reading.proposed;
  return [
    ...kept,
    ...proposals.map((one): ExtractRow => {
      const key = keyOf(one);
      return { ...one, key, sign: signs.get(key) ?? '', kept: null };
    }),
  ];
}

/** What a row is, and for a proposal why; the kind is not said twice. */
function factsOf({ kind, reason, kept }: ExtractRow): string {
  const label = EXTRACT_LABELS[kind];
  if (kept || reason === '') return label;
  return reason.includes(label) ? reason : `${label}: ${reason}`;
}

/** The key of a proposal, which has no identifier. */
const keyOf = ({ kind, start, end }: { kind: string; start: number; end: number }): string =>
  `${kind === 'clip' ? 'clip' : 'extract'}-${start}-${end}`;

/** What is marked in a text: what was accepted of it and what is proposed, each with its short name. */
export const marksOf = ({ kept, proposed, proposedClips }: PieceReading): NamedMark[] =>
  nameMarks(
    [
      ...kept.flatMap((one) => (one.state === 'accepted' ? [{ ...one, key: one.id, state: 'accepted' as const }] : [])),
      ...[...proposed, ...proposedClips.map((clip) => ({ ...clip, kind: 'clip' as const }))].map((one) => ({
        ...one,
        key: keyOf(one),
        state: 'proposed' as const,
      })),
    ],
    kept,
  );

/**
 * Extracts in rows, gone through by keyboard: arrows move, Enter accepts, Delete rejects what is proposed and removes what is kept.
 */
export function ExtractList({
  label,
  rows,
  sentences,
  text,
  deeds,
  shown,
  onShow,
  onPlay = null,
  empty,
  beside,
}: {
  label: string;
  rows: readonly ExtractRow[];
  sentences: PieceReading['sentences'];
  /** The whole text. */
  text: string;
  deeds: Pick<ReturnType<typeof useReading>, 'judge' | 'change' | 'remove'>;
  shown: string | null;
  onShow: (key: string) => void;
  /** Plays a stretch of the recording; null where there is none. */
  onPlay?: ((inMs: number, outMs: number) => void) | null;
  empty: ReactNode;
  /** What stands behind the deeds of a row that is kept. */
  beside?: (row: ExtractRow) => ReactNode;
}) {
  const mayJudge = useMay()('changePieces');
  const list = useRef<HTMLUListElement>(null);
  const [at, setAt] = useState(0);
  const focus = (place: number) => {
    const to = Math.max(0, Math.min(rows.length - 1, place));
    setAt(to);
    list.current?.querySelectorAll<HTMLElement>(':scope > li')[to]?.focus();
  };
  /** The row that takes the place of one that goes has the focus. */
  const then = (place: number) => requestAnimationFrame(() => focus(place));

  const accept = (row: ExtractRow, place: number) => {
    if (row.kept) return;
    void deeds.judge(row, 'accepted');
    then(place + 1);
  };
  const reject = (row: ExtractRow, place: number) => {
    if (row.kept) void deeds.remove(row.kept);
    else void deeds.judge(row, 'rejected');
    then(place);
  };
  const keys = (event: KeyboardEvent, row: ExtractRow, place: number) => {
    if (event.target !== event.currentTarget) return;
    const judging = {
      Enter: () => accept(row, place),
      Delete: () => reject(row, place),
      Backspace: () => reject(row, place),
    };
    const going = { ArrowDown: () => focus(place + 1), ArrowUp: () => focus(place - 1) };
    const deed = { ...going, ...(mayJudge && judging) }[event.key];
    if (!deed) return;
    event.preventDefault();
    deed();
  };
  const edge = (row: ExtractRow, which: 'start' | 'end', by: -1 | 1, isByWord: boolean) => {
    const { start, end } = moveEdge(row, which, by, isByWord ? wordsOf(text) : sentences);
    if (row.kept) void deeds.change(row.kept, { start, end });
  };

  if (rows.length === 0) return <p className="soft small-text">{empty}</p>;
  return (
    <ul ref={list} className="extract-list" aria-label={label}>
      {rows.map((row, place) => (
        <li
          key={row.key}
          className={`${row.kept ? 'is-accepted' : 'is-proposed'}${row.key === shown ? ' is-shown' : ''}`}
          tabIndex={place === Math.min(at, rows.length - 1) ? 0 : -1}
          aria-label={`${row.sign}, ${EXTRACT_LABELS[row.kind]}, ${row.kept ? 'accepted' : 'proposed'}: ${row.text}`}
          onFocus={(event) => {
            if (event.target !== event.currentTarget) return;
            setAt(place);
            onShow(row.key);
          }}
          onKeyDown={(event) => keys(event, row, place)}
        >
          <span className={`extract-sign figures${row.kind === 'clip' ? ' is-clip' : ''}`}>{row.sign}</span>
          <div>
            <div className="extract-text">{row.text.replace(/\s+/g, ' ')}</div>
            <div className="extract-facts soft small-text">
              <span>
                {factsOf(row)}
                {row.inMs !== undefined && row.outMs !== undefined && (
                  <span className="figures">
                    {' '}
                    {moment(row.inMs)}
                    {row.kind === 'clip' &&
                      `–${moment(row.outMs)} · ${lengthWords(Math.round((row.outMs - row.inMs) / 1_000))}`}
                  </span>
                )}
                <UsedIn uses={row.kept?.usedIn ?? []} />
              </span>
              <span className="extract-deeds">
                {onPlay && row.inMs !== undefined && row.outMs !== undefined && (
                  <WordButton aria-label={`Play ${row.sign}`} onClick={() => onPlay(row.inMs!, row.outMs!)}>
                    Play
                  </WordButton>
                )}
                {!mayJudge ? null : row.kept ? (
                  <>
                    <EdgeButtons row={row} onEdge={edge} />
                    {beside?.(row)}
                    <WordButton aria-label={`Remove ${row.sign}`} onClick={() => reject(row, place)}>
                      Remove
                    </WordButton>
                  </>
                ) : (
                  <>
                    <WordButton aria-label={`Accept ${row.sign}`} onClick={() => accept(row, place)}>
                      Accept
                    </WordButton>
                    <WordButton className="soft" aria-label={`Reject ${row.sign}`} onClick={() => reject(row, place)}>
                      Reject
                    </WordButton>
                  </>
                )}
              </span>
            </div>
          </div>
        </li>
      ))}
    </ul>
  );
}

/** The channels that have a post made from an extract, each leading to it. */
function UsedIn({ uses }: { uses: NonNullable<ShownExtract['usedIn']> }) {
  const { brand, channels } = useShell();
  if (uses.length === 0) return null;
  return (
    <>
      {' · used on'}
      {uses.map(({ postId, channelId }) => {
        const channel = channels.find(({ id }) => id === channelId);
        return (
          channel && (
            <Link key={postId} href={`/${brand.slug}/calendar?post=${postId}`} prefetch={false}>
              {' '}
              <CallSign sign={channel.callSign} color={channel.color} name={channel.name} />
            </Link>
          )
        );
      })}
    </>
  );
}

function EdgeButtons({
  row,
  onEdge,
}: {
  row: ExtractRow;
  /** By a sentence, or with Shift by a word. */
  onEdge: (row: ExtractRow, edge: 'start' | 'end', by: -1 | 1, isByWord: boolean) => void;
}) {
  return (
    <>
      {(['start', 'end'] as const).map((which) => (
        <span key={which} role="group" aria-label={`${which === 'start' ? 'Beginning' : 'End'} of ${row.sign}`}>
          {which}{' '}
          <WordButton
            aria-label={`${which === 'start' ? 'Begin' : 'End'} a sentence earlier`}
            title="a sentence earlier; with Shift a word"
            onClick={(event) => onEdge(row, which, -1, event.shiftKey)}
          >
            ‹
          </WordButton>{' '}
          <WordButton
            aria-label={`${which === 'start' ? 'Begin' : 'End'} a sentence later`}
            title="a sentence later; with Shift a word"
            onClick={(event) => onEdge(row, which, 1, event.shiftKey)}
          >
            ›
          </WordButton>
        </span>
      ))}
    </>
  );
}
