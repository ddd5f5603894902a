'use client';

import { useRouter } from 'next/navigation';
import { useRef, useState, type FormEvent } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Dialog } from '@/ui/Dialog';
import { KIND_LABELS, PIECE_KINDS, type PieceKind } from '@/core/pieces/kinds';
import { accountWords } from '@/core/reading/accountWords';
import type { Piece } from '@/usecases/pieces/reading';
import { call, problemOf } from '@/ui/api';
import { FieldRefusal } from '@/ui/FieldRefusal';
import { useKept } from '@/ui/useKept';
import { useShell } from '@/ui/shell';
import { Field } from '@/ui/Field';
import { EncodingChoice } from './EncodingChoice';
import { useSourceLook } from './useSourceLook';

/** What a piece is made from: a text on the clipboard, or a file. */
const FILES = '.md,.markdown,.txt,.srt,.vtt,.html,.htm,text/*';

/** Begins a piece: its title, what it is, and its text as a file or pasted, if there is one already. */
export function NewPieceDialog({ onClose }: { onClose: () => void }) {
  const { brand } = useShell();
  const router = useRouter();
  const { typed, set, forget } = useKept<{ title: string; kind: PieceKind; text: string }>(`newPiece.${brand.id}`, {
    title: '',
    kind: 'talk',
    text: '',
  });
  const { title, kind, text } = typed;
  const [file, setFile] = useState<File | null>(null);
  const source = useSourceLook(brand.id);
  const titleField = useRef<HTMLInputElement>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [made, setMade] = useState<Piece | null>(null);
  const [isBusy, setBusy] = useState(false);

  async function choose(chosen: File | null, encoding: string | null = null) {
    setFile(chosen);
    setProblem(null);
    source.forget();
    if (!chosen) return;
    const { look } = await source.ask(chosen, encoding);
    // Somebody may have typed one meanwhile.
    if (look && titleField.current?.value.trim() === '') set({ title: look.title });
  }

  async function begin(event: FormEvent) {
    event.preventDefault();
    setBusy(true);
    setProblem(null);
    const brought = file ?? (text.trim() === '' ? null : new File([text], '', { type: 'text/plain' }));
    const looked = brought && (await source.ask(brought, source.encoding));
    const name = title.trim() || (looked?.look?.title ?? '');
    if (name === '' || (looked && !looked.look)) {
      setBusy(false);
      if (!looked || looked.look) setProblem('This text does not say what it is called. Type a title.');
      return;
    }
    // Refused for its text only, it is there already and takes the next one.
    const answer = made
      ? ({ kind: 'done', value: made } as const)
      : await call<Piece>('POST', '/api/pieces', { brandId: brand.id, title: name, kind });
    if (answer.kind !== 'done') {
      setBusy(false);
      return setProblem(problemOf(answer));
    }
    const piece = answer.value;
    setMade(piece);
    if (brought) {
      const path = `/api/pieces/${piece.id}/source${source.encoding === null ? '' : `?encoding=${source.encoding}`}`;
      const read = await call('POST', path, brought, { seen: piece.version });
      if (read.kind !== 'done') {
        setBusy(false);
        return setProblem(problemOf(read));
      }
    }
    forget();
    router.push(`/${brand.slug}/pieces/${piece.id}`);
  }

  return (
    <Dialog
      title="New piece"
      onClose={onClose}
      onSubmit={(event) => void begin(event)}
      deeds={
        <Button
          type="submit"
          disabled={isBusy || source.encodings.length > 0 || (title.trim() === '' && !file && text.trim() === '')}
        >
          {isBusy ? 'Beginning …' : 'Begin the piece'}
        </Button>
      }
      onCancel={() => {
        forget();
        onClose();
      }}
    >
      <Field id="new-piece-name" label="Title" className="mb-3">
        <Form.Control
          ref={titleField}
          dir="auto"
          autoFocus
          value={title}
          onChange={(event) => set({ title: event.target.value })}
        />
      </Field>
      <Field id="new-piece-kind" label="What it is" className="mb-3">
        <Form.Select value={kind} onChange={(event) => set({ kind: event.target.value as PieceKind })}>
          {PIECE_KINDS.map((one) => (
            <option key={one} value={one}>
              {KIND_LABELS[one]}
            </option>
          ))}
        </Form.Select>
      </Field>
      <Field id="new-piece-file" label="Its text, as a file: text, Markdown, a web page, or subtitles" className="mb-3">
        <Form.Control
          type="file"
          accept={FILES}
          onChange={(event) => void choose((event.target as HTMLInputElement).files?.[0] ?? null)}
        />
      </Field>
      {source.isReading && (
        <p className="soft" role="status">
          reading it …
        </p>
      )}
      {source.look && <p className="soft">{accountWords(source.look)}</p>}
      {file && source.encodings.length > 0 && (
        <EncodingChoice
          fileName={file.name}
          encodings={source.encodings}
          onChoose={(encoding) => void choose(file, encoding)}
        />
      )}
      <Field id="new-piece-text" label="… or pasted here. It can be brought in later, too.">
        <Form.Control
          as="textarea"
          rows={5}
          dir="auto"
          disabled={file !== null}
          value={text}
          onChange={(event) => set({ text: event.target.value })}
        />
      </Field>
      <FieldRefusal>{problem ?? source.problem}</FieldRefusal>
    </Dialog>
  );
}
