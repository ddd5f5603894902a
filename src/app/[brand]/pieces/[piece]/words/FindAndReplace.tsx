'use client';

import { useState } from 'react';
import { countMatches, replaceMatches } from '@/core/captions/replace';
import type { DraftField } from '@/ui/drafts';
import { useSay } from '@/ui/messages';
import type { OpenSibling } from './openSibling';
import Button from 'react-bootstrap/Button';

/** Finds words in all texts of the siblings shown, and replaces them in all at once. */
export function FindAndReplace({ list }: { list: () => readonly OpenSibling[] }) {
  const say = useSay();
  const [wanted, setWanted] = useState('');
  const [put, setPut] = useState('');
  const [matchCase, setMatchCase] = useState(false);
  const [found, setFound] = useState<{ matches: number; posts: number } | null>(null);

  /** Every text that holds what is looked for. */
  const hits = (query: string, sameCase: boolean) =>
    list().flatMap(({ sheet, editor }) =>
      Object.entries(editor.texts ?? {}).flatMap(([field, text]) => {
        const matches = field === 'title' ? 0 : countMatches(text, query, sameCase);
        return matches > 0 ? [{ postId: sheet.id, editor, field: field as DraftField, text, matches }] : [];
      }),
    );
  function look(query: string, sameCase: boolean) {
    const all = hits(query, sameCase);
    setFound(
      query === ''
        ? null
        : {
            matches: all.reduce((sum, { matches }) => sum + matches, 0),
            posts: new Set(all.map(({ postId }) => postId)).size,
          },
    );
  }
  function replaceAll() {
    const all = hits(wanted, matchCase);
    for (const { editor, field, text } of all) editor.type(field, replaceMatches(text, wanted, put, matchCase));
    const matches = all.reduce((sum, hit) => sum + hit.matches, 0);
    say({ text: `Replaced ${matches === 1 ? 'one' : matches}. Ctrl+Z in a text undoes it there.` });
    setFound(null);
  }

  return (
    <form
      className="find-replace"
      onSubmit={(event) => {
        event.preventDefault();
        replaceAll();
      }}
    >
      <input
        dir="auto"
        aria-label="Find"
        placeholder="find"
        autoFocus
        value={wanted}
        onChange={(event) => {
          setWanted(event.target.value);
          look(event.target.value, matchCase);
        }}
      />
      <input
        dir="auto"
        aria-label="Replace with"
        placeholder="replace with"
        value={put}
        onChange={(event) => setPut(event.target.value)}
      />
      <label>
        <input
          type="checkbox"
          checked={matchCase}
          onChange={() => {
            setMatchCase(!matchCase);
            look(wanted, !matchCase);
          }}
        />{' '}
        Match case
      </label>
      <span className="figures soft" role="status">
        {found &&
          (found.matches === 0
            ? 'nowhere'
            : `${found.matches} in ${found.posts === 1 ? '1 post' : `${found.posts} posts`}`)}
      </span>
      <Button type="submit" size="sm" disabled={!found || found.matches === 0}>
        Replace all
      </Button>
    </form>
  );
}
