'use client';

import { useEffect, useRef } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { VIEWS, type ViewName } from './view';

/** What the keys of the calendar do. */
interface CalendarKeys {
  /** `[` and `]`: so many periods on, or back where it is negative. */
  onTurn: (steps: number) => void;
  /** `0` */
  onToday: () => void;
  /** `1` to `5` */
  onArrangement: (name: ViewName) => void;
  /** `n` */
  onNew: () => void;
  /** `m` */
  onMove: () => void;
  /** `x` with the slip that has the focus, and whether the range to it is meant (Shift). */
  onPick: (id: string, isRange: boolean) => void;
  /** Null where the key is somebody else's. */
  onEscape: (() => void) | null;
}

/** Listens for the keys of the calendar. */
export function useCalendarKeys(keys: CalendarKeys): void {
  useHotkeys('bracketleft', () => keys.onTurn(-1));
  useHotkeys('bracketright', () => keys.onTurn(1));
  useHotkeys('0', keys.onToday);
  useHotkeys(['1', '2', '3', '4', '5'], ({ key }) => keys.onArrangement(VIEWS[Number(key) - 1]!.name));
  useHotkeys('n', keys.onNew, { preventDefault: true });
  useHotkeys('m', keys.onMove);
  useHotkeys(['x', 'shift+x'], ({ shiftKey }) => {
    const slip = document.activeElement?.closest<HTMLElement>('.arrangement [data-post]');
    if (slip) keys.onPick(slip.dataset.post!, shiftKey);
  });
  useHotkeys('s', goToSheetAndBack, { preventDefault: true });
  // What lies above the sheet, or is in the hand on it, takes the key for itself; asked before that closes.
  const isCovered = useRef(false);
  useEffect(() => {
    const look = () => {
      isCovered.current = document.querySelector('.modal, .dropdown-menu.show, .part.is-lifted') !== null;
    };
    document.addEventListener('keydown', look, { capture: true });
    return () => document.removeEventListener('keydown', look, { capture: true });
  }, []);
  useHotkeys('escape', () => keys.onEscape?.(), {
    enabled: keys.onEscape !== null,
    ignoreEventWhen: () => isCovered.current,
  });
}

/** Moves the focus into the open post, or from there back to its slip. */
function goToSheetAndBack(): void {
  const sheet = document.querySelector<HTMLElement>('.sheet');
  if (!sheet) return;
  const isInside = sheet.contains(document.activeElement);
  const slip = document.querySelector<HTMLElement>(sheet.dataset.focusBack ?? '.arrangement');
  (isInside ? slip : sheet)?.focus();
}
