import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { connection } from 'next/server';
import { listBrands, maybeBrandBySlug } from '@/usecases/brands/reading';
import { listPeopleOfBrand, type Person } from '@/usecases/people/reading';
import { bimlo } from '@/runtime/bimlo';
import { isDemo } from '../server/who';
import { ChoosePerson } from './ChoosePerson';

export const metadata: Metadata = { title: 'Who are you?' };

/** The people to choose from, of `?brand=` or of all brands, in a demo. */
export default async function WhoPage({ searchParams }: { searchParams: Promise<{ brand?: string | string[] }> }) {
  await connection();
  if (!isDemo()) redirect('/sign-in');
  const { db } = await bimlo();
  const { brand: slug } = await searchParams;
  const brand = typeof slug === 'string' ? await maybeBrandBySlug(db, slug) : undefined;
  const brands = brand ? [brand] : await listBrands(db);
  const people = new Map<string, Person>();
  for (const { id } of brands) for (const person of await listPeopleOfBrand(db, id)) people.set(person.id, person);
  return (
    <ChoosePerson
      people={[...people.values()].map(({ id, name, role }) => ({ id, name, role }))}
      brandName={brand?.name ?? null}
      to={brand ? `/${brand.slug}/calendar` : '/'}
    />
  );
}
