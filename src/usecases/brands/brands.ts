import { DELIVERS, type Delivers } from '@/core/delivery/carrier';
import type { RulesOutcome } from '@/core/posts/outcome';
import { listChannels } from '@/data/brands/channels';
import { followRules } from '../delivery/rulesChanged';
import { WORDS_PER_MINUTE } from '@/core/captions/spoken';
import { ENCORE_DAYS } from '@/core/encores/encores';
import { quoted } from '@/core/calendar/change';
import { readTitle } from '@/core/pieces/piece';
import type { DaySpan } from '@/core/rhythm/entry';
import type { Result } from '@/core/refusal';
import { readZone, type Zone } from '@/core/time/plan';
import { readWeekdays, USUAL_WEEKDAYS } from '@/core/prep/workdays';
import { existsBrandSlug, insertBrand, maybeBrandById, updateBrand, type Brand } from '@/data/brands/brands';
import { addToBrand } from '@/data/people/people';
import { replaceDaysOff } from '@/data/rhythm/rhythms';
import { listHoldersWithOpenSteps } from '@/data/prep/steps';
import { recount } from '../prep/countPrep';
import { noteFinal } from '../undo/noteChange';
import { undoably } from '../undo/undoably';
import { mustMay } from '../rights/mustMay';
import { readSpans } from '../rhythm/rhythms';
import { freeSlug } from './freeSlug';
import { takeSetting } from './takeSetting';
import { moveScheduledToZone, type ScheduledKeeps } from './zoneChange';
import { doing, must, notFound, refused, type Acting, type Work } from '../useCase';

/** What can be set of a brand. */
export interface BrandInput {
  name: string;
  zone: Zone;
  weekStart: number;
  /** Weekdays on which work nobody is named for is counted; Monday to Friday where it is not said. */
  weekdays?: readonly number[];
  /** How fast its scripts are spoken; the usual where it is not given. */
  wordsPerMinute?: number;
  /** Whether its posts are signed off before they are ready; not, where it is not said. */
  asksSignOff?: boolean;
  /** Days after which a published post is old enough to come again; the usual where it is not given. */
  encoreDays?: number;
  daysOff: readonly (DaySpan & { name: string })[];
  /** Who delivers its posts; as before where it is not said, by hand for a new one. */
  delivers?: Delivers;
  /** Whether its makers schedule and send: null, and where it is not said, as it asks for sign-off or not. */
  makersSend?: boolean | null;
  /** Whether its makers import and export; not, where it is not said. */
  makersExchange?: boolean;
}

/** Makes a brand; whoever makes it works for it. */
export function makeBrand(work: Work, input: BrandInput): Promise<Result<Brand>> {
  return doing(work, async (act) => {
    await mustMay(act, 'manageHouse', null);
    const brand = await addBrand(act, input);
    await noteFinal(act, `Made the brand ${quoted(brand.name)}`, 'A brand stays once it is made.');
    return brand;
  });
}

/** Adds a brand for which whoever does it works. That they may is the caller's to ask. */
export async function addBrand(act: Acting & { actorId: string }, input: BrandInput): Promise<Brand> {
  const fields = checkBrand(input, 'byHand');
  const brand = { ...fields, id: act.ids(), slug: await freeSlug(fields.name, 'brand', isTaken(act)) };
  await insertBrand(act.tx, { ...brand, position: 1_000 });
  await addToBrand(act.tx, brand.id, act.actorId);
  await replaceDaysOff(act.tx, brand.id, input.daysOff);
  await act.note({ brandId: brand.id, subject: 'brand', subjectId: brand.id, deed: 'made' });
  return brand;
}

/**
 * Changes a brand. Its address stays as it was. With another zone, what is scheduled needs a decision: refused with
 * `confirmZone` while there is none.
 */
export function editBrand(
  work: Work,
  id: string,
  input: BrandInput,
  scheduled: ScheduledKeeps | null = null,
): Promise<Result<Partial<RulesOutcome>>> {
  return doing(work, async (act) => {
    await mustMay(act, 'manageBrand', id);
    const before = await maybeBrandById(act.tx, id);
    if (!before) refused(notFound('brand'));
    await takeSetting(act, 'brand', id);
    const fields = checkBrand(input, before.delivers);
    if (before.zone !== fields.zone) await moveScheduledToZone(act, id, fields.zone, scheduled);
    const isOther = before.zone !== fields.zone || before.delivers !== fields.delivers;
    const watched = { brandId: id, label: 'Changed the brand', things: [{ name: 'brand' as const, id }] };
    await undoably(act, { ...watched, final: isOther ? OTHER_GROUND : null }, async () => {
      await updateBrand(act.tx, id, fields);
      await replaceDaysOff(act.tx, id, input.daysOff);
    });
    const rules =
      before.delivers === fields.delivers
        ? {}
        : await followRules(
            act,
            (await listChannels(act.tx, id)).map((channel) => channel.id),
          );
    const prepared = await listHoldersWithOpenSteps(act.tx, { brandId: id });
    await recount(
      act.tx,
      id,
      prepared.map((holder) => holder.id),
      act.now,
    );
    const detail = before.zone === fields.zone ? {} : { zoneFrom: before.zone, zoneTo: fields.zone };
    await act.note({ brandId: id, subject: 'brand', subjectId: id, deed: 'changed', detail });
    return rules;
  });
}

/** Why a brand with another zone or other ways to send is not put back by a key. */
const OTHER_GROUND =
  'Its time zone or who posts changed, and what is scheduled with it. It is changed back in Settings, Brand.';

/** @param before who delivered its posts until now: as if they were real, made-up networks are only where a demo has them */
function checkBrand(input: BrandInput, before: Delivers) {
  const { name, zone, weekStart, daysOff, weekdays = USUAL_WEEKDAYS } = input;
  const { wordsPerMinute = WORDS_PER_MINUTE.usual, encoreDays = ENCORE_DAYS.usual } = input;
  if (
    !Number.isInteger(wordsPerMinute) ||
    !(wordsPerMinute >= WORDS_PER_MINUTE.least && wordsPerMinute <= WORDS_PER_MINUTE.most)
  )
    refused({
      code: 'badWordsPerMinute',
      field: 'wordsPerMinute',
      message: `A script is spoken at ${WORDS_PER_MINUTE.least} to ${WORDS_PER_MINUTE.most} words a minute.`,
    });
  if (!Number.isInteger(encoreDays) || !(encoreDays >= ENCORE_DAYS.least && encoreDays <= ENCORE_DAYS.most))
    refused({
      code: 'badEncoreDays',
      field: 'encoreDays',
      message: `A post is old enough to come again after ${ENCORE_DAYS.least} to ${ENCORE_DAYS.most} days.`,
    });
  if (!Number.isInteger(weekStart) || weekStart < 1 || weekStart > 7)
    refused({ code: 'badWeekStart', field: 'weekStart', message: 'A week starts on one of seven days.' });
  const { delivers = before } = input;
  if (!DELIVERS.includes(delivers) || (delivers === 'networks' && before !== 'networks'))
    refused({ code: 'badDelivers', field: 'delivers', message: 'By hand, or for practice?' });
  must(readSpans(daysOff, 'daysOff'));
  return {
    name: must(readTitle(name, 'name')),
    zone: must(readZone(zone)),
    weekStart,
    weekdays: must(readWeekdays(weekdays)),
    wordsPerMinute,
    asksSignOff: input.asksSignOff ?? false,
    encoreDays,
    delivers,
    makersSend: input.makersSend ?? null,
    makersExchange: input.makersExchange ?? false,
  };
}

/** Addresses that are not a brand's. */
const RESERVED_SLUGS = ['api', 'standins', 'bench', 'settings', 'who', 'begin'];

const isTaken =
  (act: Acting) =>
  async (slug: string): Promise<boolean> =>
    RESERVED_SLUGS.includes(slug) || existsBrandSlug(act.tx, slug);
