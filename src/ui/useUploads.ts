'use client';

import { useCallback, useRef, useState } from 'react';
import { problemOf, type Answer } from './api';

/** What is taken in; recognised by content once it is here. */
export const MEDIA_ACCEPTED = 'image/jpeg,image/png,image/webp,image/gif,image/svg+xml,video/mp4,video/webm';

/** Refusals that the next file would meet as well. */
const ENDS_AT: readonly string[] = ['tooManyPictures', 'diskFull', 'notYours'];

/** How far adding several files is. */
interface UploadProgress {
  done: number;
  total: number;
  /** The file under way. */
  fileName: string;
}

/** What became of them. */
interface UploadOutcome {
  taken: number;
  /** Files that were refused, with the reasons. */
  refused: { fileName: string; problem: string }[];
  stopped: boolean;
}

/**
 * Takes files in, one after the other, with progress and a way to stop. When a refusal says that no further file can be
 * taken, the rest is not sent.
 */
export function useUploads(send: (file: File) => Promise<Answer<unknown>>): {
  progress: UploadProgress | null;
  take: (files: readonly File[]) => Promise<UploadOutcome>;
  stop: () => void;
} {
  const [progress, setProgress] = useState<UploadProgress | null>(null);
  const isStopped = useRef(false);

  const take = useCallback(
    async (files: readonly File[]): Promise<UploadOutcome> => {
      isStopped.current = false;
      const outcome: UploadOutcome = { taken: 0, refused: [], stopped: false };
      for (const [done, file] of files.entries()) {
        if (isStopped.current) {
          outcome.stopped = true;
          break;
        }
        setProgress({ done, total: files.length, fileName: file.name });
        const answer = await send(file);
        const problem = problemOf(answer);
        if (problem === null) outcome.taken++;
        else outcome.refused.push({ fileName: file.name, problem });
        if (answer.kind === 'unreachable' || (answer.kind === 'refused' && ENDS_AT.includes(answer.refusal.code)))
          break;
      }
      setProgress(null);
      return outcome;
    },
    [send],
  );

  return { progress, take, stop: useCallback(() => void (isStopped.current = true), []) };
}

/** What became of an upload, in a sentence; null when there is nothing to tell of. */
export function outcomeInWords({ taken, refused, stopped }: UploadOutcome, total: number): string | null {
  const [first] = refused;
  if (total === 1) return first?.problem ?? null;
  const rest = total - taken - refused.length;
  if (!first && !stopped) return null;
  return [
    `Added ${taken} of ${total} files.`,
    first && `${refused.length === 1 ? 'One was refused' : `${refused.length} were refused`}: ${first.problem}`,
    rest > 0 && `${rest} ${rest === 1 ? 'was' : 'were'} not sent.`,
  ]
    .filter(Boolean)
    .join(' ');
}
