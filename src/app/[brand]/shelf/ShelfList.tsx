'use client';

import { useState, type ReactNode } from 'react';
import { call, problemOf } from '@/ui/api';
import { useSay } from '@/ui/messages';
import { useShell } from '@/ui/shell';
import { WordButton } from '@/ui/WordButton';

/** Things that lie on the shelf, each changed in its place or taken away, which can be taken back. */
export function ShelfList<Thing extends { id: string }>({
  things,
  sort,
  path,
  face,
  form,
  took,
  onChange,
}: {
  things: readonly Thing[];
  /** What each row is marked as: `data-item`, `data-name`. */
  sort: 'item' | 'name';
  /** The route that takes a thing away and answers with all there are. */
  path: string;
  face: (thing: Thing) => ReactNode;
  form: (thing: Thing, onKept: (things: Thing[]) => void) => ReactNode;
  /** Says that a thing was taken away. */
  took: (thing: Thing) => string;
  onChange: (things: Thing[]) => void;
}) {
  const { brand } = useShell();
  const say = useSay();
  const [editing, setEditing] = useState<string | null>(null);

  async function drop(thing: Thing, dropped: boolean) {
    const answer = await call<Thing[]>('DELETE', path, { brandId: brand.id, id: thing.id, dropped });
    const problem = problemOf(answer);
    if (problem) return say({ text: problem, wrong: true });
    if (answer.kind === 'done') onChange(answer.value);
    if (dropped) say({ text: took(thing), deed: { label: 'Put it back', run: () => void drop(thing, false) } });
  }

  function kept(all: Thing[]) {
    onChange(all);
    setEditing(null);
  }

  return (
    <ul className="shelf-items">
      {things.map((thing) => (
        <li key={thing.id} {...{ [`data-${sort}`]: thing.id }}>
          {editing === thing.id ? (
            form(thing, kept)
          ) : (
            <>
              {face(thing)}
              <span className="shelf-deeds">
                <WordButton onClick={() => setEditing(thing.id)}>Edit</WordButton>
                <WordButton onClick={() => void drop(thing, true)}>Remove</WordButton>
              </span>
            </>
          )}
        </li>
      ))}
    </ul>
  );
}
