'use client';

import { useMay } from '@/ui/shell';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { EXTRACT_KINDS, EXTRACT_LABELS } from '@/core/extracts/extracts';
import type { PieceReading, ShownExtract } from '@/usecases/extracts/reading';
import { WordButton } from '@/ui/WordButton';
import { moment } from '@/core/extracts/moments';
import { runsOf, snapped, type NamedMark } from './marks';

type Stretch = { start: number; end: number };

/**
 * A piece's text to be read, with its extracts marked in it. Words are chosen by selecting them, or sentence by sentence with the
 * arrow keys, and kept as an extract.
 */
export function ReadingPane({
  reading,
  marks,
  find,
  shown,
  onShow,
  onPlay = null,
  onKeep,
}: {
  reading: PieceReading;
  marks: readonly NamedMark[];
  /** Words to be found in the text. */
  find: string;
  /** The key of the mark that is looked at. */
  shown: string | null;
  onShow: (key: string) => void;
  /** Plays the recording from a moment on; null where there is none. */
  onPlay?: ((inMs: number, outMs: number | null) => void) | null;
  onKeep: (stretch: Stretch, kind: ShownExtract['kind']) => void;
}) {
  const { text, blocks, sentences } = reading;
  const mayKeep = useMay()('changePieces');
  const pane = useRef<HTMLDivElement>(null);
  const keepBar = useRef<HTMLDivElement>(null);
  const [chosen, setChosen] = useState<Stretch | null>(null);
  const [cursor, setCursor] = useState<{ from: number; to: number } | null>(null);
  const found = useMemo(() => placesOf(text, find), [text, find]);

  useEffect(() => {
    const read = () => {
      const stretch = pane.current && selectedStretch(pane.current);
      if (stretch) {
        setChosen(stretch);
        setCursor(null);
      }
    };
    document.addEventListener('selectionchange', read);
    return () => document.removeEventListener('selectionchange', read);
  }, []);

  useEffect(() => {
    if (shown !== null)
      pane.current?.querySelector(`[data-mark~="${CSS.escape(shown)}"]`)?.scrollIntoView({ block: 'nearest' });
  }, [shown]);
  useEffect(() => {
    if (cursor) pane.current?.querySelector('.is-chosen')?.scrollIntoView({ block: 'nearest' });
  }, [cursor]);
  useEffect(() => {
    if (find !== '') pane.current?.querySelector('mark')?.scrollIntoView({ block: 'center' });
  }, [find]);

  function steer(event: KeyboardEvent) {
    if (event.target !== event.currentTarget) return;
    if (event.key === 'Escape') {
      setChosen(null);
      return setCursor(null);
    }
    if (event.key === 'Enter' && chosen) {
      event.preventDefault();
      return keepBar.current?.querySelector('button')?.focus();
    }
    const by = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    if (by === 0 || sentences.length === 0) return;
    event.preventDefault();
    const last = sentences.length - 1;
    const to = cursor ? Math.min(last, Math.max(0, cursor.to + by)) : 0;
    const from = cursor && event.shiftKey ? cursor.from : to;
    setCursor({ from, to });
    setChosen({ start: sentences[Math.min(from, to)]!.start, end: sentences[Math.max(from, to)]!.end });
  }

  const keep = (kind: ShownExtract['kind']) => {
    onKeep(chosen!, kind);
    setChosen(null);
    setCursor(null);
    document.getSelection()?.removeAllRanges();
    pane.current?.focus();
  };
  const chosenMark: NamedMark[] =
    chosen && cursor ? [{ key: 'chosen', kind: 'point', state: 'proposed', sign: '', ...chosen }] : [];
  let section = 0;

  return (
    <div className="reading">
      <div
        ref={pane}
        className={`reading-text${reading.isTimed ? ' is-timed' : ''}`}
        role="region"
        aria-label="The text"
        aria-describedby="reading-keys"
        tabIndex={0}
        onKeyDown={steer}
      >
        {blocks.map((block, at) => {
          const time = sentences.find(({ start, end }) => start >= block.start && end <= block.end)?.inMs;
          const words = runsOf(block.start, block.end, [...marks, ...chosenMark]).map((run) => (
            <RunOfText key={run.start} run={run} text={text} found={found} shown={shown} onShow={onShow} />
          ));
          if (block.kind === 'heading') {
            if ((block.level ?? 1) === 1) return <h2 key={at}>{words}</h2>;
            section++;
            return (
              <h3 key={at}>
                <span className="soft">{section} · </span>
                {words}
              </h3>
            );
          }
          return (
            <p key={at} className={`reading-${block.kind}`} lang={block.language}>
              {time !== undefined &&
                (onPlay ? (
                  <button
                    type="button"
                    className="reading-time figures"
                    aria-label={`Play from ${moment(time)}`}
                    onClick={() => onPlay(time, null)}
                  >
                    {moment(time)}
                  </button>
                ) : (
                  <span className="reading-time figures">{moment(time)}</span>
                ))}
              {block.speaker !== undefined && <span className="soft">{block.speaker}: </span>}
              {block.language !== undefined && (
                <span className="soft small-text" lang="en">
                  In {languageName(block.language)}, so nothing is drawn from it:{' '}
                </span>
              )}
              {block.kind === 'listItem' && (
                <span className="soft">{block.number === undefined ? '– ' : `${block.number}. `}</span>
              )}
              {words}
            </p>
          );
        })}
      </div>
      <p id="reading-keys" className="visually-hidden">
        Arrow keys choose a sentence, with Shift more of them; Enter keeps what is chosen as an extract.
      </p>
      {chosen && mayKeep && (
        <div ref={keepBar} className="keep-bar" role="toolbar" aria-label="Keep what is chosen">
          <span className="soft small-text">Keep as</span>
          {[...EXTRACT_KINDS, ...(reading.isTimed ? (['clip'] as const) : [])].map((kind) => (
            <WordButton key={kind} onMouseDown={(event) => event.preventDefault()} onClick={() => keep(kind)}>
              {EXTRACT_LABELS[kind]}
            </WordButton>
          ))}
          {!cursor && (
            <WordButton
              className="soft"
              onMouseDown={(event) => event.preventDefault()}
              onClick={() => {
                const whole = snapped(chosen, sentences);
                setChosen(whole);
                const places = sentences.flatMap(({ start, end }, place) =>
                  start >= whole.start && end <= whole.end ? [place] : [],
                );
                if (places.length > 0) setCursor({ from: places[0]!, to: places.at(-1)! });
                document.getSelection()?.removeAllRanges();
              }}
            >
              Whole sentences
            </WordButton>
          )}
        </div>
      )}
    </div>
  );
}

const LANGUAGE_NAMES = new Intl.DisplayNames('en', { type: 'language' });
const languageName = (tag: string): string => LANGUAGE_NAMES.of(tag) ?? tag;

function RunOfText({
  run,
  text,
  found,
  shown,
  onShow,
}: {
  run: ReturnType<typeof runsOf>[number];
  text: string;
  found: readonly Stretch[];
  shown: string | null;
  onShow: (key: string) => void;
}) {
  const words = withFound(text, run, found);
  if (run.marks.length === 0) return <span data-at={run.start}>{words}</span>;
  const real = run.marks.filter(({ key }) => key !== 'chosen');
  const classes = [
    'marked-run',
    ...run.marks.map(({ key, kind, state }) =>
      key === 'chosen' ? 'is-chosen' : `${kind === 'clip' ? 'is-clip' : 'is-extract'} is-${state}`,
    ),
    ...(real.some(({ key }) => key === shown) ? ['is-shown'] : []),
  ];
  return (
    // Reached by keyboard in the list beside the text; here a click is a short cut to it.
    <span
      className={classes.join(' ')}
      data-mark={real.map(({ key }) => key).join(' ')}
      onClick={() => real[0] && onShow(real[0].key)}
    >
      <span data-at={run.start}>{words}</span>
      {run.ending
        .filter(({ sign }) => sign !== '')
        .map(({ key, sign }) => (
          <sup key={key} className="figures mark-sign" aria-hidden="true">
            {sign}
          </sup>
        ))}
    </span>
  );
}

/** The words of a run, with what was looked for shown in them. */
function withFound(text: string, { start, end }: Stretch, found: readonly Stretch[]) {
  const own = found.filter((place) => place.start < end && place.end > start);
  if (own.length === 0) return text.slice(start, end);
  let at = start;
  const parts = own.flatMap((place) => {
    const [from, to] = [Math.max(start, place.start), Math.min(end, place.end)];
    const before = text.slice(at, from);
    at = to;
    return [before, <mark key={from}>{text.slice(from, to)}</mark>];
  });
  return [...parts, text.slice(at, end)];
}

/**
 * Where words stand in a text, whatever their case; nowhere for fewer than two letters.
 *
 * @internal
 */
export function placesOf(text: string, words: string): Stretch[] {
  const looked = words.trim().toLowerCase();
  if (looked.length < 2) return [];
  const inText = text.toLowerCase();
  // Letters that change their number with their case would shift what stands behind them.
  if (inText.length !== text.length) return placesExactly(text, words.trim());
  return placesExactly(inText, looked);
}

function placesExactly(text: string, words: string): Stretch[] {
  const places: Stretch[] = [];
  for (let at = text.indexOf(words); at >= 0; at = text.indexOf(words, at + words.length))
    places.push({ start: at, end: at + words.length });
  return places;
}

/** The stretch of the text that is selected in its pane; null where nothing is. */
function selectedStretch(pane: HTMLElement): Stretch | null {
  const selection = document.getSelection();
  if (!selection || selection.isCollapsed || selection.rangeCount === 0) return null;
  const range = selection.getRangeAt(0);
  if (!pane.contains(range.startContainer) || !pane.contains(range.endContainer)) return null;
  const start = offsetAt(pane, range.startContainer, range.startOffset);
  const end = offsetAt(pane, range.endContainer, range.endOffset);
  return start !== null && end !== null && end > start ? { start, end } : null;
}

/** The offset in the text of a place in the pane: of the run it stands in, or of the next one. */
function offsetAt(pane: HTMLElement, node: Node, offset: number): number | null {
  const before = document.createRange();
  before.setStart(pane, 0);
  before.setEnd(node, offset);
  let last: number | null = null;
  for (const run of pane.querySelectorAll<HTMLElement>('[data-at]')) {
    const from = Number(run.dataset.at);
    if (run.contains(node)) {
      const inside = document.createRange();
      inside.setStart(run, 0);
      inside.setEnd(node, offset);
      return from + inside.toString().length;
    }
    if (before.comparePoint(run, 0) > 0) return last ?? from;
    last = from + (run.textContent ?? '').length;
  }
  return last;
}
