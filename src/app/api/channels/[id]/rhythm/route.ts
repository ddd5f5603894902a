import { door } from '@/app/server/door';
import { array, mixed, object, string } from 'yup';
import type { Recurrence, RhythmEntry } from '@/core/rhythm/entry';
import { setRhythm } from '@/usecases/rhythm/rhythms';
import { date, fields, format, text } from '@/app/server/fields';
import { answer, isId, nothingThere, readBody, refusal } from '@/app/server/request';

const KINDS = ['weekly', 'monthlyWeekday', 'monthlyDate'];
const schema = fields({
  entries: array(
    object({
      recurrence: mixed<Recurrence>()
        .test('kind', 'How often?', (value) => typeof value === 'object' && KINDS.includes(value.kind))
        .required(),
      time: text('Time'),
      format: format.nullable().defined(),
      theme: text('Theme'),
      pillarId: string().uuid('Pillar is not an identifier.').nullable().defined(),
      from: date.defined(),
      to: date.defined(),
    }).noUnknown(),
  ).required('The entries are missing.'),
  pauses: array(object({ name: text('Name'), from: text('From'), to: text('To') }).noUnknown()).required(),
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
