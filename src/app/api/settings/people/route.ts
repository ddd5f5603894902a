import { door } from '@/app/server/door';
import { array, number, object, string } from 'yup';
import { archivePersonOf, savePerson, type PersonInput } from '@/usecases/people/people';
import { fields, id, text } from '@/app/server/fields';
import { answer, readBody, refusal } from '@/app/server/request';

const saved = fields({
  id: string().uuid().nullable().defined(),
  name: text('Name'),
  role: string().required('Manager, maker or reviewer?'),
  zone: text('Time zone'),
  crafts: array(string().required()).required(),
  weekdays: array(number().integer().required()).required(),
  minutesPerDay: number().typeError('Hours are a number.').required('How many hours a day?'),
  color: text('Colour'),
  brandIds: array(string().uuid().required()).required(),
  daysOff: array(object({ name: text('Name'), from: text('From'), to: text('To') }).noUnknown()).required(),
});
const archived = fields({ id: id('Person'), stepsTo: string().uuid().nullable().defined() });

/** Adds a person, or changes the one named. */
export const POST = door('manageHouse', async (request, _context, { work }) => {
  const body = await readBody(request, saved);
  if (!body.ok) return refusal(body.refusal);
  const { id: personId, ...input } = body.value;
  return answer(await savePerson(work, personId, input as PersonInput));
});

/** Archives a person, their open steps handed to another where one is named. */
export const DELETE = door('manageHouse', async (request, _context, { work }) => {
  const body = await readBody(request, archived);
  return body.ok ? answer(await archivePersonOf(work, body.value.id, body.value.stepsTo)) : refusal(body.refusal);
});
