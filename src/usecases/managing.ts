import { maybePerson } from '@/data/people';
import { mustWorkFor, refused, type Doing } from './work';

/** Refuses what is the manager's alone: makers and reviewers may look. A brand that is named has to be theirs too. */
export async function mustManage(act: Doing, brandId: string | null, what = 'changes settings'): Promise<void> {
  if (brandId !== null) await mustWorkFor(act, brandId);
  if ((await maybePerson(act.tx, act.actorId))?.role !== 'manager')
    refused({ code: 'notYours', message: `Only a manager ${what}. Ask one, or work as one.` });
}
