/**
 * A post that is to have pictures of the set, and how many its format takes.
 *
 * @internal
 */
export interface WantsPictures {
  key: string;
  channelId: string;
  least: number;
  most: number;
}

/**
 * Deals the pictures of a set out in their order, each once on a channel: a post that takes one gets one; one that takes several
 * gets what is left for it when all later posts of its channel have their least. A post for which too few are left gets none.
 *
 * @returns pictures by the key of the post, in their order
 */
export function dealPictures<P>(posts: readonly WantsPictures[], pictures: readonly P[]): Map<string, P[]> {
  const dealt = new Map<string, P[]>();
  const next = new Map<string, number>();
  posts.forEach((post, at) => {
    const from = next.get(post.channelId) ?? 0;
    const later = posts.slice(at + 1).filter(({ channelId }) => channelId === post.channelId);
    const kept = later.reduce((sum, { least }) => sum + Math.max(1, least), 0);
    const left = pictures.length - from;
    const wanted = Math.max(1, post.least);
    const count = left < wanted ? 0 : Math.min(post.most, Math.max(wanted, left - kept));
    dealt.set(post.key, pictures.slice(from, from + count));
    next.set(post.channelId, from + count);
  });
  return dealt;
}
