import type { Queryable } from './db';

/** What a person may do: managers everything, makers make, reviewers give verdicts. */
export type Role = 'manager' | 'maker' | 'reviewer';

/** Somebody who works here. */
export interface Person {
  id: string;
  slug: string;
  name: string;
  role: Role;
}

const COLUMNS = 'p.id, p.slug, p.name, p.role';

/** The people of a brand who are not archived, in their order. */
export function listPeopleOfBrand(db: Queryable, brandId: string): Promise<Person[]> {
  return db.rows<Person>(
    `select ${COLUMNS} from people p join brand_people b on b.person_id = p.id
     where b.brand_id = $1 and p.archived_at is null order by p.position, p.name`,
    [brandId],
  );
}

/** Who works here, first of all: the person one is until one says otherwise. */
export async function maybeFirstPerson(db: Queryable): Promise<Person | undefined> {
  return (
    await db.rows<Person>(`select ${COLUMNS} from people p where p.archived_at is null order by p.position limit 1`)
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

/** Adds a person and the brands they work for. */
export async function insertPerson(
  tx: Queryable,
  person: Person & { position: number },
  brandIds: readonly string[],
): Promise<void> {
  await tx.run('insert into people (id, slug, name, role, position) values ($1, $2, $3, $4, $5)', [
    person.id,
    person.slug,
    person.name,
    person.role,
    person.position,
  ]);
  await tx.run('insert into brand_people (brand_id, person_id) select unnest($1::uuid[]), $2', [brandIds, person.id]);
}

/** The person with that id, if there is one. */
export async function maybePerson(db: Queryable, id: string): Promise<Person | undefined> {
  return (await db.rows<Person>(`select ${COLUMNS} from people p where p.id = $1 and p.archived_at is null`, [id]))[0];
}

/** Lets a person work for a brand. */
export async function addToBrand(tx: Queryable, brandId: string, personId: string): Promise<void> {
  await tx.run('insert into brand_people (brand_id, person_id) values ($1, $2) on conflict do nothing', [
    brandId,
    personId,
  ]);
}
