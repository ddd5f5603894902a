import type { Metadata } from 'next';
import { listBrandIdsOf, listPeopleDaysOff } from '@/data/people';
import { listOpenStepIdsOf } from '@/data/steps';
import { brandOfPage } from '@/app/server/brand';
import { PeopleSettings } from './PeopleSettings';

export const metadata: Metadata = { title: 'People' };

/** Who works for the brand, when, and on what. */
export default async function PeoplePage({ params }: { params: Promise<{ brand: string }> }) {
  const { db, brand, brands, people, me } = await brandOfPage((await params).brand);
  const mine = await listBrandIdsOf(db, me.id);
  const daysOff = await listPeopleDaysOff(
    db,
    people.map(({ id }) => id),
  );
  const rows = await Promise.all(
    people.map(async (person) => ({
      ...person,
      brandIds: await listBrandIdsOf(db, person.id),
      daysOff: daysOff.filter(({ personId }) => personId === person.id),
      openSteps: (await listOpenStepIdsOf(db, person.id)).length,
    })),
  );
  return (
    <PeopleSettings
      people={rows}
      brands={brands.filter(({ id }) => mine.includes(id)).map(({ id, name }) => ({ id, name }))}
      brandId={brand.id}
      zone={brand.zone}
    />
  );
}
