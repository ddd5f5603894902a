'use client';

import { useCallback, useRef, useState } from 'react';

/**
 * Which posts are picked for a change of many: by click with Ctrl or Cmd, a range with Shift, a box drawn with the
 * pointer, or all at once.
 */
export function usePicks() {
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  const last = useRef<string | null>(null);

  /** Handles a click on a slip. @returns whether it was a pick rather than a plain press */
  const pick = useCallback((id: string, event: { ctrlKey: boolean; metaKey: boolean; shiftKey: boolean }): boolean => {
    if (event.shiftKey && last.current) {
      const range = between(last.current, id);
      setPicked((all) => new Set([...all, ...range]));
      return true;
    }
    if (!event.ctrlKey && !event.metaKey && !event.shiftKey) return false;
    last.current = id;
    setPicked((all) => {
      const next = new Set(all);
      if (!next.delete(id)) next.add(id);
      return next;
    });
    return true;
  }, []);

  const add = useCallback((ids: readonly string[]) => setPicked((all) => new Set([...all, ...ids])), []);
  const clear = useCallback(() => setPicked(new Set()), []);
  return { picked, pick, add, clear };
}

/** The posts from one to another, both included, in the order they stand on the screen. */
function between(from: string, to: string): string[] {
  const ids = [...document.querySelectorAll<HTMLElement>('.arrangement [data-post]')].map(
    ({ dataset }) => dataset.post!,
  );
  const [a, b] = [ids.indexOf(from), ids.indexOf(to)];
  return a < 0 || b < 0 ? [to] : ids.slice(Math.min(a, b), Math.max(a, b) + 1);
}
