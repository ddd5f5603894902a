import type { Deed } from '@/core/rights/may';
import { accept, type Result } from '@/core/refusal';
import { maybePost } from '@/data/posts/posts';
import { mayRead } from './mustMay';
import { notFound, type Work } from '../useCase';

type Reader = Pick<Work, 'db' | 'actorId'>;

/** Reads something of a brand for somebody who may look at it. */
export async function ofBrand<T>(
  work: Reader,
  brandId: string,
  read: () => Promise<T>,
  deed: Deed = 'look',
): Promise<Result<T>> {
  const allowed = await mayRead(work, deed, brandId);
  return allowed.ok ? accept(await read()) : allowed;
}

/** Reads something of a post for somebody who may look at it; what is not there, or not theirs, is told as such. */
export async function ofPost<T>(
  work: Reader,
  postId: string,
  what: string,
  read: () => Promise<T | undefined>,
): Promise<Result<T>> {
  const post = await maybePost(work.db, postId);
  if (!post) return { ok: false, refusal: notFound(what) };
  const found = await ofBrand(work, post.brandId, read);
  if (!found.ok) return found;
  return found.value === undefined ? { ok: false, refusal: notFound(what) } : accept(found.value);
}
