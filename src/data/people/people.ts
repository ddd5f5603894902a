import type { Craft } from '@/core/prep/step';
import { USUAL_WEEKDAYS, type WorkCalendar } from '@/core/prep/workdays';
import type { Actor, Role } from '@/core/rights/may';
import type { DaySpan } from '@/core/rhythm/entry';
import type { Instant, Zone } from '@/core/time/plan';
import type { Queryable } from '../database/db';

/** Somebody who works here. */
export interface Person {
  id: string;
  slug: string;
  name: string;
  role: Role;
  zone: Zone;
  /** What they can do, for steps that name a craft and no person. */
  crafts: Craft[];
  /** Weekdays they work on, 1 for Monday to 7 for Sunday. */
  weekdays: number[];
  minutesPerDay: number;
  /** Marks what is theirs, where colour means the owner. */
  color: string;
}

const COLUMNS =
  'p.id, p.slug, p.name, p.role, p.zone, p.crafts, p.weekdays, p.minutes_per_day as "minutesPerDay", p.color';

/** The people of a brand who are not archived, in their order. */
export function listPeopleOfBrand(db: Queryable, brandId: string): Promise<Person[]> {
  return db.rows<Person>(
    `select ${COLUMNS} from people p join brand_people b on b.person_id = p.id
     where b.brand_id = $1 and p.archived_at is null order by p.position, p.name`,
    [brandId],
  );
}

/** Somebody who works here, as far as their rights depend on it; not, where they are archived. */
export async function maybeActor(db: Queryable, id: string): Promise<Actor | undefined> {
  return (
    await db.rows<Actor>(
      `select p.role, coalesce((select array_agg(b.brand_id::text) from brand_people b where b.person_id = p.id), '{}')
         as "brandIds"
       from people p where p.id = $1 and p.archived_at is null`,
      [id],
    )
  )[0];
}

/** The person with that slug who is not archived, if there is one. */
export async function maybePersonBySlug(db: Queryable, slug: string): Promise<Person | undefined> {
  return (
    await db.rows<Person>(`select ${COLUMNS} from people p where p.slug = $1 and p.archived_at is null`, [slug])
  )[0];
}

/** Whether a person works for a brand. */
export async function worksForBrand(db: Queryable, personId: string, brandId: string): Promise<boolean> {
  const found = await db.rows(
    `select 1 from brand_people b join people p on p.id = b.person_id
     where b.person_id = $1 and b.brand_id = $2 and p.archived_at is null`,
    [personId, brandId],
  );
  return found.length > 0;
}

/** For which brands people work, those of them who are not archived. */
export function listWorkersOf(
  db: Queryable,
  personIds: readonly string[],
): Promise<{ brandId: string; personId: string }[]> {
  return db.rows(
    `select b.brand_id as "brandId", b.person_id as "personId" from brand_people b join people p on p.id = b.person_id
     where b.person_id = any($1::uuid[]) and p.archived_at is null`,
    [personIds],
  );
}

/** How somebody works until they say otherwise. */
export const USUAL_WORK: Pick<Person, 'zone' | 'crafts' | 'weekdays' | 'minutesPerDay' | 'color'> = {
  zone: 'UTC',
  crafts: [],
  weekdays: [...USUAL_WEEKDAYS],
  minutesPerDay: 360,
  color: '#5C6470',
};

/** Adds a person and the brands they work for; what is not said of how they work is as usual. */
export async function insertPerson(
  tx: Queryable,
  given: Omit<Person, keyof typeof USUAL_WORK> & Partial<typeof USUAL_WORK> & { position: number },
  brandIds: readonly string[],
): Promise<void> {
  const person = { ...USUAL_WORK, ...given };
  await tx.run(
    `insert into people (id, slug, name, role, position, zone, crafts, weekdays, minutes_per_day, color)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)`,
    [
      person.id,
      person.slug,
      person.name,
      person.role,
      person.position,
      person.zone,
      person.crafts,
      person.weekdays,
      person.minutesPerDay,
      person.color,
    ],
  );
  await tx.run('insert into brand_people (brand_id, person_id) select unnest($1::uuid[]), $2', [brandIds, person.id]);
}

/** Writes what can be set of a person. @returns whether they are there */
export async function updatePerson(tx: Queryable, person: Omit<Person, 'slug'>): Promise<boolean> {
  const changed = await tx.run(
    `update people set name = $2, role = $3, zone = $4, crafts = $5, weekdays = $6, minutes_per_day = $7, color = $8
     where id = $1 and archived_at is null`,
    [
      person.id,
      person.name,
      person.role,
      person.zone,
      person.crafts,
      person.weekdays,
      person.minutesPerDay,
      person.color,
    ],
  );
  return changed === 1;
}

/** Archives a person: they keep what they did and are offered no more. */
export async function archivePerson(tx: Queryable, id: string, at: Instant): Promise<void> {
  await tx.run('update people set archived_at = $2 where id = $1', [id, at]);
}

/** Whether somebody, also of those archived, has that slug. */
export async function existsPersonSlug(db: Queryable, slug: string): Promise<boolean> {
  return (await db.rows('select 1 from people where slug = $1', [slug])).length > 0;
}

/** How many managers are not archived. */
export async function countManagers(db: Queryable): Promise<number> {
  const [row] = await db.rows<{ count: number }>(
    `select count(*)::int as count from people where role = 'manager' and archived_at is null`,
  );
  return row!.count;
}

/** Whether anybody is, or was, here. */
export async function existsAnybody(db: Queryable): Promise<boolean> {
  return (await db.rows('select 1 from people limit 1')).length > 0;
}

/** Lets nobody else add people until the transaction ends. */
export async function lockPeople(tx: Queryable): Promise<void> {
  await tx.run('lock table people in share row exclusive mode');
}

/** The days off of people, earliest first. */
export function listPeopleDaysOff(
  db: Queryable,
  personIds: readonly string[],
): Promise<(DaySpan & { id: string; personId: string; name: string })[]> {
  return db.rows(
    `select id, person_id as "personId", name, from_date as "from", to_date as "to" from people_days_off
     where person_id = any($1::uuid[]) order by from_date, id`,
    [personIds],
  );
}

/** Replaces the days off of a person. */
export async function replacePeopleDaysOff(
  tx: Queryable,
  personId: string,
  spans: readonly (DaySpan & { name: string })[],
): Promise<void> {
  await tx.run('delete from people_days_off where person_id = $1', [personId]);
  await tx.run(
    `insert into people_days_off (id, person_id, name, from_date, to_date)
     select gen_random_uuid(), $1, x.name, x."from", x."to"
     from jsonb_to_recordset($2::jsonb) as x (name text, "from" date, "to" date)`,
    [personId, JSON.stringify(spans)],
  );
}

/** When people work: their weekdays without their days off, by id. */
export async function workCalendars(db: Queryable, personIds: readonly string[]): Promise<Map<string, WorkCalendar>> {
  const people = await db.rows<{ id: string; weekdays: number[] }>(
    'select id, weekdays from people where id = any($1::uuid[])',
    [personIds],
  );
  const spans = await listPeopleDaysOff(db, personIds);
  return new Map(
    people.map(({ id, weekdays }) => [id, { weekdays, daysOff: spans.filter((span) => span.personId === id) }]),
  );
}

/** The person with that id, if there is one. */
export async function maybePerson(db: Queryable, id: string): Promise<Person | undefined> {
  return (await db.rows<Person>(`select ${COLUMNS} from people p where p.id = $1 and p.archived_at is null`, [id]))[0];
}

/** Says for which of these brands a person works; others are left as they are. */
export async function replaceBrandsOfPerson(
  tx: Queryable,
  personId: string,
  among: readonly string[],
  brandIds: readonly string[],
): Promise<void> {
  await tx.run('delete from brand_people where person_id = $1 and brand_id = any($2::uuid[])', [personId, among]);
  await tx.run('insert into brand_people (brand_id, person_id) select unnest($1::uuid[]), $2', [brandIds, personId]);
}

/** The ids of the brands a person works for. */
export async function listBrandIdsOf(db: Queryable, personId: string): Promise<string[]> {
  return (await brandIdsOfPeople(db, [personId])).get(personId) ?? [];
}

/** The ids of the brands that people work for, by person. */
export async function brandIdsOfPeople(db: Queryable, personIds: readonly string[]): Promise<Map<string, string[]>> {
  const rows = await db.rows<{ personId: string; brandIds: string[] }>(
    `select person_id as "personId", array_agg(brand_id) as "brandIds" from brand_people
     where person_id = any($1::uuid[]) group by person_id`,
    [personIds],
  );
  return new Map(rows.map(({ personId, brandIds }) => [personId, brandIds]));
}

/** Lets a person work for a brand. */
export async function addToBrand(tx: Queryable, brandId: string, personId: string): Promise<void> {
  await tx.run('insert into brand_people (brand_id, person_id) values ($1, $2) on conflict do nothing', [
    brandId,
    personId,
  ]);
}
