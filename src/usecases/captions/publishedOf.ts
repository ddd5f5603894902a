import type { LocalDate, LocalTime } from '@/core/time/plan';
import type { Result } from '@/core/refusal';
import { listChannelsById } from '@/data/brands/channels';
import { maybePiece } from '@/data/pieces/pieces';
import { listPublishedOfPiece } from '@/data/posts/postLines';
import { ofBrand } from '../rights/readFor';
import { notFound, type Work } from '../useCase';

/** Published posts of a piece that stand beside one that is written, at most. */
const SHOWN = 24;

/** What was said of a piece: a published post as far as one reads it. */
export interface Said {
  id: string;
  channelName: string;
  callSign: string;
  color: string;
  title: string;
  date: LocalDate | null;
  time: LocalTime | null;
  /** Where it is published; empty where nobody knows. */
  address: string;
  /** Its title, caption and parts that are not empty, in their order. */
  texts: string[];
}

/** What was published of a piece, the newest first. */
export async function publishedOf(work: Pick<Work, 'db' | 'actorId'>, pieceId: string): Promise<Result<Said[]>> {
  const piece = await maybePiece(work.db, pieceId);
  if (!piece) return { ok: false, refusal: notFound('piece') };
  return ofBrand(work, piece.brandId, async () => {
    const posts = await listPublishedOfPiece(work.db, pieceId, SHOWN);
    const channels = new Map(
      (
        await listChannelsById(
          work.db,
          posts.map(({ channelId }) => channelId),
        )
      ).map((channel) => [channel.id, channel]),
    );
    return posts.map((post): Said => {
      const { name, callSign, color } = channels.get(post.channelId)!;
      const { id, title, date, time, address } = post;
      const texts = [post.headline, post.caption, ...(post.parts ?? []).map(({ text }) => text)];
      return {
        id,
        title,
        date,
        time,
        address,
        channelName: name,
        callSign,
        color,
        texts: texts.filter((text) => text.trim() !== ''),
      };
    });
  });
}
