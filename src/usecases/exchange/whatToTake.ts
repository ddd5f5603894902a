import { NO_FILTER } from '@/core/calendar/filter';
import { accept, refuse, type Result } from '@/core/refusal';
import { daysBetween } from '@/core/time/days';
import { localOf, type LocalDate } from '@/core/time/plan';
import { maybeBrandBySlug } from '@/data/brands/brands';
import { maybePiece } from '@/data/pieces/pieces';
import { listPostsBetween, listPostsOfPiece } from '@/data/posts/postLines';
import { maybePost } from '@/data/posts/posts';
import { mayRead } from '../rights/mustMay';
import { notFound, type Work } from '../useCase';

/** What is taken away: a post, those of a piece, or those of a brand in some days. */
type What = { post: string } | { piece: string } | { brand: string; from: LocalDate; to: LocalDate };

/** Days that are taken away at once, at most. */
const MOST_DAYS = 31;

/** The posts that somebody may take away, by their days, and what they are called together. Whole plans are for those who may export. */
export async function whatToTake(
  work: Pick<Work, 'db' | 'clock' | 'actorId'>,
  what: What,
): Promise<Result<{ name: string; postIds: string[] }>> {
  const { db, clock } = work;
  if ('post' in what) {
    const post = await maybePost(db, what.post);
    if (!post) return { ok: false, refusal: notFound('post') };
    const allowed = await mayRead(work, 'look', post.brandId);
    return allowed.ok ? accept({ name: post.title, postIds: [post.id] }) : allowed;
  }
  if ('piece' in what) {
    const piece = await maybePiece(db, what.piece);
    if (!piece) return { ok: false, refusal: notFound('piece') };
    const allowed = await mayRead(work, 'exchange', piece.brandId);
    if (!allowed.ok) return allowed;
    const posts = (await listPostsOfPiece(db, piece.id)).filter(({ stage }) => stage !== 'setAside');
    return accept({ name: piece.title, postIds: posts.map(({ id }) => id) });
  }
  const brand = await maybeBrandBySlug(db, what.brand);
  if (!brand) return { ok: false, refusal: notFound('brand') };
  const allowed = await mayRead(work, 'exchange', brand.id);
  if (!allowed.ok) return allowed;
  const days = daysBetween(what.from, what.to) + 1;
  if (days < 1 || days > MOST_DAYS)
    return refuse('tooManyDays', `Posts of 1 to ${MOST_DAYS} days are taken away at once.`);
  const today = localOf(clock.now(), brand.zone).date;
  const posts = await listPostsBetween(db, { brandIds: [brand.id], filter: NO_FILTER, today }, what.from, what.to);
  return accept({ name: `${brand.name} ${what.from} to ${what.to}`, postIds: posts.map(({ id }) => id) });
}
