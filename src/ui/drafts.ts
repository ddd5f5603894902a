/**
 * What was typed and is not on the server yet, kept in the browser's own storage: it survives a reload, and a server that is
 * down.
 */

/** The fields that are kept while they are typed. */
export type DraftField = 'title' | 'headline' | 'caption' | 'hashtags' | 'link';

/** One field's unsaved text. */
export interface Draft {
  postId: string;
  field: DraftField;
  text: string;
  /** The server's text it was typed over. */
  base: string;
  /** The post's version it was typed over. */
  version: number;
}

const PREFIX = 'bimlo.draft.';
const keyOf = (postId: string, field: DraftField): string => `${PREFIX}${postId}.${field}`;

/** Keeps a draft. @returns false when the browser keeps nothing (storage full or forbidden) */
export function keepDraft(draft: Draft): boolean {
  try {
    localStorage.setItem(keyOf(draft.postId, draft.field), JSON.stringify(draft));
    return true;
  } catch (error) {
    if (error instanceof DOMException) return false;
    throw error;
  }
}

/** Lets a draft go, its text being saved or given up. */
export function dropDraft(postId: string, field: DraftField): void {
  localStorage.removeItem(keyOf(postId, field));
}

/** All drafts, or those of one post. */
export function listDrafts(postId?: string): Draft[] {
  const drafts: Draft[] = [];
  for (let index = 0; index < localStorage.length; index++) {
    const key = localStorage.key(index)!;
    if (!key.startsWith(postId ? `${PREFIX}${postId}.` : PREFIX)) continue;
    drafts.push(JSON.parse(localStorage.getItem(key)!) as Draft);
  }
  return drafts;
}
