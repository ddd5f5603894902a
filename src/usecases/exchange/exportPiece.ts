import { writePieceFile } from '@/core/pieces/pieceFile';
import { originsOf, type DraftedMark } from '@/core/posts/unread';
import { writtenOf, type WrittenWords } from '@/core/posts/written';
import type { Result } from '@/core/refusal';
import { listChannels } from '@/data/brands/channels';
import { listExtracts, maybeSource } from '@/data/extracts/extracts';
import { listUsedStretches } from '@/data/fanOut/postExtracts';
import { maybePiece } from '@/data/pieces/pieces';
import { listPostsById } from '@/data/posts/posts';
import { listFamily } from '@/data/encores/encores';
import { mayRead } from '../rights/mustMay';
import { noteExchange } from './noteExchange';
import { notFound, type Work } from '../useCase';

/**
 * A piece with all that was made of it, as it is written to a file.
 *
 * @internal
 */
export interface PieceFile {
  title: string;
  kind: string;
  note: string;
  link: string;
  /** As it is kept: Markdown, or what is said. */
  text: string;
  /** Offsets are UTF-16 units of the text as it is read. */
  extracts: { kind: string; state: string; start: number; end: number; reason: string; posts: string[] }[];
  posts: (WrittenWords & {
    id: string;
    network: string;
    channel: string;
    format: string;
    stage: string;
    workingTitle: string;
    date: string | null;
    time: string | null;
    encoreOf: string | null;
    /** The sentences that still stand as they were drafted, with where each is from; what somebody wrote is none of them. */
    sentences: DraftedMark[];
  })[];
}

/** A piece as Markdown with front matter, which comes in again unchanged. */
export async function pieceAsMarkdown(work: Work, pieceId: string): Promise<Result<{ title: string; text: string }>> {
  const piece = await maybePiece(work.db, pieceId);
  if (!piece || piece.deletedAt) return { ok: false, refusal: notFound('piece') };
  const allowed = await mayRead(work, 'exchange', piece.brandId);
  if (!allowed.ok) return allowed;
  const { cues, isWordTimed, how } = (await maybeSource(work.db, pieceId))!;
  await noteExchange(work.db, work, 'exported', piece.brandId, `${piece.title}.md`);
  return { ok: true, value: { title: piece.title, text: writePieceFile({ ...piece, cues, isWordTimed, how }) } };
}

/** A piece, its extracts and its live posts, with the origin of each drafted sentence. */
export async function exportPiece(work: Work, pieceId: string): Promise<Result<PieceFile>> {
  const piece = await maybePiece(work.db, pieceId);
  if (!piece || piece.deletedAt) return { ok: false, refusal: notFound('piece') };
  const allowed = await mayRead(work, 'exchange', piece.brandId);
  if (!allowed.ok) return allowed;
  const [source, extracts, used, channels, family] = await Promise.all([
    maybeSource(work.db, pieceId),
    listExtracts(work.db, pieceId),
    listUsedStretches(work.db, pieceId),
    listChannels(work.db, piece.brandId),
    listFamily(work.db, pieceId),
  ]);
  const posts = await listPostsById(
    work.db,
    family.map(({ id }) => id),
  );
  const inOrder = new Map(posts.map((post) => [post.id, post]));
  await noteExchange(work.db, work, 'exported', piece.brandId, `${piece.title}.json`);
  return {
    ok: true,
    value: {
      ...{ title: piece.title, kind: piece.kind, note: piece.note, link: piece.link, text: source?.source ?? '' },
      extracts: extracts.map(({ id, kind, state, start, end, reason }) => ({
        ...{ kind, state, start, end, reason },
        posts: used.filter(({ extractId }) => extractId === id).map(({ postId }) => postId),
      })),
      posts: family.flatMap(({ id }) => {
        const post = inOrder.get(id);
        if (!post) return [];
        const channel = channels.find((one) => one.id === post.channelId);
        return [
          {
            ...{ id, network: channel?.sheet.slug ?? '', channel: channel?.name ?? '', format: post.format },
            ...{
              stage: post.stage,
              workingTitle: post.title,
              date: post.date,
              time: post.time,
              encoreOf: post.encoreOf,
            },
            ...writtenOf(post),
            sentences: originsOf(post, post.drafted),
          },
        ];
      }),
    },
  };
}
