import type { WrittenField } from '@/core/posts/written';
import { ownKey } from './personOnScreen';

/**
 * What was typed and is not on the server yet, kept in the browser's own storage: it survives a reload, and a server that is
 * down.
 */

/** The fields of a post that are kept while they are typed: working title, the single texts, and the text of each part by its id. */
export type DraftField = 'title' | WrittenField | `part:${string}`;

/** One field's unsaved text. */
export interface Draft<Field extends string = string> {
  /** Where it is saved: the route of its post or piece. */
  at: string;
  field: Field;
  text: string;
  /** The server's text it was typed over. */
  base: string;
  /** The version it was typed over. */
  version: number;
}

const keyOf = (at: string, field: string): string => ownKey(`typed.${at}.${field}`);

/** Keeps a draft. @returns false when the browser keeps nothing (storage full or forbidden) */
export function keepDraft(draft: Draft): boolean {
  try {
    localStorage.setItem(keyOf(draft.at, draft.field), JSON.stringify(draft));
    return true;
  } catch (error) {
    if (error instanceof DOMException) return false;
    throw error;
  }
}

/** Lets a draft go, its text being saved or given up. */
export function dropDraft(at: string, field: string): void {
  localStorage.removeItem(keyOf(at, field));
}

/** All drafts of the person on screen, or those of one post or piece. */
export function listDrafts<Field extends string = string>(at?: string): Draft<Field>[] {
  const drafts: Draft<Field>[] = [];
  const start = ownKey(at ? `typed.${at}.` : 'typed.');
  for (let index = 0; index < localStorage.length; index++) {
    const key = localStorage.key(index)!;
    if (!key.startsWith(start)) continue;
    drafts.push(JSON.parse(localStorage.getItem(key)!) as Draft<Field>);
  }
  return drafts;
}

const claims = new Map<string, number>();

/** Says that an editor on screen saves the drafts of a post or piece itself. @returns what ends that */
export function claimDrafts(at: string): () => void {
  claims.set(at, (claims.get(at) ?? 0) + 1);
  return () => void claims.set(at, claims.get(at)! - 1);
}

/** Whether an editor on screen saves these drafts itself. */
export const isClaimed = (at: string): boolean => (claims.get(at) ?? 0) > 0;

const CHOSEN = 'chosen:';

/** The draft of something chosen, which is kept as JSON beside the texts. @param name as the server calls it */
export const chosenDraft = (at: string, name: string, value: unknown, base: unknown, version: number): Draft => ({
  at,
  field: `${CHOSEN}${name}`,
  text: JSON.stringify(value),
  base: JSON.stringify(base),
  version,
});

/** The name of what a draft chooses; null for a text. */
export const chosenIn = ({ field }: Draft): string | null =>
  field.startsWith(CHOSEN) ? field.slice(CHOSEN.length) : null;

/** Changed texts as the server is told of them, those of parts by the id of their part, and what was chosen. */
export function editOf(texts: Record<string, string>): object {
  const partTexts: Record<string, string> = {};
  const others: Record<string, unknown> = {};
  for (const [field, text] of Object.entries(texts))
    if (field.startsWith('part:')) partTexts[field.slice(5)] = text;
    else if (field.startsWith(CHOSEN)) others[field.slice(CHOSEN.length)] = JSON.parse(text);
    else others[field] = text;
  return { ...others, ...(Object.keys(partTexts).length > 0 && { partTexts }) };
}
