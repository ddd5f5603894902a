import { string } from 'yup';
import { door } from '@/app/server/door';
import { fields, maybeText } from '@/app/server/fields';
import { answer, isId, nothingThere, readBody, refusal } from '@/app/server/request';
import { keepProposal, throwAway } from '@/usecases/proposals/proposals';

const schema = fields({
  deed: string().oneOf(['keep', 'throwAway', 'takeBack'], 'Accepted or rejected?').required(),
  caption: maybeText('Text').nullable(),
});

/** Keeps what was drawn up as a post, throws it away, or takes that back. */
export const POST = door<{ id: string }>('changePosts', async (request, { params }, { app, work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('proposal');
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const { deed, caption } = body.value;
  return answer(
    deed === 'keep'
      ? await keepProposal({ ...work, folder: app.folder.media }, id, caption ?? null)
      : await throwAway(work, id, deed === 'takeBack'),
  );
});
