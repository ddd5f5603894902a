'use client';

import { useRef, useState, type KeyboardEvent } from 'react';
import Button from 'react-bootstrap/Button';
import { counted } from '@/core/words';
import type { PieceMedium } from '@/usecases/media/reading';
import { call, problemOf } from '@/ui/api';
import { Dialog } from '@/ui/Dialog';
import { FieldRefusal } from '@/ui/FieldRefusal';

/** Asks for a line of each picture of a photo set that has none, in one round of typing: Enter goes on to the next, and behind the last to the posts. */
export function PictureLines({
  pieceId,
  pictures,
  onSaved,
  onDone,
  onClose,
}: {
  pieceId: string;
  /** Those that nothing is said of yet. */
  pictures: readonly PieceMedium[];
  /** What the piece has with the lines that were saved. */
  onSaved: (media: readonly PieceMedium[]) => void;
  /** The lines are there, or were passed over. */
  onDone: () => void;
  onClose: () => void;
}) {
  const [lines, setLines] = useState<Record<string, string>>({});
  const [problem, setProblem] = useState<string | null>(null);
  const [isSaving, setSaving] = useState(false);
  const inputs = useRef<(HTMLInputElement | null)[]>([]);
  const given = pictures.filter(({ id }) => (lines[id] ?? '').trim() !== '');

  async function save() {
    if (isSaving) return;
    setSaving(true);
    for (const { id } of given) {
      const answer = await call<PieceMedium[]>('PATCH', `/api/pieces/${pieceId}/media/${id}`, {
        alt: lines[id]!.trim(),
      });
      if (answer.kind !== 'done') {
        setSaving(false);
        return setProblem(problemOf(answer));
      }
      onSaved(answer.value);
    }
    onDone();
  }
  function keys(event: KeyboardEvent, at: number) {
    const step = { Enter: 1, ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (step === undefined || event.nativeEvent.isComposing) return;
    event.preventDefault();
    if (event.key === 'Enter' && at === pictures.length - 1) void save();
    else inputs.current[at + step]?.focus();
  }

  return (
    <Dialog
      title="A line for each picture"
      size="lg"
      onClose={onClose}
      deeds={
        <>
          <Button disabled={isSaving || given.length === 0} onClick={() => void save()}>
            {isSaving ? 'Saving …' : `Save ${counted(given.length, 'line')} and go on`}
          </Button>
          <Button variant="outline-primary" disabled={isSaving} onClick={onDone}>
            Go on without
          </Button>
        </>
      }
    >
      <p className="soft">
        Each post says what is said of its pictures; the line is its alt text too. Enter goes on to the next picture.
      </p>
      <ol className="picture-lines">
        {pictures.map(({ id, sha256, fileName }, at) => (
          <li key={id}>
            <img src={`/api/media/${sha256}?size=thumb`} alt="" />
            <input
              ref={(input) => void (inputs.current[at] = input)}
              dir="auto"
              className="form-control"
              aria-label={`What ${fileName} shows`}
              placeholder="What it shows, in a sentence"
              autoFocus={at === 0}
              value={lines[id] ?? ''}
              onChange={(event) => setLines({ ...lines, [id]: event.target.value })}
              onKeyDown={(event) => keys(event, at)}
            />
          </li>
        ))}
      </ol>
      <FieldRefusal>{problem}</FieldRefusal>
    </Dialog>
  );
}
