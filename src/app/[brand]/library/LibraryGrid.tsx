'use client';

import Link from 'next/link';
import { useCallback, useEffect, useState } from 'react';
import { lengthWords } from '@/core/captions/spoken';
import { LIBRARY_PAGE } from '@/core/media/libraryPage';
import { isVideo } from '@/core/media/video';
import type { LibraryFile } from '@/usecases/media/reading';
import { call, problemOf } from '@/ui/api';
import { fileSize } from '@/ui/format';
import { useSay } from '@/ui/messages';
import { Only, useShell } from '@/ui/shell';
import { WordButton } from '@/ui/WordButton';
import Button from 'react-bootstrap/Button';

/** How long after the last letter it is looked for, in milliseconds. */
const LOOK_AFTER_MS = 250;

/** Files of the brand, found by name or by what was said of them, each with how often and where it is used. */
export function LibraryGrid({
  first,
  onPick,
}: {
  /** The newest, if they are known already. */
  first: readonly LibraryFile[] | null;
  /** Takes a file; absent where the library is looked at for itself. */
  onPick?: (sha256: string) => void;
}) {
  const { brand } = useShell();
  const say = useSay();
  const [words, setWords] = useState('');
  const [files, setFiles] = useState<readonly LibraryFile[] | null>(first);
  const [hasMore, setMore] = useState((first?.length ?? 0) >= LIBRARY_PAGE);

  const load = useCallback(
    async (query: string, after: LibraryFile | undefined) => {
      const search = new URLSearchParams({ brand: brand.id, words: query });
      if (after) {
        search.set('before', after.addedAt);
        search.set('beforeHash', after.sha256);
      }
      const answer = await call<LibraryFile[]>('GET', `/api/library?${search}`);
      const problem = problemOf(answer);
      if (problem) say({ text: problem, wrong: true });
      if (answer.kind !== 'done') return;
      setFiles((known) => (after ? [...(known ?? []), ...answer.value] : answer.value));
      setMore(answer.value.length >= LIBRARY_PAGE);
    },
    [brand.id, say],
  );
  useEffect(() => {
    if (words === '' && first !== null) return;
    const timer = setTimeout(() => void load(words, undefined), words === '' ? 0 : LOOK_AFTER_MS);
    return () => clearTimeout(timer);
  }, [words, first, load]);

  async function drop(file: LibraryFile) {
    const answer = await call('DELETE', `/api/library?brand=${brand.id}&file=${file.sha256}`);
    const problem = problemOf(answer);
    if (problem) return say({ text: problem, wrong: true });
    setFiles((known) => known?.filter((other) => other !== file) ?? null);
  }

  return (
    <>
      <input
        dir="auto"
        className="form-control files-find"
        type="search"
        aria-label="Find in the library"
        placeholder="Find by name or by what is to be seen"
        value={words}
        onChange={(event) => {
          setWords(event.target.value);
          if (event.target.value === '' && first) setFiles(first);
        }}
      />
      {files?.length === 0 && (
        <p className="soft">
          {words === '' ? 'Nothing here yet.' : 'No matches.'}
          {words === '' && <Only deed="keepFiles"> Drop pictures and videos here; they are kept once each.</Only>}
        </p>
      )}
      <ul className="file-grid">
        {files?.map((file) => (
          <li key={file.sha256} data-file={file.sha256}>
            {isVideo(file) ? (
              <video src={`/api/media/${file.sha256}#t=0.5`} preload="metadata" muted aria-label={file.fileName} />
            ) : (
              <img src={`/api/media/${file.sha256}?size=thumb`} alt={file.alt || file.fileName} loading="lazy" />
            )}
            <b title={file.fileName}>{file.fileName}</b>
            <span className="figures soft">
              {file.width} × {file.height}
              {file.durationMs !== null && `, ${lengthWords(file.durationMs / 1_000)}`}, {fileSize(file.bytes)}
            </span>
            <Uses file={file} />
            <span className="files-deeds">
              {onPick ? (
                <Button variant="outline-primary" size="sm" onClick={() => onPick(file.sha256)}>
                  Use this
                </Button>
              ) : (
                <>
                  <a className="word" href={`/api/media/${file.sha256}?save`}>
                    Save
                  </a>
                  {file.uses === 0 && (
                    <Only deed="keepFiles">
                      <WordButton onClick={() => void drop(file)}>Delete</WordButton>
                    </Only>
                  )}
                </>
              )}
            </span>
          </li>
        ))}
      </ul>
      {hasMore && <WordButton onClick={() => void load(words, files?.at(-1))}>Show more</WordButton>}
    </>
  );
}

function Uses({ file }: { file: LibraryFile }) {
  const { brand } = useShell();
  if (file.uses === 0) return <span className="soft">not used</span>;
  return (
    <details>
      <summary>in {file.uses === 1 ? '1 post' : `${file.uses} posts`}</summary>
      <ul>
        {file.usedIn.map(({ postId, title, callSign, date }) => (
          <li key={postId}>
            <Link href={`/${brand.slug}/calendar?post=${postId}${date ? `&date=${date}` : ''}`} prefetch={false}>
              <span className="figures">{callSign}</span> {title}
            </Link>
          </li>
        ))}
        {file.uses > file.usedIn.length && <li className="soft">and {file.uses - file.usedIn.length} more</li>}
      </ul>
    </details>
  );
}
