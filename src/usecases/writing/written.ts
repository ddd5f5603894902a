import { createHash } from 'node:crypto';
import type { FanOutPost } from '@/core/fanOut/ground';
import { writtenKey } from '@/core/writing/written';
import { listChannels } from '@/data/brands/channels';
import type { Db } from '@/data/database/db';
import type { Piece } from '@/data/pieces/pieces';
import { listWrittenTexts, maybeWritingService, type WritingService } from '@/data/writing/writingServices';

/** By what the answer of a service is kept: what it was asked, and where. */
export const keptAsOf = ({ address }: Pick<WritingService, 'address'>, key: string): string =>
  createHash('sha256').update(`${address}\n${key}`).digest('hex');

/** What the service of a team has written for the drafts of a plan, by the drafts it is for; nothing is asked for. */
export async function writtenFor(
  db: Db,
  { brandId }: Pick<Piece, 'brandId'>,
  posts: readonly FanOutPost[],
): Promise<Record<string, readonly string[]>> {
  const service = await maybeWritingService(db, brandId);
  if (!service) return {};
  const channels = new Map((await listChannels(db, brandId)).map((channel) => [channel.id, channel]));
  const keys = posts.flatMap(({ drafts, channelId, format }) =>
    drafts.map((draft) => writtenKey(draft, { sheet: channels.get(channelId)!.sheet, format })),
  );
  const kept = await listWrittenTexts(
    db,
    brandId,
    keys.map((key) => keptAsOf(service, key)),
  );
  return Object.fromEntries(
    keys.flatMap((key) => {
      const texts = kept.get(keptAsOf(service, key));
      return texts ? [[key, texts]] : [];
    }),
  );
}
