'use client';

import { useFromServer } from '@/ui/useFromServer';
import { OnlyTyped } from '@/ui/shell';
import { parseAsStringLiteral, useQueryState } from 'nuqs';
import { SHELF_KINDS, SHELF_LABELS } from '@/core/shelf/shelf';
import type { Shelf } from '@/usecases/shelf/shelf';
import { BrandSheet } from './BrandSheet';
import { ItemList } from './ItemList';
import { NameList } from './NameList';
import { TermHint } from '@/ui/TermHint';

const BOARDS = [...SHELF_KINDS, 'names', 'brandSheet'] as const;

const labelOf = (board: (typeof BOARDS)[number]): string =>
  board === 'names' ? 'Names' : board === 'brandSheet' ? 'Brand sheet' : SHELF_LABELS[board].many;

/** The boards of the shelf, one at a time. */
export function ShelfScreen({ shelf }: { shelf: Shelf }) {
  const [board, setBoard] = useQueryState('board', parseAsStringLiteral(BOARDS).withDefault('hashtags'));
  const [items, setItems] = useFromServer(shelf.items);
  const [names, setNames] = useFromServer(shelf.names);
  const [assets, setAssets] = useFromServer(shelf.assets);
  const countOf = (one: (typeof BOARDS)[number]) =>
    one === 'names'
      ? names.length
      : one === 'brandSheet'
        ? assets.length
        : items.filter(({ kind }) => kind === one).length;
  return (
    <>
      <header className="place-head">
        <h1>
          <TermHint term="shelf">Shelf</TermHint>
        </h1>
        <span className="soft">in reach while writing: Ctrl .</span>
      </header>
      <div className="place-body shelf">
        <nav className="shelf-boards" aria-label="Boards of the shelf">
          {BOARDS.map((one) => (
            <button
              key={one}
              type="button"
              aria-current={one === board ? 'page' : undefined}
              onClick={() => void setBoard(one)}
            >
              {labelOf(one)} <span className="figures soft">{countOf(one)}</span>
            </button>
          ))}
        </nav>
        <OnlyTyped deed="keepShelf">
          {board === 'names' ? (
            <NameList names={names} onChange={setNames} />
          ) : board === 'brandSheet' ? (
            <BrandSheet assets={assets} onChange={setAssets} />
          ) : (
            <ItemList key={board} kind={board} items={items.filter(({ kind }) => kind === board)} onChange={setItems} />
          )}
        </OnlyTyped>
      </div>
    </>
  );
}
