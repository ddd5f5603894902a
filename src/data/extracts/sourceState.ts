import type { Instant } from '@/core/time/plan';
import type { Queryable } from '../database/db';
import { deleteExtracts, insertExtracts, listExtracts, moveExtracts, type KeptExtract } from './extracts';

/** The text of a piece with all that points into it. */
export interface SourceState {
  source: string;
  /** As they are kept. */
  cues: unknown;
  isWordTimed: boolean;
  /** How it is read; absent in what was noted before that was kept. */
  how?: unknown;
  /** When it was last typed at; null for one that was brought in whole. */
  typedAt: Instant | null;
  extracts: readonly KeptExtract[];
  /** Which posts are made from which of them. */
  posts: readonly { postId: string; extractId: string }[];
}

/** The text of a piece with all that points into it; held until the transaction ends. */
export async function readSourceState(tx: Queryable, pieceId: string): Promise<SourceState> {
  const [text] = await tx.rows<Pick<SourceState, 'source' | 'cues' | 'isWordTimed' | 'how' | 'typedAt'>>(
    `select source_text as source, cues, is_word_timed as "isWordTimed", how_read as how, typed_at as "typedAt"
     from pieces where id = $1 for update`,
    [pieceId],
  );
  const posts = await tx.rows<{ postId: string; extractId: string }>(
    `select x.post_id as "postId", x.extract_id as "extractId" from post_extracts x join extracts e on e.id = x.extract_id
     where e.piece_id = $1 order by x.extract_id, x.post_id`,
    [pieceId],
  );
  return { ...text!, extracts: await listExtracts(tx, pieceId), posts };
}

/** Gives a piece the text that is told. What points into both stays what it is; posts that are gone for good are made of nothing. */
export async function writeSourceState(
  tx: Queryable,
  pieceId: string,
  present: SourceState,
  { source, cues, isWordTimed, how = null, typedAt, extracts, posts }: SourceState,
): Promise<void> {
  await tx.run(
    `update pieces set source_text = $2, cues = $3::text::jsonb, is_word_timed = $4, typed_at = $5,
       how_read = coalesce($6::text::jsonb, how_read), version = version + 1 where id = $1`,
    [pieceId, source, JSON.stringify(cues), isWordTimed, typedAt, how === null ? null : JSON.stringify(how)],
  );
  const idsOf = (of: readonly KeptExtract[]) => new Set(of.map(({ id }) => id));
  const [now, next] = [idsOf(present.extracts), idsOf(extracts)];
  const gone = present.extracts.flatMap(({ id }) => (next.has(id) ? [] : [id]));
  const fresh = extracts.filter(({ id }) => !now.has(id));
  await deleteExtracts(tx, gone);
  await insertExtracts(tx, fresh);
  await moveExtracts(tx, extracts);
  await tx.run(
    `insert into post_extracts (post_id, extract_id)
     select x."postId", x."extractId" from jsonb_to_recordset($1::jsonb) as x ("postId" uuid, "extractId" uuid)
       join posts p on p.id = x."postId"
     on conflict do nothing`,
    [JSON.stringify(posts)],
  );
}
