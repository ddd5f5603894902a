'use client';

import { useCallback, useEffect, useRef, useState, type Dispatch, type SetStateAction } from 'react';
import { useUndo } from './undo';

/** How long after undoing something the page is expected to be read anew, in milliseconds. */
const READ_WITHIN_MS = 10_000;

/** Calls back with what the server has where that is another thing after this person undid or redid something. */
export function useAfterUndo<T>(fromServer: T, onOther: (now: T) => void): void {
  const awaitedUntil = useRef(0);
  const text = JSON.stringify(fromServer);
  const known = useRef(text);
  useUndo(useCallback(() => void (awaitedUntil.current = performance.now() + READ_WITHIN_MS), []));
  useEffect(() => {
    if (known.current === text) return;
    known.current = text;
    if (performance.now() < awaitedUntil.current) onOther(fromServer);
  });
}

/**
 * State that begins as the server has it and is changed here. Once this person undid or redid something it is the server's again, as
 * soon as the page was read anew.
 */
export function useFromServer<T>(fromServer: T): [T, Dispatch<SetStateAction<T>>] {
  const [value, setValue] = useState(fromServer);
  useAfterUndo(fromServer, setValue);
  return [value, setValue];
}
