import { door } from '@/app/server/door';
import { string } from 'yup';
import { nextUndo } from '@/usecases/calendar/nextUndo';
import { undoChange } from '@/usecases/calendar/undoChange';
import { fields, id } from '@/app/server/fields';
import { answer, askedFor, isId, nothingThere, readBody, refusal } from '@/app/server/request';
import { answerChange } from '../answer';

const schema = fields({ brandId: id('Brand'), changeId: string().uuid().nullable().defined() });

/** Undoes something this person did: the change named, or the last. */
export const POST = door('changePosts', async (request, _context, { app, work }) => {
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  return answerChange(app, work, await undoChange(work, body.value.brandId, body.value.changeId));
});

/** Says what this person would undo next of `?brand=`. */
export const GET = door('look', async (request, _context, { work }) => {
  const brandId = askedFor(request, 'brand');
  return isId(brandId) ? answer(await nextUndo(work, brandId)) : nothingThere('brand');
});
