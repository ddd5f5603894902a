'use client';

import { useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import ProgressBar from 'react-bootstrap/ProgressBar';
import { counted, figure } from '@/core/words';
import { call, problemOf } from '@/ui/api';
import type { RunningImport } from '@/usecases/exchange/longImport';
import { FieldRefusal } from '@/ui/FieldRefusal';

/** How often it asks how the import stands, in milliseconds. */
const ASK_EVERY_MS = 500;

const DEEDS = { waiting: 'Waiting to import', checking: 'Checking', writing: 'Importing' } as const;
type Open = keyof typeof DEEDS;
const isOpen = (state: RunningImport['state']): state is Open => state in DEEDS;

/** How far a long import has come, with a way to stop it. It goes on when the page is left. */
export function ImportProgress({
  running: begun,
  onEnd,
}: {
  running: RunningImport;
  onEnd: (ended: RunningImport) => void;
}) {
  const [{ id, fileName, state, doneCount, rowCount, stopAsked }, setRunning] = useState(begun);
  const [problem, setProblem] = useState<string | null>(null);
  const ended = useRef(onEnd);
  useEffect(() => void (ended.current = onEnd));

  useEffect(() => {
    let isGone = false;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const ask = async () => {
      const answer = await call<RunningImport>('GET', `/api/calendar/import/${id}`);
      if (isGone) return;
      setProblem(problemOf(answer));
      if (answer.kind === 'done' && !isOpen(answer.value.state)) return ended.current(answer.value);
      if (answer.kind === 'done') setRunning(answer.value);
      timer = setTimeout(() => void ask(), ASK_EVERY_MS);
    };
    timer = setTimeout(() => void ask(), ASK_EVERY_MS);
    return () => {
      isGone = true;
      clearTimeout(timer);
    };
  }, [id]);

  async function stop() {
    const answer = await call<RunningImport>('DELETE', `/api/calendar/import/${id}`);
    setProblem(problemOf(answer));
    if (answer.kind === 'done') setRunning(answer.value);
  }

  const words = `${isOpen(state) ? DEEDS[state] : 'Importing'} “${fileName}”: ${figure(doneCount)} of ${counted(rowCount, 'row')}`;
  return (
    <div className="import-progress">
      <p>
        {words}{' '}
        <Button size="sm" variant="outline-secondary" disabled={stopAsked} onClick={() => void stop()}>
          {stopAsked ? 'Stopping…' : 'Stop'}
        </Button>
      </p>
      <ProgressBar now={doneCount} max={rowCount} aria-label={words} />
      <p className="soft">
        You can leave this page: it goes on. Stopped, what is in stays; the same file brings the rest.
      </p>
      <FieldRefusal>{problem}</FieldRefusal>
    </div>
  );
}
