'use client';

import { useRef, useState, type DragEvent, type ReactNode } from 'react';
import type { PossibleEncoding } from '@/core/text/decode';
import { EncodingChoice } from '../../EncodingChoice';
import type { Piece } from '@/usecases/pieces/reading';
import { FieldRefusal } from '@/ui/FieldRefusal';
import { Only } from '@/ui/shell';
import { WordButton } from '@/ui/WordButton';
import { call, problemOf } from '@/ui/api';

const KINDS = '.md,.markdown,.txt,.srt,.vtt,.html,.htm,text/*';

/** Above a piece's text: reading or correcting it, looking for words in it, and a file to take it from, chosen or dropped. */
export function SourceBar({
  piece,
  isEditing,
  onEdit,
  find,
  onFind,
  onBrought,
  children,
}: {
  piece: Piece;
  isEditing: boolean;
  onEdit: (isEditing: boolean) => void;
  find: string;
  onFind: (words: string) => void;
  onBrought: () => void;
  children: ReactNode;
}) {
  const chooser = useRef<HTMLInputElement>(null);
  const [isOver, setOver] = useState(false);
  const [isReading, setReading] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [asking, setAsking] = useState<File | null>(null);
  const [unsure, setUnsure] = useState<{ file: File; encodings: readonly PossibleEncoding[] } | null>(null);
  const hasText = piece.sourceText.trim() !== '';

  async function bring(file: File, encoding?: string) {
    setAsking(null);
    setUnsure(null);
    setReading(file.name);
    const path = `/api/pieces/${piece.id}/source${encoding === undefined ? '' : `?encoding=${encoding}`}`;
    const answer = await call<{ encodings?: PossibleEncoding[] }>('POST', path, file, { seen: piece.version });
    setReading(null);
    setProblem(problemOf(answer));
    if (answer.kind !== 'done') return;
    if (answer.value.encodings) setUnsure({ file, encodings: answer.value.encodings });
    else onBrought();
  }
  const take = (file: File | undefined) => {
    if (!file) return;
    setProblem(null);
    setUnsure(null);
    if (hasText) setAsking(file);
    else void bring(file);
  };
  const drop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    take(event.dataTransfer.files[0]);
  };

  return (
    <div
      className={`source${isOver ? ' is-over' : ''}`}
      onDragOver={(event) => {
        if (!event.dataTransfer.types.includes('Files')) return;
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={drop}
    >
      <div className="source-bar">
        {hasText && (
          <Only deed="changePieces">
            <span role="group" aria-label="The text">
              <WordButton aria-pressed={!isEditing} onClick={() => onEdit(false)}>
                Read
              </WordButton>{' '}
              <WordButton aria-pressed={isEditing} onClick={() => onEdit(true)}>
                Correct the text
              </WordButton>
            </span>
          </Only>
        )}
        {hasText && !isEditing && (
          <input
            dir="auto"
            type="search"
            aria-label="Find in this text"
            placeholder="find in this text"
            value={find}
            onChange={(event) => onFind(event.target.value)}
          />
        )}
        <Only deed="changePieces">
          <WordButton onClick={() => chooser.current?.click()}>
            {hasText ? 'Replace it with a file…' : 'Choose a file…'}
          </WordButton>
        </Only>
        <input
          ref={chooser}
          type="file"
          hidden
          accept={KINDS}
          aria-label="A file with the text"
          onChange={(event) => {
            take(event.target.files?.[0]);
            event.target.value = '';
          }}
        />
        {isReading && (
          <span className="soft small-text" role="status">
            reading {isReading} …
          </span>
        )}
      </div>
      {asking && (
        <div className="source-ask" role="alert">
          <span>The text of “{asking.name}” replaces this one. Extracts stay where their words are still in it.</span>
          <WordButton onClick={() => void bring(asking)}>Replace the text</WordButton>
          <WordButton onClick={() => setAsking(null)}>Cancel</WordButton>
        </div>
      )}
      {unsure && (
        <>
          <EncodingChoice
            fileName={unsure.file.name}
            encodings={unsure.encodings}
            onChoose={(encoding) => void bring(unsure.file, encoding)}
          />
          <WordButton onClick={() => setUnsure(null)}>Cancel</WordButton>
        </>
      )}
      <FieldRefusal>{problem}</FieldRefusal>
      {children}
    </div>
  );
}
