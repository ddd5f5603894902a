import { makeParcel } from '@/core/delivery/parcel';
import { mayEdit } from '@/core/stages/moves';
import type { Result } from '@/core/refusal';
import { mustMay } from '../rights/mustMay';
import { takePostAt } from './takePosts';
import { doing, must, refused, type Work } from '../useCase';
import { changePost } from './writePosts';

/** Signs a post off as it stands. Once its words or pictures change, that holds no more. */
export function signPostOff(work: Work, postId: string, version: number): Promise<Result<true>> {
  return doing(work, async (act) => {
    const open = await takePostAt(act, postId, version);
    const { post, pictures, channel, brand } = open;
    must(mayEdit(open.facts));
    await mustMay(act, 'signOff', open.post.brandId);
    if (!brand.asksSignOff)
      refused({ code: 'notAsked', message: `${brand.name} asks for no sign-off. Its settings say whether it does.` });
    const copy = makeParcel({ ...post, pictures }, channel);
    await changePost(act, { open, change: { signOff: { by: act.actorId, at: act.now, copy } }, deed: 'signed off' });
    return true as const;
  });
}

/** Takes a sign-off back. A post that is ready or scheduled stays so; it needs a new one to be scheduled again. */
export function takeSignOffBack(work: Work, postId: string, version: number): Promise<Result<true>> {
  return doing(work, async (act) => {
    const open = await takePostAt(act, postId, version);
    must(mayEdit(open.facts));
    await mustMay(act, 'signOff', open.post.brandId);
    if (open.post.signOff === null) refused({ code: 'nothing', message: 'Nobody has signed it off.' });
    await changePost(act, { open, change: { signOff: null }, deed: 'sign-off taken back' });
    return true as const;
  });
}
