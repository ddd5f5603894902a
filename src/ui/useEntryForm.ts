'use client';

import { useState } from 'react';
import { call, problemOf } from './api';

/** A form that lets somebody in: sends what was typed, and says what is wrong where it belongs. */
export function useEntryForm<F extends string>(fields: readonly F[]) {
  const [problem, setProblem] = useState<{ field: string | undefined; message: string } | null>(null);
  const [isBusy, setBusy] = useState(false);
  const isAt = (field: string | undefined): field is F => (fields as readonly (string | undefined)[]).includes(field);

  /** Sends it, and goes on where it was taken; resolves with whether it was. */
  async function send(path: string, body: object, onDone: () => void): Promise<boolean> {
    setBusy(true);
    const answer = await call('POST', path, body);
    const isDone = answer.kind === 'done';
    if (isDone) onDone();
    else setBusy(false);
    const message = problemOf(answer);
    setProblem(
      message === null ? null : { field: answer.kind === 'refused' ? answer.refusal.field : undefined, message },
    );
    return isDone;
  }
  return {
    send,
    isBusy,
    again: () => setBusy(false),
    /** What is wrong with that field. */
    at: (field: F) => problem?.field === field && problem.message,
    /** What is wrong with none of the fields. */
    elsewhere: problem && !isAt(problem.field) ? problem.message : null,
  };
}
