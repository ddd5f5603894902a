'use client';

import { useState } from 'react';
import type { PostSheet } from '@/core/posts/sheet';
import { problemOf } from '@/ui/api';
import { fileSize } from '@/ui/format';
import { useSay } from '@/ui/messages';
import type { PostEditor } from './usePostEditor';

/** The post's pictures with their alt texts, and a place to add one. */
export function Pictures({ editor, sheet, disabled }: { editor: PostEditor; sheet: PostSheet; disabled: boolean }) {
  const say = useSay();
  const [incoming, setIncoming] = useState<string | null>(null);

  async function add(files: FileList | null) {
    for (const file of files ?? []) {
      setIncoming(file.name);
      const answer = await editor.change('POST', `/api/posts/${sheet.id}/media`, file);
      const problem = problemOf(answer);
      if (problem) say({ text: problem, wrong: true });
    }
    setIncoming(null);
  }

  async function change(method: 'PATCH' | 'DELETE', pictureId: string, body: object) {
    const answer = await editor.change(method, `/api/posts/${sheet.id}/media/${pictureId}`, body);
    const problem = problemOf(answer);
    if (problem) say({ text: problem, wrong: true });
  }

  return (
    <div className="words">
      <div className="words-label">
        <span>Pictures</span>
      </div>
      <ul
        className="picture-row"
        onDragOver={(event) => event.preventDefault()}
        onDrop={(event) => {
          event.preventDefault();
          if (!disabled) void add(event.dataTransfer.files);
        }}
      >
        {sheet.pictures.map((picture) => (
          <li key={picture.id}>
            <img
              src={`/api/media/${picture.sha256}?size=thumb`}
              alt={picture.alt || picture.fileName}
              title={`${picture.fileName}, ${picture.width} × ${picture.height}, ${fileSize(picture.bytes)}`}
            />
            <textarea
              defaultValue={picture.alt}
              aria-label={`Alt text of ${picture.fileName}`}
              placeholder="alt text"
              disabled={disabled}
              onBlur={(event) => {
                if (event.target.value.trim() !== picture.alt)
                  void change('PATCH', picture.id, { alt: event.target.value });
              }}
            />
            {!disabled && (
              <button type="button" className="word" onClick={() => void change('DELETE', picture.id, {})}>
                take away
              </button>
            )}
          </li>
        ))}
        {!disabled && (
          <li>
            <label className="add-picture">
              {incoming ? `taking in ${incoming}…` : 'add a picture'}
              <input
                type="file"
                className="visually-hidden"
                accept="image/jpeg,image/png,image/webp,image/gif"
                multiple
                disabled={incoming !== null}
                onChange={(event) => {
                  void add(event.target.files);
                  event.target.value = '';
                }}
              />
            </label>
          </li>
        )}
      </ul>
    </div>
  );
}
