'use client';

import { createContext, useCallback, useContext, useEffect, useRef, type ReactNode } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { v4 as newId } from 'uuid';
import type { Slip } from '@/core/calendar/slip';
import type { ChangeOutcome } from '@/core/calendar/changeOutcome';
import { call, problemOf } from './api';
import { changeMessage } from './changeMessage';
import { useSay } from './messages';
import { useShell } from './shell';
import { useReadAnew } from './useReadAnew';

/** What the server answers to a change of posts, and to undoing or redoing one. */
export interface ChangeAnswer {
  outcome: ChangeOutcome;
  /** The posts concerned as they are now. */
  slips: Slip[];
  /** Posts that are shown no longer. */
  gone: string[];
}

type Hear = (answer: ChangeAnswer) => void;
interface Undo {
  /** Undoes a change, or with null what this person did last here. */
  undo: (changeId: string | null) => void;
  /** Does again what this person undid last. */
  redo: () => void;
  /** Tells of each undoing and redoing. @returns what ends that */
  hear: (listener: Hear) => () => void;
}

const Context = createContext<Undo | null>(null);

/** Undoes and redoes what this person did for the brand that is open, by keys on every page. */
export function UndoProvider({ children }: { children: ReactNode }) {
  const { brand } = useShell();
  const say = useSay();
  const readAnew = useReadAnew();
  const listeners = useRef(new Set<Hear>());

  const go = useCallback(
    async function go(direction: 'undo' | 'redo', changeId: string | null): Promise<void> {
      const answer = await call<ChangeAnswer>(
        'POST',
        '/api/calendar/undo',
        { brandId: brand.id, changeId, direction },
        // Pressed twice, it undoes two changes.
        { key: newId() },
      );
      const problem = problemOf(answer);
      // That nothing is left is no failure.
      const isNothing = answer.kind === 'refused' && /^nothingTo(Undo|Redo)$/.test(answer.refusal.code);
      if (isNothing) return say({ text: problem! });
      if (problem)
        return say({ text: `${direction === 'undo' ? 'Not undone' : 'Not redone'}. ${problem}`, wrong: true });
      if (answer.kind !== 'done') return;
      for (const hear of listeners.current) hear(answer.value);
      const { changeId: done, refused } = answer.value.outcome;
      const deed =
        direction === 'undo'
          ? { label: 'Redo', run: () => void go('redo', null) }
          : { label: 'Undo', run: () => void go('undo', done) };
      say({ text: changeMessage(answer.value.outcome), wrong: refused.length > 0, ...(done !== null && { deed }) });
      readAnew();
    },
    [brand.id, say, readAnew],
  );
  const undo = useCallback((changeId: string | null) => void go('undo', changeId), [go]);
  const redo = useCallback(() => void go('redo', null), [go]);
  const hear = useCallback((listener: Hear) => {
    listeners.current.add(listener);
    return () => void listeners.current.delete(listener);
  }, []);
  useHotkeys('mod+z', () => undo(null), { preventDefault: true });
  useHotkeys(['mod+shift+z', 'mod+y'], redo, { preventDefault: true });
  return <Context value={{ undo, redo, hear }}>{children}</Context>;
}

/** Undoing and redoing, and hearing of it. @param onDone told of each, wherever it was asked for */
export function useUndo(onDone?: Hear): Omit<Undo, 'hear'> {
  const { undo, redo, hear } = useContext(Context)!;
  useEffect(() => (onDone ? hear(onDone) : undefined), [hear, onDone]);
  return { undo, redo };
}
