import { door } from '@/app/server/door';
import { array, bool, number, object, string } from 'yup';
import { editBrand, makeBrand, type BrandInput } from '@/usecases/brands/brands';
import { listZoneMoves, type ScheduledKeeps } from '@/usecases/brands/zoneChange';
import { DELIVERS } from '@/core/delivery/carrier';
import { isZone } from '@/core/time/plan';
import { ofBrand } from '@/usecases/rights/readFor';
import { fields, text } from '@/app/server/fields';
import { answer, askedFor, done, isId, readBody, refusal } from '@/app/server/request';

const schema = fields({
  id: string().uuid().nullable().defined(),
  name: text('Name'),
  zone: text('Time zone'),
  weekStart: number().integer().required(),
  wordsPerMinute: number().integer().optional(),
  encoreDays: number().integer().optional(),
  asksSignOff: bool().optional(),
  makersSend: bool().nullable().optional(),
  makersExchange: bool().optional(),
  delivers: string()
    .oneOf([...DELIVERS], 'By hand, or for practice?')
    .optional(),
  weekdays: array(number().integer().required()).optional(),
  daysOff: array(object({ name: text('Name'), from: text('From'), to: text('To') }).noUnknown()).required(),
  scheduled: string().oneOf(['moment', 'clock'], 'Say what scheduled posts keep: the moment or the clock.').nullable(),
});

/** The scheduled posts of `?brand=`, and what the zone `?zone=` would make of them. */
export const GET = door('look', async (request, _context, { work }) => {
  const [brandId, zone] = [askedFor(request, 'brand'), askedFor(request, 'zone')];
  if (!isId(brandId) || !isZone(zone)) return done([]);
  return answer(await ofBrand(work, brandId, () => listZoneMoves(work.db, brandId, zone, work.clock.now())));
});

/** Makes a brand, or changes the one named. */
export const POST = door('manageHouse', async (request, _context, { work }) => {
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  const { id, scheduled, ...input } = body.value as {
    id: string | null;
    scheduled?: ScheduledKeeps | null;
  } & BrandInput;
  return answer(id === null ? await makeBrand(work, input) : await editBrand(work, id, input, scheduled ?? null));
});
