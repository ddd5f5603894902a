import { numbersByDay } from '@/core/repeats/follow';
import { roundTitle } from '@/core/repeats/repeat';
import { listRepeatPosts, maybeRepeat, renumberPosts } from '@/data/repeats/repeats';
import type { Acting } from '../useCase';

/** What a post is numbered and called since. */
interface Renumbered {
  number: number;
  title: string;
}

/**
 * Lets the numbers of repeats rise with the days of their posts, and the titles that say them follow. What is published keeps its number.
 *
 * @returns the posts that got another number
 */
export async function keepNumbers(act: Acting, repeatIds: Iterable<string>): Promise<Map<string, Renumbered>> {
  const changed = new Map<string, Renumbered>();
  for (const repeatId of new Set(repeatIds)) {
    const repeat = (await maybeRepeat(act.tx, repeatId))!;
    const posts = await listRepeatPosts(act.tx, repeatId);
    const numbers = numbersByDay(posts.map((post) => ({ ...post, isPublished: post.stage === 'published' })));
    const renumbered = posts.flatMap(({ id, number, title }) => {
      const to = numbers.get(id);
      if (to === undefined) return [];
      return [{ id, number: to, title: title === roundTitle(repeat, number) ? roundTitle(repeat, to) : title }];
    });
    if (renumbered.length === 0) continue;
    await renumberPosts(act.tx, repeatId, renumbered);
    for (const { id, number, title } of renumbered) changed.set(id, { number, title });
    await act.note(
      ...renumbered.map(({ id, number }) => ({
        brandId: repeat.brandId,
        subject: 'post' as const,
        subjectId: id,
        deed: 'numbered anew',
        detail: { number },
      })),
    );
  }
  return changed;
}
