import { useCallback, useRef } from 'react';

/**
 * Runs what it is given one after another, in the order given: each sees what the one before it left, so that quick changes
 * of one thing never meet as if two people had made them. What fails does not hold up the next.
 */
export function useInTurn(): <T>(work: () => Promise<T>) => Promise<T> {
  const last = useRef<Promise<unknown>>(Promise.resolve());
  return useCallback(<T>(work: () => Promise<T>): Promise<T> => {
    const next = last.current.then(work, work);
    last.current = next;
    return next;
  }, []);
}
