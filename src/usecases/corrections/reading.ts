import { groupBy } from '@/core/group';
import type { CorrectedPost, CorrectedText } from '@/core/corrections/correctPost';
import { writtenOf } from '@/core/posts/written';
import type { Format } from '@/core/rulesheets/types';
import type { Stage } from '@/core/stages/stages';
import type { Result } from '@/core/refusal';
import type { LocalDate, LocalTime } from '@/core/time/plan';
import { listFormerTexts, listPostIdsMadeOfFormer } from '@/data/corrections/formerTexts';
import type { Db } from '@/data/database/db';
import { maybeSource } from '@/data/extracts/extracts';
import { listPicturesOf, type Picture } from '@/data/media/media';
import { maybePiece, type Piece } from '@/data/pieces/pieces';
import { correctInPool } from '@/data/pool/takeApart';
import { listPostsById, type Post } from '@/data/posts/posts';
import { ofBrand } from '../rights/readFor';
import { notFound, type Work } from '../useCase';

/** A post that was made of a text which its piece no longer has. */
export interface PostBehind {
  post: Post;
  pictures: readonly Picture[];
  /** What correcting it comes to; null where it says nothing of what was corrected. */
  corrected: CorrectedPost | null;
}

/** The posts of a piece that were made of another text of it, by date, each with what correcting it comes to. */
export async function postsBehind(db: Db, piece: Piece, { withSetAside = false } = {}): Promise<Result<PostBehind[]>> {
  const ids = await listPostIdsMadeOfFormer(db, piece.id, withSetAside);
  if (ids.length === 0) return { ok: true, value: [] };
  const [posts, formers, source, pictures] = await Promise.all([
    listPostsById(db, ids),
    listFormerTexts(db, piece.id),
    maybeSource(db, piece.id),
    listPicturesOf(db, ids),
  ]);
  const byId = new Map(posts.map((post) => [post.id, post]));
  const own = groupBy(pictures, ({ postId }) => postId);
  // One that was corrected, or whose text came back, meanwhile.
  const known = new Set(formers.map(({ id }) => id));
  const behind = ids.flatMap((id) => {
    const post = byId.get(id);
    return post?.madeOf && known.has(post.madeOf) ? [{ post, pictures: own.get(id) ?? [] }] : [];
  });
  const { title, link } = piece;
  const found = await correctInPool({
    now: { title, link, source: source!.source, cues: source!.cues, how: source!.how },
    formers: formers.map(({ id, ...text }) => ({ id, text })),
    posts: behind.map(({ post, pictures: shown }) => ({
      ...writtenOf(post),
      drafted: post.drafted,
      madeOf: post.madeOf!,
      pictures: shown.map(({ id, alt, card = null }) => ({ id, alt, card })),
    })),
  });
  if (!found.ok) return found;
  return { ok: true, value: behind.map((one, at) => ({ ...one, corrected: found.value[at]! })) };
}

/** A post that says what its piece said, for whoever decides about it. */
export interface ShownCorrection {
  id: string;
  version: number;
  channelId: string;
  format: Format;
  title: string;
  date: LocalDate | null;
  time: LocalTime | null;
  stage: Stage;
  address: string;
  isSignedOff: boolean;
  texts: readonly CorrectedText[];
  /** Sentences in it that the piece no longer says. */
  gone: readonly string[];
}

/** The posts that say what a piece no longer says, for somebody who may look at it: by date, those that are out too. */
export async function loadCorrections(
  work: Pick<Work, 'db' | 'actorId'>,
  pieceId: string,
): Promise<Result<ShownCorrection[]>> {
  const piece = await maybePiece(work.db, pieceId);
  if (!piece || piece.deletedAt) return { ok: false, refusal: notFound('piece') };
  const found = await ofBrand(work, piece.brandId, () => postsBehind(work.db, piece));
  if (!found.ok) return found;
  if (!found.value.ok) return found.value;
  const shown = found.value.value.flatMap(({ post, corrected }): ShownCorrection[] => {
    if (!corrected) return [];
    const { id, version, channelId, format, title, date, time, stage, address, signOff } = post;
    const { texts, gone } = corrected;
    const own = { id, version, channelId, format, title, date, time, stage, address };
    return [{ ...own, isSignedOff: signOff !== null, texts, gone }];
  });
  return { ok: true, value: shown };
}
