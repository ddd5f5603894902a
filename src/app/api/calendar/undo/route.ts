import { door } from '@/app/server/door';
import { string } from 'yup';
import { nextUndo } from '@/usecases/undo/next';
import { redoChange, undoChange } from '@/usecases/undo/undoChange';
import { fields, id } from '@/app/server/fields';
import { answer, askedFor, isId, nothingThere, readBody, refusal } from '@/app/server/request';
import { answerChange } from '../answer';

const schema = fields({
  brandId: id('Brand'),
  changeId: string().uuid().nullable().defined(),
  direction: string().oneOf(['undo', 'redo']).default('undo'),
});

/** Undoes something this person did, the change named or the last; or redoes what they undid last. */
export const POST = door('look', async (request, _context, { app, work }) => {
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const { brandId, changeId, direction } = body.value;
  const done = direction === 'redo' ? redoChange(work, brandId) : undoChange(work, brandId, changeId);
  return answerChange(app, work, await done);
});

/** Says what this person would undo and redo next of `?brand=`. */
export const GET = door('look', async (request, _context, { work }) => {
  const brandId = askedFor(request, 'brand');
  return isId(brandId) ? answer(await nextUndo(work, brandId)) : nothingThere('brand');
});
