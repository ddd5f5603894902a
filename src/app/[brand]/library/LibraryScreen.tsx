'use client';

import { useRouter } from 'next/navigation';
import { useCallback, useState } from 'react';
import type { LibraryFile } from '@/usecases/media/reading';
import { call } from '@/ui/api';
import { useSay } from '@/ui/messages';
import { useMay, useShell } from '@/ui/shell';
import { MEDIA_ACCEPTED, outcomeInWords, useUploads } from '@/ui/useUploads';
import { LibraryGrid } from './LibraryGrid';
import { LibraryNav } from './LibraryNav';
import { useUndo } from '@/ui/undo';
import { WordButton } from '@/ui/WordButton';

/** The library: files are dropped on it by the hundred, and those it has already are told of. */
export function LibraryScreen({ first }: { first: readonly LibraryFile[] }) {
  const { brand } = useShell();
  const router = useRouter();
  const say = useSay();
  const [round, setRound] = useState(0);
  const [known, setKnown] = useState<readonly string[]>([]);
  useUndo(useCallback(() => setRound((before) => before + 1), []));
  const send = useCallback(
    async (file: File) => {
      const answer = await call<{ isNew: boolean }>('POST', `/api/library?brand=${brand.id}`, file);
      if (answer.kind === 'done' && !answer.value.isNew) setKnown((names) => [...names, file.name]);
      return answer;
    },
    [brand.id],
  );
  const { progress, take, stop } = useUploads(send);
  const may = useMay();

  async function add(files: FileList | null) {
    if (!files || files.length === 0 || progress || !may('keepFiles')) return;
    setKnown([]);
    const chosen = [...files];
    const words = outcomeInWords(await take(chosen), chosen.length);
    say(
      words
        ? { text: words, wrong: true }
        : { text: `Added ${chosen.length === 1 ? 'one file' : `${chosen.length} files`}.` },
    );
    setRound((number) => number + 1);
    router.refresh();
  }

  return (
    <div
      className="files-page"
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault();
        void add(event.dataTransfer.files);
      }}
    >
      <header className="place-head">
        <h1>Library</h1>
        <span className="soft">pictures and videos, each once{may('keepFiles') && '; drop files anywhere here'}</span>
        {progress ? (
          <span className="push" role="status">
            <b className="figures">
              {progress.done + 1} of {progress.total}
            </b>{' '}
            {progress.fileName} <WordButton onClick={stop}>Stop</WordButton>
          </span>
        ) : (
          may('keepFiles') && (
            <label className="btn btn-outline-primary push">
              Add files…
              <input
                type="file"
                multiple
                className="visually-hidden"
                accept={MEDIA_ACCEPTED}
                onChange={(event) => {
                  void add(event.target.files);
                  event.target.value = '';
                }}
              />
            </label>
          )
        )}
      </header>
      <LibraryNav />
      <div className="place-body">
        {known.length > 0 && (
          <p className="notice" role="status">
            {known.length === 1 ? `${known[0]} was here already` : `${known.length} were here already`}, by content,
            whatever their names are.
          </p>
        )}
        <LibraryGrid key={round} first={round === 0 ? first : null} />
      </div>
    </div>
  );
}
