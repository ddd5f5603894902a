'use client';

import { useRef, useState } from 'react';
import { ownKey } from './personOnScreen';

const keyOf = (place: string): string => ownKey(`kept.${place}`);

function readKept<T extends object>(place: string): Partial<T> | null {
  const kept = sessionStorage.getItem(keyOf(place));
  return kept === null ? null : (JSON.parse(kept) as Partial<T>);
}

/** Keeps what is typed; a browser that has no room for it keeps nothing of it. */
function keep(place: string, value: object): void {
  try {
    sessionStorage.setItem(keyOf(place), JSON.stringify(value));
  } catch (error) {
    if (!(error instanceof DOMException)) throw error;
    sessionStorage.removeItem(keyOf(place));
  }
}

/**
 * What is typed into a dialog. It stays in this tab over Escape, a reload and a failure, until the dialog is done or
 * cancelled: `forget`.
 *
 * @param place names the dialog and what it is about
 * @param initial what the fields begin as
 */
export function useKept<T extends object>(
  place: string,
  initial: T,
): {
  typed: T;
  /** Takes what a person typed or chose, and keeps it. */
  set: (part: Partial<T>) => void;
  /** Fills in what nobody typed, without keeping it. */
  fill: (part: Partial<T>) => void;
  forget: () => void;
  /** Whether it opened with what was typed before. */
  wasKept: boolean;
} {
  const [kept] = useState(() => readKept<T>(place));
  const [typed, setTyped] = useState<T>({ ...initial, ...kept });
  const present = useRef(typed);
  const fill = (part: Partial<T>) => {
    present.current = { ...present.current, ...part };
    setTyped(present.current);
  };
  const set = (part: Partial<T>) => {
    fill(part);
    keep(place, present.current);
  };
  const forget = () => sessionStorage.removeItem(keyOf(place));
  return { typed, set, fill, forget, wasKept: kept !== null };
}
