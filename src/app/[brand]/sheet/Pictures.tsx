'use client';

import dynamic from 'next/dynamic';
import { useCallback, useState } from 'react';
import { partsOf } from '@/core/posts/parts';
import type { PostSheet } from '@/core/posts/sheet';
import type { RuleSheet } from '@/core/rulesheets/types';
import { problemOf } from '@/ui/api';
import { useSay } from '@/ui/messages';
import { MEDIA_ACCEPTED, outcomeInWords, useUploads } from '@/ui/useUploads';
import { PictureCard } from './PictureCard';
import type { PostEditor } from './usePostEditor';
import { WordButton } from '@/ui/WordButton';

const LibraryDialog = dynamic(() => import('./LibraryDialog').then((module) => module.LibraryDialog), { ssr: false });

const CardDialog = dynamic(() => import('./CardDialog').then((module) => module.CardDialog), { ssr: false });

/** The post's pictures and video that no part holds; more are dropped, pasted, chosen, or taken from the library. */
export function Pictures({
  editor,
  sheet,
  rules,
  disabled,
}: {
  editor: PostEditor;
  sheet: PostSheet;
  rules: RuleSheet;
  disabled: boolean;
}) {
  const say = useSay();
  const [isChoosing, setChoosing] = useState(false);
  const [isMaking, setMaking] = useState(false);
  const { change } = editor;
  const send = useCallback((file: File) => change('POST', `/api/posts/${sheet.id}/media`, file), [change, sheet.id]);
  const { progress, take, stop } = useUploads(send);
  const held = new Set(partsOf(sheet, rules).map(({ pictureId }) => pictureId));
  const { label, add: addWords } = WORDS_OF[sheet.format] ?? { label: 'Pictures', add: 'add a picture' };

  async function add(files: FileList | null) {
    if (disabled || !files || files.length === 0) return;
    const chosen = [...files];
    const words = outcomeInWords(await take(chosen), chosen.length);
    if (words) say({ text: words, wrong: true });
  }

  return (
    <div
      className="words"
      onPaste={(event) => {
        if (event.clipboardData.files.length > 0) void add(event.clipboardData.files);
      }}
    >
      <div className="words-label">
        <span>{label}</span>
        {!disabled && <WordButton onClick={() => setMaking(true)}>Words as a picture…</WordButton>}
        {!disabled && <WordButton onClick={() => setChoosing(true)}>From the library</WordButton>}
      </div>
      <ul
        className="picture-row"
        onDragOver={(event) => event.preventDefault()}
        onDrop={(event) => {
          event.preventDefault();
          void add(event.dataTransfer.files);
        }}
      >
        {sheet.pictures
          .filter(({ id }) => !held.has(id))
          .map((picture) => (
            <li key={picture.id}>
              <PictureCard picture={picture} editor={editor} sheet={sheet} rules={rules} disabled={disabled} />
            </li>
          ))}
        {!disabled && (
          <li>
            <label className="add-picture">
              {progress ? (
                <span role="status">
                  {progress.total > 1 && <b className="figures">{`${progress.done + 1} of ${progress.total}`}</b>}{' '}
                  adding {progress.fileName}…
                </span>
              ) : (
                addWords
              )}
              <input
                type="file"
                className="visually-hidden"
                accept={MEDIA_ACCEPTED}
                multiple
                disabled={progress !== null}
                onChange={(event) => {
                  void add(event.target.files);
                  event.target.value = '';
                }}
              />
            </label>
            {progress && progress.total > 1 && <WordButton onClick={stop}>Stop</WordButton>}
          </li>
        )}
      </ul>
      {isMaking && (
        <CardDialog editor={editor} sheet={sheet} rules={rules} picture={null} onClose={() => setMaking(false)} />
      )}
      {isChoosing && (
        <LibraryDialog
          onPick={async (sha256) => {
            const answer = await change('POST', `/api/posts/${sheet.id}/media?file=${sha256}`, {});
            const problem = problemOf(answer);
            if (problem) say({ text: problem, wrong: true });
            else setChoosing(false);
          }}
          onClose={() => setChoosing(false)}
        />
      )}
    </div>
  );
}

/** What pictures are to some formats. */
const WORDS_OF: Partial<Record<PostSheet['format'], { label: string; add: string }>> = {
  shortVideo: { label: 'Video and cover', add: 'add the video or a cover' },
  longVideo: { label: 'Video and cover', add: 'add the video or a cover' },
  carousel: { label: 'Pictures', add: 'add pictures, a slide each' },
  story: { label: 'Pictures', add: 'add pictures, a frame each' },
};
