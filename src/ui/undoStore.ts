import { NO_UNDO, type UndoStack } from '@/core/captions/undo';
import { ownKey } from './personOnScreen';

/** The steps one can go back in each text of this tab: they survive a reload, and end with the tab. */

const keyOf = (postId: string, field: string): string => ownKey(`undo.${postId}.${field}`);

/** The steps of a text. */
export function undoStackOf(postId: string, field: string): UndoStack {
  const kept = sessionStorage.getItem(keyOf(postId, field));
  return kept === null ? NO_UNDO : { ...(JSON.parse(kept) as UndoStack), at: -Infinity };
}

/** Keeps the steps of a text; where the browser has no room for them, they are let go. */
export function keepUndoStack(postId: string, field: string, { past, future }: UndoStack): void {
  try {
    sessionStorage.setItem(keyOf(postId, field), JSON.stringify({ past, future }));
  } catch (error) {
    if (!(error instanceof DOMException)) throw error;
    sessionStorage.removeItem(keyOf(postId, field));
  }
}
