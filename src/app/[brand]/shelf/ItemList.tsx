'use client';

import { useState, type FormEvent } from 'react';
import Button from 'react-bootstrap/Button';
import { SHELF_LABELS, type ShelfItem, type ShelfKind } from '@/core/shelf/shelf';
import type { Fits } from '@/core/shelf/fits';
import { call, problemOf } from '@/ui/api';
import { dayMonth } from '@/ui/format';
import { useShell } from '@/ui/shell';
import { FitsFields, fitsWords, useNetworkNames } from './FitsFields';
import { ShelfList } from './ShelfList';
import { FieldRefusal } from '@/ui/FieldRefusal';

const PLACEHOLDERS: Record<ShelfKind, string> = {
  hashtags: '#NightSky #Stargazing',
  callToAction: 'Come up on Saturday. Bring a coat.',
  link: 'https://',
  quote: 'What somebody said, without the quotation marks',
  reply: 'Thank you for asking! …',
};

/** The kinds that may end drafts. */
const ENDS: readonly ShelfKind[] = ['callToAction', 'quote', 'link'];

/** The items of one kind, each edited where it stands, and a line to add one. */
export function ItemList({
  kind,
  items,
  onChange,
}: {
  kind: ShelfKind;
  items: readonly ShelfItem[];
  onChange: (items: ShelfItem[]) => void;
}) {
  const networkNames = useNetworkNames();
  return (
    <>
      <ItemForm kind={kind} item={null} onKept={onChange} />
      {items.length === 0 && (
        <p className="soft">
          No {SHELF_LABELS[kind].one} yet. What is here goes into any text with a few keys, and counted.
        </p>
      )}
      <ShelfList
        things={items}
        sort="item"
        path="/api/shelf"
        took={({ title }) => `Removed “${title}” from the shelf.`}
        form={(item, onKept) => <ItemForm kind={kind} item={item} onKept={onKept} />}
        face={(item) => (
          <>
            <b dir="auto">{item.title}</b>
            <span dir="auto" className="shelf-text">
              {item.text}
              {ENDS.includes(item.kind) && (
                <span className="soft small-text shelf-for">{fitsWords(item.fits, networkNames, item.kind)}</span>
              )}
            </span>
            {item.source !== '' && <span className="soft">{item.source}</span>}
            <span className="figures soft shelf-uses">
              {item.lastUsedAt === null
                ? 'not used yet'
                : `in ${item.uses} ${item.uses === 1 ? 'post' : 'posts'}, last ${dayMonth(item.lastUsedAt.slice(0, 10))}`}
            </span>
          </>
        )}
        onChange={onChange}
      />
    </>
  );
}

function ItemForm({
  kind,
  item,
  onKept,
}: {
  kind: ShelfKind;
  item: ShelfItem | null;
  onKept: (items: ShelfItem[]) => void;
}) {
  const { brand } = useShell();
  const blank = { title: '', text: '', source: '', fits: {} as Fits };
  const [typed, setTyped] = useState(item ?? blank);
  const [problem, setProblem] = useState<string | null>(null);

  async function keep(event: FormEvent) {
    event.preventDefault();
    const answer = await call<ShelfItem[]>('POST', '/api/shelf', {
      brandId: brand.id,
      known: item && { id: item.id, version: item.version },
      kind,
      title: typed.title,
      text: typed.text,
      source: typed.source,
      fits: typed.fits,
    });
    setProblem(problemOf(answer));
    if (answer.kind !== 'done') return;
    onKept(answer.value);
    if (!item) setTyped(blank);
  }

  return (
    <form
      className="shelf-form"
      onSubmit={(event) => void keep(event)}
      aria-label={item ? `Change ${item.title}` : 'New'}
    >
      <input
        dir="auto"
        aria-label="Name"
        placeholder={`A new ${SHELF_LABELS[kind].one}: its name`}
        value={typed.title}
        onChange={(event) => setTyped({ ...typed, title: event.target.value })}
      />
      <textarea
        dir="auto"
        aria-label="Text"
        rows={1}
        placeholder={PLACEHOLDERS[kind]}
        value={typed.text}
        onChange={(event) => setTyped({ ...typed, text: event.target.value })}
      />
      {kind === 'quote' && (
        <input
          dir="auto"
          aria-label="Who said it"
          placeholder="Who said it"
          value={typed.source}
          onChange={(event) => setTyped({ ...typed, source: event.target.value })}
        />
      )}
      {ENDS.includes(kind) && (
        <FitsFields kind={kind} fits={typed.fits} onChange={(fits) => setTyped({ ...typed, fits })} />
      )}
      <Button type="submit" size="sm" variant={item ? 'primary' : 'outline-primary'}>
        {item ? 'Keep the change' : `Add the ${SHELF_LABELS[kind].one}`}
      </Button>
      <FieldRefusal>{problem}</FieldRefusal>
    </form>
  );
}
