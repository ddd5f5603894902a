import type { Metadata } from 'next';
import { brandIdsOfPeople, listPeopleDaysOff } from '@/usecases/people/reading';
import { listSettingVersions } from '@/usecases/brands/reading';
import { countOpenSteps } from '@/usecases/prep/reading';
import { brandOfPage } from '@/app/server/brand';
import { listEntryLinks, listPasswordsSet } from '@/usecases/signIn/reading';
import type { Entry } from './PersonEntry';
import { PeopleSettings } from './PeopleSettings';

export const metadata: Metadata = { title: 'People' };

/** Who works for the brand, when, and on what. */
export default async function PeoplePage({ params }: { params: Promise<{ brand: string }> }) {
  const { db, brand, brands, people, me, may, now } = await brandOfPage((await params).brand);
  const ids = people.map(({ id }) => id);
  const [brandIds, daysOff, openSteps, versions, passwords, links] = await Promise.all([
    brandIdsOfPeople(db, ids),
    listPeopleDaysOff(db, ids),
    countOpenSteps(db, ids),
    listSettingVersions(db, 'person', ids),
    listPasswordsSet(db, ids),
    listEntryLinks(db, ids, now),
  ]);
  const mine = brandIds.get(me.id) ?? [];
  const entryOf = (id: string): Entry => ({
    hasPassword: passwords.has(id),
    link: links.find(({ personId }) => personId === id) ?? null,
  });
  const rows = people.map((person) => ({
    ...person,
    brandIds: brandIds.get(person.id) ?? [],
    daysOff: daysOff.filter(({ personId }) => personId === person.id),
    openSteps: openSteps.get(person.id) ?? 0,
    version: versions.get(person.id) ?? 0,
    entry: may('manageHouse') ? entryOf(person.id) : null,
  }));
  return (
    <PeopleSettings
      people={rows}
      brands={brands.filter(({ id }) => mine.includes(id)).map(({ id, name }) => ({ id, name }))}
      brandId={brand.id}
      zone={brand.zone}
    />
  );
}
