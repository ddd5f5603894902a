import { cache } from 'react';
import { cookies } from 'next/headers';
import { notFound } from 'next/navigation';
import { localOf } from '@/core/time/plan';
import { listBrands } from '@/data/brands';
import { listChannels } from '@/data/channels';
import { listPeopleOfBrand } from '@/data/people';
import { listCampaigns, listPillars } from '@/data/themes';
import { bimlo } from '@/runtime/bimlo';
import { PERSON_COOKIE } from './request';

/** The brand of an address with its channels and people, and who looks: read once per request. */
export const brandOfPage = cache(async (slug: string) => {
  const app = await bimlo();
  const brands = await listBrands(app.db);
  const brand = brands.find((candidate) => candidate.slug === slug) ?? notFound();
  const [channels, people, pillars, campaigns] = await Promise.all([
    listChannels(app.db, brand.id),
    listPeopleOfBrand(app.db, brand.id),
    listPillars(app.db, [brand.id]),
    listCampaigns(app.db, [brand.id]),
  ]);
  const personId = (await cookies()).get(PERSON_COOKIE)?.value;
  const chosen = people.find((person) => person.id === personId);
  const now = app.clock.now();
  return {
    app,
    db: app.db,
    brand,
    brands,
    channels,
    people,
    pillars,
    campaigns,
    me: chosen ?? people[0] ?? notFound(),
    /** The cookie names nobody of this brand, so the page says who one is and has to tell the server. */
    meIsNew: chosen === undefined,
    now,
    today: localOf(now, brand.zone).date,
  };
});
