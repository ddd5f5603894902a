'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import type { Told } from './cut.worker';
import type { CutOrder } from './cutting';

/** Cuts clips in a thread of the browser, says how far it is, and stops when asked. */
export function useCut() {
  const thread = useRef<Worker>(null);
  const [share, setShare] = useState<number | null>(null);
  const [problem, setProblem] = useState<string | null>(null);

  const stop = useCallback(() => {
    thread.current?.terminate();
    thread.current = null;
    setShare(null);
  }, []);
  useEffect(() => stop, [stop]);

  /** @returns the file; null where it was not cut, or was stopped */
  const cut = useCallback(
    (order: CutOrder): Promise<ArrayBuffer | null> =>
      new Promise((resolve) => {
        stop();
        const own = new Worker(new URL('./cut.worker.ts', import.meta.url), { type: 'module' });
        thread.current = own;
        setShare(0);
        setProblem(null);
        const end = (file: ArrayBuffer | null, why: string | null) => {
          if (thread.current !== own) return;
          stop();
          setProblem(why);
          resolve(file);
        };
        own.onmessage = ({ data }: MessageEvent<Told>) => {
          if ('share' in data) setShare(data.share);
          else if ('file' in data) end(data.file, null);
          else end(null, data.problem);
        };
        own.onerror = () =>
          end(null, 'The clip could not be cut in this browser. Try another, or save the recording as an MP4.');
        own.postMessage(order);
      }),
    [stop],
  );

  return { cut, stop, share, problem };
}
