import { boolean, number } from 'yup';
import { door } from '@/app/server/door';
import { fields } from '@/app/server/fields';
import { answer, isId, nothingThere, readBody, refusal } from '@/app/server/request';
import type { RepeatSaid } from '@/core/repeats/repeat';
import { readRepeatToChange } from '@/usecases/repeats/reading';
import { changeRepeat, endRepeat } from '@/usecases/repeats/repeats';
import { repeatFields } from '../fields';

const schema = fields({
  ...repeatFields,
  fromNumber: number().typeError('The number is a number.').nullable().defined(),
  writtenToo: boolean().required('Do written posts follow?'),
});

/** A repeat with all that can be set of it. */
export const GET = door<{ id: string }>('runRepeats', async (_request, { params }, { work }) => {
  const { id } = await params;
  return isId(id) ? answer(await readRepeatToChange(work, id)) : nothingThere('repeat');
});

/** Changes a repeat from here on. */
export const POST = door<{ id: string }>('runRepeats', async (request, { params }, { work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('repeat');
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const { fromNumber, writtenToo, ...said } = body.value;
  return answer(await changeRepeat(work, id, said as RepeatSaid, { fromNumber, writtenToo }));
});

/** Ends a repeat. */
export const DELETE = door<{ id: string }>('runRepeats', async (_request, { params }, { work }) => {
  const { id } = await params;
  if (!isId(id)) return nothingThere('repeat');
  return answer(await endRepeat(work, id));
});
