import { ROLES, type Role } from '@/core/rights/may';
import { readHex } from '@/core/brands/colours';
import { quoted } from '@/core/calendar/change';
import { readTitle } from '@/core/pieces/piece';
import { CRAFTS, type Craft } from '@/core/prep/step';
import { readWeekdays } from '@/core/prep/workdays';
import { groupBy } from '@/core/group';
import type { DaySpan } from '@/core/rhythm/entry';
import { accept, refuse, type Result } from '@/core/refusal';
import { readZone, type Zone } from '@/core/time/plan';
import {
  archivePerson,
  countManagers,
  existsPersonSlug,
  insertPerson,
  listBrandIdsOf,
  maybePerson,
  replaceBrandsOfPerson,
  replacePeopleDaysOff,
  updatePerson,
} from '@/data/people/people';
import { listOpenStepIdsOf, listHoldersWithOpenSteps } from '@/data/prep/steps';
import { recount } from '../prep/countPrep';
import { noteFinal } from '../undo/noteChange';
import { mustMay } from '../rights/mustMay';
import { handOver } from '../prep/prep';
import { readSpans } from '../rhythm/rhythms';
import { writeAudit } from '@/data/signIn/audit';
import { deleteEntryLinksOf } from '@/data/signIn/entryLinks';
import { deleteSignInsOf } from '@/data/signIn/signIns';
import { freeSlug } from '../brands/freeSlug';
import { mustBeOfMine } from './mustBeOfMine';
import { takeSetting } from '../brands/takeSetting';
import { doing, must, notFound, refused, type Doing, type Work } from '../useCase';

/** What can be set of a person. */
export interface PersonInput {
  name: string;
  role: Role;
  zone: Zone;
  crafts: readonly Craft[];
  weekdays: readonly number[];
  /** Minutes of work a day, 0 to 1440. */
  minutesPerDay: number;
  color: string;
  /** The brands they work for, among those of whoever sets it. */
  brandIds: readonly string[];
  daysOff: readonly (DaySpan & { name: string })[];
}

/** Adds a person, or changes one: with an id. Steps of theirs that are open are counted anew. */
export function savePerson(work: Work, id: string | null, input: PersonInput): Promise<Result<{ id: string }>> {
  return doing(work, async (act) => {
    await mustMay(act, 'manageHouse', null);
    const fields = must(readPerson(input));
    const mine = await listBrandIdsOf(act.tx, act.actorId);
    const brandIds = input.brandIds.filter((brandId) => mine.includes(brandId));
    if (brandIds.length === 0 || brandIds.length < input.brandIds.length)
      refused({ code: 'noBrand', field: 'brandIds', message: 'Choose at least one brand that you work for yourself.' });
    must(readSpans(input.daysOff, 'daysOff'));
    if (id === null) {
      const person = {
        ...fields,
        id: act.ids(),
        slug: await freeSlug(fields.name, 'person', (slug) => existsPersonSlug(act.tx, slug)),
      };
      await insertPerson(act.tx, { ...person, position: 1_000 }, brandIds);
      await replacePeopleDaysOff(act.tx, person.id, input.daysOff);
      await writeAudit(act.tx, {
        ...{ at: act.now, kind: 'personAdded', actorId: act.actorId, personId: person.id, detail: fields.role },
      });
      await noteFinal(act, `Added ${quoted(fields.name)}`, IN_SETTINGS);
      return { id: person.id };
    }
    const before = (await maybePerson(act.tx, id)) ?? refused(notFound('person'));
    await mustBeOfMine(act, id);
    await takeSetting(act, 'person', id);
    if (before.role === 'manager' && fields.role !== 'manager') await mustNotBeLastManager(act);
    const left = (await listBrandIdsOf(act.tx, id)).filter(
      (brandId) => mine.includes(brandId) && !brandIds.includes(brandId),
    );
    await mustHaveNoSteps(act, id, left);
    await updatePerson(act.tx, { ...fields, id });
    if (before.role !== fields.role) {
      const detail = `${before.role} → ${fields.role}`;
      await writeAudit(act.tx, { at: act.now, kind: 'roleChanged', actorId: act.actorId, personId: id, detail });
    }
    await replaceBrandsOfPerson(act.tx, id, mine, brandIds);
    await replacePeopleDaysOff(act.tx, id, input.daysOff);
    const prepared = await listHoldersWithOpenSteps(act.tx, { personId: id });
    for (const [brandId, own] of groupBy(prepared, (holder) => holder.brandId))
      await recount(
        act.tx,
        brandId,
        own.map((holder) => holder.id),
        act.now,
      );
    await noteFinal(act, `Changed ${quoted(fields.name)}`, IN_SETTINGS);
    return { id };
  });
}

/** Why what was done to people is not undone by a key: it says who may come in. */
const IN_SETTINGS = 'Who may do what is changed back in Settings, People.';

/**
 * Archives a person, who keeps what they did. Their open steps have to be somebody's: refused while there are any, unless
 * they are handed to another person with it.
 */
export function archivePersonOf(work: Work, id: string, stepsTo: string | null): Promise<Result<{ handed: number }>> {
  return doing(work, async (act) => {
    await mustMay(act, 'manageHouse', null);
    const person = (await maybePerson(act.tx, id)) ?? refused(notFound('person'));
    await mustBeOfMine(act, id);
    if (id === act.actorId)
      refused({ code: 'oneself', message: 'You cannot archive yourself. Work as another manager, then do it.' });
    if (person.role === 'manager') await mustNotBeLastManager(act);
    let handed = 0;
    if (stepsTo !== null) {
      if (stepsTo === id)
        refused({ code: 'samePerson', field: 'stepsTo', message: 'Reassign the steps to somebody else.' });
      handed = (await handOver(act, await listOpenStepIdsOf(act.tx, id), stepsTo)).count;
    }
    await mustHaveNoSteps(act, id, null);
    await archivePerson(act.tx, id, act.now);
    await deleteSignInsOf(act.tx, id);
    await deleteEntryLinksOf(act.tx, id);
    await writeAudit(act.tx, { at: act.now, kind: 'personArchived', actorId: act.actorId, personId: id });
    await noteFinal(act, `Archived ${quoted(person.name)}`, IN_SETTINGS);
    return { handed };
  });
}

async function mustHaveNoSteps(act: Doing, personId: string, brandIds: readonly string[] | null): Promise<void> {
  const { length } = await listOpenStepIdsOf(act.tx, personId, brandIds);
  if (length > 0)
    refused({
      code: 'ownsSteps',
      message: `${length === 1 ? 'One open step is' : `${length} open steps are`} theirs. Reassign them first.`,
    });
}

async function mustNotBeLastManager(act: Doing): Promise<void> {
  if ((await countManagers(act.tx)) < 2)
    refused({ code: 'lastManager', field: 'role', message: 'Somebody has to be manager. Make another one first.' });
}

function readPerson(input: PersonInput): Result<Omit<PersonInput, 'brandIds' | 'daysOff'> & ReadPerson> {
  const name = readTitle(input.name, 'name');
  if (!name.ok) return name;
  const weekdays = readWeekdays(input.weekdays);
  if (!weekdays.ok) return weekdays;
  if (!ROLES.includes(input.role)) return refuse('badRole', 'Manager, maker or reviewer?', 'role');
  const zone = readZone(input.zone);
  if (!zone.ok) return zone;
  if (input.crafts.some((craft) => !CRAFTS.includes(craft)))
    return refuse('badCraft', 'That is not a skill of the list. Choose one.', 'crafts');
  if (!Number.isInteger(input.minutesPerDay) || input.minutesPerDay < 0 || input.minutesPerDay > 1_440)
    return refuse('badHours', 'A day has 0 to 24 hours of work.', 'minutesPerDay');
  const color = readHex(input.color);
  if (!color.ok) return color;
  const { role, minutesPerDay } = input;
  return accept({
    name: name.value,
    role,
    zone: zone.value,
    crafts: [...new Set(input.crafts)],
    weekdays: weekdays.value,
    minutesPerDay,
    color: color.value,
  });
}

/** What reading adds to what was typed: lists of their own. */
interface ReadPerson {
  crafts: Craft[];
  weekdays: number[];
}
