import { door } from '@/app/server/door';
import { array, object } from 'yup';
import type { RhythmEntry } from '@/core/rhythm/entry';
import { setRhythm } from '@/usecases/rhythm/rhythms';
import { fields } from '@/app/server/fields';
import { answer, isId, nothingThere, readBody, refusal } from '@/app/server/request';
import { pauseFields, pillarField, rhythmEntryFields } from '@/app/server/rhythmFields';

const schema = fields({
  entries: array(object({ ...rhythmEntryFields, pillarId: pillarField }).noUnknown()).required(
    'The entries are missing.',
  ),
  pauses: pauseFields,
});

/** Sets the rhythm of a channel. */
export const POST = door<{ id: string }>('setRhythm', async (request, { params }, { work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('channel');
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const { entries, pauses } = body.value;
  return answer(await setRhythm(work, id, entries as Omit<RhythmEntry, 'id'>[], pauses));
});
