import { quoted } from '@/core/calendar/change';
import { makeParcel } from '@/core/delivery/parcel';
import { mayEdit } from '@/core/stages/moves';
import type { Result } from '@/core/refusal';
import { takePostAt } from './takePosts';
import { doing, must, refused, type Work } from '../useCase';
import { changePost } from './writePosts';

/** Signs a post off as it stands. Once its words or pictures change, that holds no more. */
export function signPostOff(work: Work, postId: string, version: number): Promise<Result<true>> {
  return doing(work, async (act) => {
    const open = await takePostAt(act, postId, version, 'signOff');
    const { post, pictures, channel, brand } = open;
    must(mayEdit(open.facts));
    if (!brand.asksSignOff)
      refused({ code: 'notAsked', message: `${brand.name} asks for no sign-off. Its settings say whether it does.` });
    const copy = makeParcel({ ...post, pictures }, channel);
    await changePost(act, {
      ...{ open, change: { signOff: { by: act.actorId, at: act.now, copy } }, deed: 'signed off' },
      undoneAs: `Signed off ${quoted(post.title)}`,
    });
    return true as const;
  });
}

/** Takes a sign-off back. A post that is ready or scheduled stays so; it needs a new one to be scheduled again. */
export function takeSignOffBack(work: Work, postId: string, version: number): Promise<Result<true>> {
  return doing(work, async (act) => {
    const open = await takePostAt(act, postId, version, 'signOff');
    must(mayEdit(open.facts));
    if (open.post.signOff === null) refused({ code: 'nothing', message: 'Nobody has signed it off.' });
    if (open.post.signOff.by !== act.actorId && !open.may('waive').ok)
      refused({ code: 'notYours', message: 'Somebody else signed it off: only they or a manager take that back.' });
    const undoneAs = `Took back the sign-off of ${quoted(open.post.title)}`;
    await changePost(act, { open, change: { signOff: null }, deed: 'sign-off taken back', undoneAs });
    return true as const;
  });
}
