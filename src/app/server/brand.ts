import { cache } from 'react';
import { headers } from 'next/headers';
import { notFound, redirect } from 'next/navigation';
import { localOf } from '@/core/time/plan';
import { listBrands, listChannels, listCampaigns, listPillars } from '@/usecases/brands/reading';
import { listPeopleOfBrand } from '@/usecases/people/reading';
import { bimlo } from '@/runtime/bimlo';
import { allowsOf, may, type Deed } from '@/core/rights/may';
import { PATH_HEADER } from './path';
import { isDemo, whoAsks } from './who';

/**
 * The brand of an address with its channels and people, and who looks: read once per request. Every page of a brand comes
 * through here: who is not signed in does that first, and for somebody who does not work for the brand there is nothing (in a demo they choose
 * who they are).
 */
export const brandOfPage = cache(async (slug: string) => {
  const app = await bimlo();
  const [all, who] = await Promise.all([listBrands(app.db), whoAsks(app)]);
  if (!who && !isDemo()) redirect(`/sign-in?to=${encodeURIComponent((await headers()).get(PATH_HEADER) ?? '/')}`);
  const brand = all.find((candidate) => candidate.slug === slug) ?? notFound();
  if (!who || !may(who.actor, 'look', { brandId: brand.id }).ok)
    return isDemo() ? redirect(`/who?brand=${brand.slug}`) : notFound();
  const [channels, people, pillars, campaigns] = await Promise.all([
    listChannels(app.db, brand.id),
    listPeopleOfBrand(app.db, brand.id),
    listPillars(app.db, [brand.id]),
    listCampaigns(app.db, [brand.id]),
  ]);
  const now = app.clock.now();
  const subject = { brandId: brand.id, allows: allowsOf(brand) };
  return {
    app,
    db: app.db,
    brand,
    /** The brands that whoever looks works for. */
    brands: all.filter(({ id }) => who.actor.brandIds.includes(id)),
    channels,
    people,
    pillars,
    campaigns,
    /** Whether whoever looks may do something of the brand. */
    may: (deed: Deed) => may(who.actor, deed, subject).ok,
    entry: isDemo() ? ('chosen' as const) : who.signInId === null ? ('alone' as const) : ('signedIn' as const),
    me: people.find((person) => person.id === who.id) ?? notFound(),
    now,
    today: localOf(now, brand.zone).date,
  };
});
