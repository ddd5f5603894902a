'use client';

import { createContext, useContext, useEffect, useMemo, useSyncExternalStore } from 'react';
import { WRITTEN_FIELDS, type WrittenField } from '@/core/posts/written';
import type { Slip } from '@/core/calendar/slip';
import { call } from '@/ui/api';
import type { PostTexts } from '@/usecases/posts/listTexts';
import type { Column } from './view';

/** How long rows have to stand before their texts are asked for, in milliseconds: while one scrolls, nothing is. */
const STANDS_MS = 120;

/**
 * The texts of rows that were in sight, by post.
 *
 * @internal
 */
export class RowTexts {
  private readonly known = new Map<string, PostTexts>();
  /** What is being written, by post and text: it outlives its row, which is drawn only while it is in sight. */
  private readonly written = new Map<string, string>();
  private readonly listeners = new Set<() => void>();

  readonly subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };
  readonly of = (id: string): PostTexts | undefined => this.known.get(id);
  /** Those of these posts whose texts are not known as they are now. */
  lacking(slips: readonly Slip[]): string[] {
    return slips.flatMap(({ id, version }) => ((this.known.get(id)?.version ?? -1) < version ? [id] : []));
  }
  learn(posts: readonly PostTexts[]): void {
    for (const post of posts) this.known.set(post.id, post);
    this.tell();
  }
  readonly typed = (id: string, field: WrittenField): string | null => this.written.get(`${id} ${field}`) ?? null;
  /** @param text null where nothing is written any more */
  type(id: string, field: WrittenField, text: string | null): void {
    if (text === null) this.written.delete(`${id} ${field}`);
    else this.written.set(`${id} ${field}`, text);
    this.tell();
  }
  private tell(): void {
    for (const told of this.listeners) told();
  }
}

const Context = createContext(new RowTexts());
export const RowTextsProvider = Context.Provider;

/** What is known of the texts of a post; nothing while it is asked for. */
export function useRowTexts(id: string): PostTexts | undefined {
  const texts = useContext(Context);
  return useSyncExternalStore(
    texts.subscribe,
    () => texts.of(id),
    () => undefined,
  );
}

/** What is being written of a text; null for nothing. */
export function useTyped(id: string, field: WrittenField): string | null {
  const texts = useContext(Context);
  return useSyncExternalStore(
    texts.subscribe,
    () => texts.typed(id, field),
    () => null,
  );
}

/** What learns of texts that were written here. */
export const useLearnTexts = () => useContext(Context);

/** Reads the texts that the columns of a list want, of the rows in sight. */
export function useTextsInSight(inSight: readonly Slip[], columns: readonly Column[]): RowTexts {
  const fields = WRITTEN_FIELDS.filter((field) => columns.includes(field));
  const isAsked = fields.length > 0 || columns.includes('published') || columns.includes('address');
  const wanted = fields.join(' ');
  // Other columns want other texts.
  const texts = useMemo(() => new RowTexts(), [wanted]); // eslint-disable-line react-hooks/exhaustive-deps
  const key = inSight.map(({ id, version }) => `${id} ${version}`).join();
  useEffect(() => {
    if (!isAsked) return;
    const timer = setTimeout(async () => {
      const ids = texts.lacking(inSight);
      if (ids.length === 0) return;
      const answer = await call<{ posts: PostTexts[] }>('POST', '/api/posts/texts', {
        ids: ids.slice(0, 200),
        fields: wanted === '' ? [] : wanted.split(' '),
      });
      if (answer.kind === 'done') texts.learn(answer.value.posts);
    }, STANDS_MS);
    return () => clearTimeout(timer);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the key says which rows, and how new
  }, [texts, wanted, isAsked, key]);
  return texts;
}
