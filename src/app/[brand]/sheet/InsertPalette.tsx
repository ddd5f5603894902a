'use client';

import { Command } from 'cmdk';
import { useEffect, useState } from 'react';
import { Palette } from '@/ui/Dialog';
import { insertedText, mentionOf, SHELF_KINDS, SHELF_LABELS, type ShelfItem } from '@/core/shelf/shelf';
import { call, problemOf } from '@/ui/api';
import { dayMonth } from '@/ui/format';
import { useShell } from '@/ui/shell';
import type { Shelf } from '@/usecases/shelf/shelf';

/** The brand's shelf and names, found by a few letters and put into the text. */
export function InsertPalette({
  postId,
  network,
  onPick,
  onClose,
}: {
  postId: string;
  network: string;
  onPick: (text: string) => void;
  onClose: () => void;
}) {
  const { brand } = useShell();
  const [shelf, setShelf] = useState<Shelf | null>(null);
  const [problem, setProblem] = useState<string | null>(null);

  useEffect(() => {
    void call<Shelf>('GET', `/api/shelf?brand=${brand.id}`).then((answer) => {
      setProblem(problemOf(answer));
      if (answer.kind === 'done') setShelf(answer.value);
    });
  }, [brand.id]);

  function pick(item: ShelfItem) {
    void call('POST', '/api/shelf/use', { itemId: item.id, postId });
    onPick(insertedText(item));
  }

  return (
    <Palette label="Insert" onClose={onClose}>
      <Command label="Insert" className="insert-palette">
        <Command.Input placeholder="A hashtag set, a quote, a name …" autoFocus />
        <Command.List>
          <Command.Empty>{problem ?? (shelf ? 'No matches on the shelf.' : 'Looking …')}</Command.Empty>
          {shelf && shelf.names.length > 0 && (
            <Command.Group heading="Names">
              {shelf.names.map((name) => (
                <Command.Item
                  key={name.id}
                  value={`${name.name} ${name.handles[network] ?? ''} ${name.id}`}
                  onSelect={() => onPick(mentionOf(name, network))}
                >
                  <b dir="auto">{name.name}</b>
                  <span className="soft">{name.handles[network] ?? `${name.kind}, no handle here`}</span>
                </Command.Item>
              ))}
            </Command.Group>
          )}
          {shelf &&
            SHELF_KINDS.map((kind) => {
              const items = shelf.items.filter((item) => item.kind === kind);
              if (items.length === 0) return null;
              return (
                <Command.Group key={kind} heading={SHELF_LABELS[kind].many}>
                  {items.map((item) => (
                    <Command.Item
                      key={item.id}
                      value={`${item.title} ${item.text} ${item.id}`}
                      onSelect={() => pick(item)}
                    >
                      <b dir="auto">{item.title}</b>
                      <span dir="auto" className="soft">
                        {item.text}
                      </span>
                      <span className="soft figures">{usesInWords(item)}</span>
                    </Command.Item>
                  ))}
                </Command.Group>
              );
            })}
        </Command.List>
      </Command>
    </Palette>
  );
}

/** How often an item was used, and when last: “4 ×, last 12 Nov”. */
const usesInWords = ({ uses, lastUsedAt }: Pick<ShelfItem, 'uses' | 'lastUsedAt'>): string =>
  lastUsedAt === null ? 'not used yet' : `${uses} ×, last ${dayMonth(lastUsedAt.slice(0, 10))}`;
