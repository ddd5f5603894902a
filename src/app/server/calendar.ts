import { localOf } from '@/core/time/plan';
import { type Brand, listChannelsOf, listCampaigns, listPillars } from '@/usecases/brands/reading';
import { listPeopleOfBrand, type Person } from '@/usecases/people/reading';
import type { brandOfPage } from './brand';

/** A brand with what belongs to it, as the calendar shows it. */
interface CalendarBrand {
  brand: Brand;
  channels: Awaited<ReturnType<typeof listChannelsOf>>;
  people: Person[];
  pillars: { id: string; name: string; color: string }[];
  campaigns: { id: string; name: string; color: string }[];
  today: string;
}

/** The brands whose posts the calendar shows: the one of the page, and those that `?brands=` names. */
export async function brandsOfCalendar(
  page: Awaited<ReturnType<typeof brandOfPage>>,
  asked: string | null,
): Promise<CalendarBrand[]> {
  const { db, brand, brands, channels, people, pillars, campaigns, now, today } = page;
  const own: CalendarBrand = { brand, channels, people, pillars, campaigns, today };
  const slugs = new Set((asked ?? '').split(','));
  const others = brands.filter((other) => other.id !== brand.id && slugs.has(other.slug));
  const isOwnShown = asked === null || slugs.has(brand.slug) || others.length === 0;
  const more = await Promise.all(
    others.map(async (other): Promise<CalendarBrand> => ({
      brand: other,
      channels: await listChannelsOf(db, [other.id]),
      people: await listPeopleOfBrand(db, other.id),
      pillars: await listPillars(db, [other.id]),
      campaigns: await listCampaigns(db, [other.id]),
      today: localOf(now, other.zone).date,
    })),
  );
  return isOwnShown ? [own, ...more] : more;
}
