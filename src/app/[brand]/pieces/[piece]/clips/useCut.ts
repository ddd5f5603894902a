'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import type { Told } from './cut.worker';
import type { CutOrder } from './cutting';

/** Cuts clips in a thread of the browser, says how far it is, and stops when asked. */
export function useCut() {
  const running = useRef<{ thread: Worker; resolve: (file: ArrayBuffer | null) => void }>(null);
  const [share, setShare] = useState<number | null>(null);
  const [problem, setProblem] = useState<string | null>(null);

  const end = useCallback((file: ArrayBuffer | null) => {
    const own = running.current;
    running.current = null;
    setShare(null);
    own?.thread.terminate();
    own?.resolve(file);
  }, []);
  const stop = useCallback(() => end(null), [end]);
  useEffect(() => stop, [stop]);

  /** @returns the file; null where it was not cut, or was stopped */
  const cut = useCallback(
    (order: CutOrder): Promise<ArrayBuffer | null> =>
      new Promise((resolve) => {
        stop();
        const thread = new Worker(new URL('./cut.worker.ts', import.meta.url), { type: 'module' });
        running.current = { thread, resolve };
        setShare(0);
        setProblem(null);
        const fail = (why: string) => {
          setProblem(why);
          end(null);
        };
        thread.onmessage = ({ data }: MessageEvent<Told>) => {
          if ('share' in data) setShare(data.share);
          else if ('file' in data) end(data.file);
          else fail(data.problem);
        };
        thread.onerror = () =>
          fail('The clip could not be cut in this browser. Try another, or save the recording as an MP4.');
        thread.postMessage(order);
      }),
    [stop, end],
  );

  return { cut, stop, share, problem };
}
