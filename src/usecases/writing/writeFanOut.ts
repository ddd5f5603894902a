import type { Draft } from '@/core/drafts/draft';
import { guessLanguage } from '@/core/extracts/languages';
import { plainlyKept } from '@/core/reading/readSource';
import { accept, refuse, type Result } from '@/core/refusal';
import type { WritingRequest } from '@/core/writing/form';
import { requestFor, writtenDraft, writtenKey } from '@/core/writing/written';
import { listChannels } from '@/data/brands/channels';
import { maybeSource } from '@/data/extracts/extracts';
import type { Queryable } from '@/data/database/db';
import { maybePiece } from '@/data/pieces/pieces';
import { askService } from '@/data/writing/askService';
import { keepWrittenTexts, maybeWritingService } from '@/data/writing/writingServices';
import { readingOfPiece } from '../extracts/keptReading';
import { planFanOut, type FanOutAsk, type FanOutPlan } from '../fanOut/planFanOut';
import { mayRead } from '../rights/mustMay';
import { notFound, type Work } from '../useCase';
import { keptAsOf } from './written';

/** Requests that are under way at once. */
const AT_ONCE = 3;
/** Requests in a row without an answer from which the posts left are not asked for: of a service that has answered, and of one that never has. */
const GIVEN_UP_AFTER = { answered: 3, never: 1 } as const;
/** Characters of the piece that are sent around what a post is made from, on either side; and of one made from the whole. */
const SENT = { around: 1_500, whole: 8_000 } as const;

/** What the service of a team is asked for one post. */
interface PostToWrite {
  key: string;
  channelId: string;
  request: WritingRequest;
  /** By what its answer is kept. */
  keptAs: string;
  draft: Draft;
}

/** What would be sent, and where. */
export interface WritingOffer {
  address: string;
  requests: Pick<PostToWrite, 'key' | 'channelId' | 'request'>[];
}

/** What came of asking. */
export interface WritingOutcome {
  written: number;
  /** The posts that keep Bimlo's own draft, with why. */
  failed: { key: string; channelId: string; reason: string }[];
}

const GIVEN_UP = refuse('noAnswer', 'it was not asked any more, as it had not answered before');
const NO_LONGER = refuse('changed', 'the writing service was changed meanwhile');
const NO_SERVICE = refuse('noService', 'This brand has no writing service. A manager allows one in the settings.');

/**
 * Shows what the writing service of a team would be asked for posts of a fan-out. Nothing is sent.
 *
 * @param keys of the posts; null for all of them
 */
export async function offerWriting(
  work: Work,
  pieceId: string,
  ask: FanOutAsk,
  keys: readonly string[] | null = null,
): Promise<Result<WritingOffer>> {
  const found = await toWrite(work, pieceId, ask, keys);
  if (!found.ok) return found;
  const { service, posts } = found.value;
  return accept({
    address: service.address,
    requests: posts.map(({ key, channelId, request }) => ({ key, channelId, request })),
  });
}

/**
 * Has the posts of a fan-out written by the service of a team, each kept as it comes. What does not hold, or does not come, leaves
 * Bimlo's own draft; a service that does not answer, or is not allowed any more, is not asked for the rest.
 *
 * @param shownAt the address that was shown to who asked: to no other is anything sent
 */
export async function writeFanOut(
  work: Work,
  pieceId: string,
  ask: FanOutAsk,
  shownAt: string,
  keys: readonly string[] | null = null,
): Promise<Result<WritingOutcome>> {
  const found = await toWrite(work, pieceId, ask, keys);
  if (!found.ok) return found;
  const { service, posts, brandId, sheets } = found.value;
  if (service.address !== shownAt)
    return refuse('changed', 'The address of the writing service was changed meanwhile. Look at what is sent again.');
  const failed: WritingOutcome['failed'] = [];
  const waiting = [...posts];
  let [written, silent, answered] = [0, 0, 0];
  const isAllowed = async (db: Queryable) => (await maybeWritingService(db, brandId))?.address === service.address;
  const answerFor = async (request: WritingRequest) => {
    if (silent >= (answered > 0 ? GIVEN_UP_AFTER.answered : GIVEN_UP_AFTER.never)) return GIVEN_UP;
    if (!(await isAllowed(work.db))) return NO_LONGER;
    const answer = await askService(service, request);
    const isSilent = !answer.ok && answer.refusal.code === 'noAnswer';
    silent = isSilent ? silent + 1 : 0;
    if (!isSilent) answered++;
    return answer;
  };
  const askAll = async () => {
    for (let post = waiting.shift(); post; post = waiting.shift()) {
      const { key, channelId, request, draft, keptAs } = post;
      const answer = await answerFor(request);
      const made = answer.ok ? writtenDraft(draft, sheets.get(key)!, answer.value, request.language) : answer;
      const kept =
        made.ok && answer.ok
          ? await work.db.transaction(async (tx) => {
              if (!(await isAllowed(tx))) return NO_LONGER;
              await keepWrittenTexts(tx, brandId, [{ key: keptAs, texts: answer.value }], work.clock.now());
              return accept(true);
            })
          : made;
      if (kept.ok) written++;
      else failed.push({ key, channelId, reason: kept.refusal.message });
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, askAll));
  const order = new Map(posts.map(({ key }, at) => [key, at]));
  failed.sort((one, other) => order.get(one.key)! - order.get(other.key)!);
  return accept({ written, failed });
}

async function toWrite(work: Work, pieceId: string, ask: FanOutAsk, keys: readonly string[] | null) {
  const piece = await maybePiece(work.db, pieceId);
  if (!piece || piece.deletedAt) return { ok: false as const, refusal: notFound('piece') };
  const allowed = await mayRead(work, 'changePosts', piece.brandId);
  if (!allowed.ok) return allowed;
  const service = await maybeWritingService(work.db, piece.brandId);
  if (!service) return NO_SERVICE;
  const plan = await planFanOut(work.db, piece, { ...ask, isWritten: false }, work.clock.now());
  if (!plan.ok) return plan;
  const channels = new Map((await listChannels(work.db, piece.brandId)).map((channel) => [channel.id, channel]));
  const kept = await maybeSource(work.db, pieceId);
  const own = kept!.source.trim() === '' ? plainlyKept(piece.note) : kept!;
  const { text } = await readingOfPiece(work.db, pieceId, own);
  const language = guessLanguage(text);
  const sheets = new Map(
    plan.value.posts.map(({ key, channelId, format }) => [key, { sheet: channels.get(channelId)!.sheet, format }]),
  );
  const posts = plan.value.posts.flatMap((post): PostToWrite[] => {
    const [draft] = post.drafts;
    if (!draft || (keys !== null && !keys.includes(post.key))) return [];
    const to = sheets.get(post.key)!;
    const request = requestFor(draft, to, sourceOf(post, text), language);
    const keptAs = keptAsOf(service, writtenKey(draft, to));
    return request.wanted.length > 0 ? [{ key: post.key, channelId: post.channelId, request, keptAs, draft }] : [];
  });
  return accept({ service, posts, sheets, brandId: piece.brandId });
}

/** The part of a piece that a post is made from, with what stands around it. */
function sourceOf({ from }: FanOutPlan['posts'][number], text: string): string {
  const [own] = from;
  if (!own) return text.slice(0, SENT.whole);
  return text.slice(Math.max(0, own.start - SENT.around), own.end + SENT.around);
}
