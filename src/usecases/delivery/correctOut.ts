import { quoted } from '@/core/calendar/change';
import { readSaidOut, type SaidOut } from '@/core/delivery/saidOut';
import type { Result } from '@/core/refusal';
import { localOf } from '@/core/time/plan';
import { takePostAt } from '../posts/takePosts';
import { changePost } from '../posts/writePosts';
import { doing, must, refused, type Work } from '../useCase';

/**
 * Corrects where and when a post went out that a person said to be out. What a network took is known from the network, and stays.
 *
 * @param at null to leave the time as it was said
 */
export function correctOut(work: Work, id: string, version: number, { address, at }: SaidOut): Promise<Result<true>> {
  return doing(work, async (act) => {
    const open = await takePostAt(act, id, version, 'send');
    const { post, brand } = open;
    if (post.stage !== 'published' || post.publishedAt === null)
      refused({ code: 'notPublished', message: 'It is not published, so there is nothing to correct.' });
    const said = must(readSaidOut({ address, at }, brand.zone, act.now));
    const when = at === null ? {} : { ...localOf(said.publishedAt, brand.zone), publishedAt: said.publishedAt };
    await changePost(act, {
      open,
      undoneAs: `Corrected where and when ${quoted(post.title)} was published`,
      change: { address: said.address, ...when },
      correctsWord: true,
      deed: 'corrected where and when it was published',
      detail: {
        from: { address: post.address, publishedAt: post.publishedAt },
        to: { address: said.address, ...when },
      },
    });
    return true as const;
  });
}
