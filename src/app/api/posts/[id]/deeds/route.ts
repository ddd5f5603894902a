import { door } from '@/app/server/door';
import { mixed, string } from 'yup';
import type { ChosenStage } from '@/core/stages/moves';
import type { Network } from '@/core/delivery/network';
import type { Result } from '@/core/refusal';
import { renewPrep } from '@/usecases/prep/prep';
import { correctOut } from '@/usecases/delivery/correctOut';
import { sayTakenDown, takeDown } from '@/usecases/delivery/takeDown';
import { leaveAsSent, sendAnew } from '@/usecases/delivery/notSent';
import {
  askWhetherOut,
  declareOut,
  giveToHand,
  publishNow,
  sayNotOut,
  schedulePost,
  tryAgain,
} from '@/usecases/delivery/schedule';
import { archivePost, bringPostBack, deletePost, putAtStage, restorePost, setPostAside } from '@/usecases/posts/stages';
import { signPostOff, takeSignOffBack } from '@/usecases/posts/signOff';
import { agreeToDraft } from '@/usecases/posts/agreeToDraft';
import { waiveWants } from '@/usecases/posts/waiveWants';
import type { Work } from '@/usecases/useCase';
import { date, fields, maybeText, time, version } from '@/app/server/fields';
import { isId, nothingThere, readBody, refusal } from '@/app/server/request';
import { answerPost } from '../../answer';

const DEEDS = [
  'stage',
  'schedule',
  'publishNow',
  'declareOut',
  'correctOut',
  'setAside',
  'bringBack',
  'delete',
  'restore',
  'archive',
  'unarchive',
  'tryAgain',
  'giveToHand',
  'waive',
  'looksRight',
  'signOff',
  'takeSignOffBack',
  'renewPrep',
  'askNow',
  'notOut',
  'leaveAsSent',
  'sendAnew',
  'takeDown',
  'sayTakenDown',
] as const;

const schema = fields({
  deed: string().oneOf(DEEDS, 'That is not an action of the list.').required(),
  version,
  stage: mixed<ChosenStage>().oneOf(
    ['drafting', 'production', 'signOff', 'ready'] as const,
    'That stage is not chosen by hand.',
  ),
  reason: maybeText('Reason'),
  address: maybeText('Address'),
  date: date.optional(),
  time: time.optional(),
});

interface Deed {
  deed: (typeof DEEDS)[number];
  version: number;
  stage?: ChosenStage;
  reason?: string;
  address?: string;
  /** When it went out, if not now. */
  date?: string | null;
  time?: string | null;
}

/** Does what a person decided about a post: each deed asks for its own right. */
export const POST = door<{ id: string }>('look', async (request, { params }, { app, work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('post');
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const result = await carryOut({ ...work, network: app.network }, id, body.value as Deed);
  if (result.ok && ['publishNow', 'tryAgain'].includes(body.value.deed)) void app.worker.look();
  if (result.ok && body.value.deed === 'askNow') await app.jobs.runSoon('askUnsure');
  return answerPost(app, id, result);
});

const saidAt = ({ date: day, time: at }: Deed) => (day && at ? { date: day, time: at } : null);

function carryOut(work: Work & { network: Network }, id: string, deed: Deed): Promise<Result<unknown>> {
  switch (deed.deed) {
    case 'stage':
      return putAtStage(work, id, deed.version, deed.stage ?? 'drafting');
    case 'schedule':
      return schedulePost(work, id, deed.version);
    case 'publishNow':
      return publishNow(work, id, deed.version);
    case 'declareOut':
      return declareOut(work, id, deed.version, deed.address ?? '', saidAt(deed));
    case 'correctOut':
      return correctOut(work, id, deed.version, { address: deed.address ?? '', at: saidAt(deed) });
    case 'setAside':
      return setPostAside(work, id, deed.version, deed.reason ?? '');
    case 'bringBack':
      return bringPostBack(work, id, deed.version);
    case 'delete':
      return deletePost(work, id, deed.version);
    case 'restore':
      return restorePost(work, id);
    case 'archive':
      return archivePost(work, id, deed.version, true);
    case 'unarchive':
      return archivePost(work, id, deed.version, false);
    case 'tryAgain':
      return tryAgain(work, id, deed.version);
    case 'giveToHand':
      return giveToHand(work, id, deed.version);
    case 'askNow':
      return askWhetherOut(work, id, deed.version);
    case 'notOut':
      return sayNotOut(work, id, deed.version);
    case 'leaveAsSent':
      return leaveAsSent(work, id, deed.version);
    case 'sendAnew':
      return sendAnew(work, id, deed.version);
    case 'takeDown':
      return takeDown(work, id, deed.version, deed.reason ?? '');
    case 'sayTakenDown':
      return sayTakenDown(work, id, deed.version);
    case 'renewPrep':
      return renewPrep(work, { postId: id });
    case 'signOff':
      return signPostOff(work, id, deed.version);
    case 'takeSignOffBack':
      return takeSignOffBack(work, id, deed.version);
    case 'looksRight':
      return agreeToDraft(work, id, deed.version);
    case 'waive':
      return waiveWants(work, id, deed.version, deed.reason ?? '');
  }
}
