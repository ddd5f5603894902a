import type { PostSheet } from '@/core/posts/sheet';
import type { Db } from '@/data/database/db';
import { listOpenPostIdsOfPiece } from '@/data/posts/posts';
import { loadSheets } from '../posts/loadPosts';

/** Posts of a piece that are written side by side at the most. */
const SIBLINGS_SHOWN = 24;

/** The sheets of a piece's posts that can still be written, by date. */
export async function loadSiblings(db: Db, pieceId: string): Promise<PostSheet[]> {
  return loadSheets(db, await listOpenPostIdsOfPiece(db, pieceId, SIBLINGS_SHOWN));
}
