'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import type { PieceReading, ShownExtract } from '@/usecases/extracts/reading';
import { call, problemOf } from '@/ui/api';
import { useSay } from '@/ui/messages';
import { callAsItGoes } from '@/ui/progress';
import { useUndo } from '@/ui/undo';
import { useInTurn } from '@/ui/useInTurn';

type Stretch = { start: number; end: number };

/**
 * A piece's text with its extracts. What is proposed comes a moment after the text, worked out beside it; a verdict shows at once
 * and is saved in turn, and what was not saved is said.
 *
 * @param source the piece's text as it is saved: when it is another, it is read anew
 */
export function useReading(pieceId: string, initial: PieceReading, source: string) {
  const at = `/api/pieces/${pieceId}/extracts`;
  const say = useSay();
  const [reading, setReading] = useState(initial);
  const [share, setShare] = useState<number | null>(initial.text === '' ? null : 0);
  const looking = useRef<AbortController>(null);
  const inTurn = useInTurn();
  const [unsaved, setUnsaved] = useState(0);

  const stop = useCallback(() => {
    looking.current?.abort();
    looking.current = null;
    setShare(null);
  }, []);

  /** Reads it anew; what is being read is called off, so that the last one asked for is what shows. */
  const load = useCallback(async () => {
    looking.current?.abort();
    const own = new AbortController();
    looking.current = own;
    setShare(0);
    const answer = await callAsItGoes<PieceReading>(at, { onShare: setShare, signal: own.signal });
    if (own.signal.aborted) return;
    looking.current = null;
    setShare(null);
    const problem = problemOf(answer);
    if (problem) say({ text: problem, wrong: true });
    if (answer.kind === 'done') setReading(answer.value);
  }, [at, say]);

  useEffect(() => {
    void load();
    return () => looking.current?.abort();
  }, [load, source, initial.isTimed]);

  useUndo(useCallback(() => void load(), [load]));

  /** Saves a change in turn; where it was not to be, what stands is read again. */
  const saved = <T>(send: () => ReturnType<typeof call<T>>, onDone: (value: T) => void) => {
    setUnsaved((count) => count + 1);
    return inTurn(async () => {
      const answer = await send();
      const problem = problemOf(answer);
      if (answer.kind === 'done') return onDone(answer.value);
      say({ text: problem!, wrong: true });
      await load();
    }).finally(() => setUnsaved((count) => count - 1));
  };

  const textOf = ({ start, end }: Stretch) => reading.text.slice(start, end);

  /** Accepts or rejects a stretch of the text. */
  const judge = (
    one: Stretch & { kind: ShownExtract['kind']; reason: string; sign?: string; inMs?: number; outMs?: number },
    state: ShownExtract['state'],
  ) => {
    const interim: ShownExtract = { ...one, id: `new-${one.kind}-${one.start}-${one.end}`, state, text: textOf(one) };
    const isOther = ({ start, end, kind }: Stretch & { kind?: string }) =>
      start !== one.start || end !== one.end || (kind === 'clip') !== (one.kind === 'clip');
    setReading((now) => ({
      ...now,
      kept: [...now.kept.filter(isOther), interim],
      proposed: one.kind === 'clip' ? now.proposed : now.proposed.filter(isOther),
      proposedClips:
        one.kind === 'clip'
          ? now.proposedClips.filter((clip) => clip.start !== one.start || clip.end !== one.end)
          : now.proposedClips,
    }));
    const { kind, start, end, reason, sign } = one;
    return saved(
      () => call<ShownExtract>('POST', at, { kind, start, end, reason, state, ...(sign && { sign }) }),
      ({ id, start: from, end: to, sign: named }) =>
        setReading((now) => ({
          ...now,
          kept: now.kept.map((kept) =>
            kept.id === interim.id ? { ...kept, id, start: from, end: to, ...(named && { sign: named }) } : kept,
          ),
        })),
    );
  };

  /** Changes one that is kept: its edges, or what was said of it. */
  const change = (extract: ShownExtract, part: Partial<Pick<ShownExtract, 'state' | 'start' | 'end'>>) => {
    const next = { ...extract, ...part };
    setReading((now) => ({
      ...now,
      kept: now.kept.map((kept) => (kept.id === extract.id ? { ...next, text: textOf(next) } : kept)),
    }));
    return saved(
      () => call('PATCH', `/api/extracts/${extract.id}`, part),
      () => ('start' in part || 'end' in part ? void load() : undefined),
    );
  };

  /** Takes one away that is kept, so that it may be proposed again. */
  const remove = (extract: ShownExtract) => {
    setReading((now) => ({ ...now, kept: now.kept.filter(({ id }) => id !== extract.id) }));
    return saved(
      () => call('DELETE', `/api/extracts/${extract.id}`),
      () => void load(),
    );
  };

  return {
    reading,
    isLooking: share !== null,
    isSaving: unsaved > 0,
    share: share ?? 0,
    load,
    stop,
    judge,
    change,
    remove,
  };
}
