import { afterQuiet } from '@/core/notices/ways';
import { allowsOf, may } from '@/core/rights/may';
import { listBrands } from '@/data/brands/brands';
import type { Instant } from '@/core/time/plan';
import { insertNotices, listUntold } from '@/data/notices/notices';
import { listWays } from '@/data/notices/ways';
import { listPeopleOfBrand } from '@/data/people/people';
import type { Db, Work } from '../useCase';

/** Occasions that are told of at once, at most. */
const MOST_AT_ONCE = 200;

/**
 * Tells people of what is due by hand and of what did not leave as it should, each once. Told are the owner of the post, and where they
 * may not send themselves, or are gone, the brand's managers. Who gave a mail address is mailed too, when it is not quiet.
 *
 * @returns how many notices were made
 */
export async function tellPeople({ db, clock, ids }: Pick<Work, 'db' | 'clock' | 'ids'>): Promise<number> {
  const now = clock.now();
  const untold = await listUntold(db, now, MOST_AT_ONCE);
  if (untold.length === 0) return 0;
  const toldOf = await whoIsTold(db);
  const told = await Promise.all(
    untold.map(async ({ ownerId, ...occasion }) => {
      const people = await toldOf(occasion.brandId, ownerId);
      return people.map((personId) => ({ ...occasion, id: ids(), personId, madeAt: now }));
    }),
  );
  const notices = told.flat();
  const mailDueAt = await mailTimes(db, new Set(notices.map(({ personId }) => personId)), now);
  await insertNotices(
    db,
    notices.map((notice) => ({ ...notice, mailDueAt: mailDueAt(notice.personId) })),
  );
  return notices.length;
}

/** When people are mailed of what they are told now; null for who gave no address. */
async function mailTimes(
  db: Db,
  personIds: ReadonlySet<string>,
  now: Instant,
): Promise<(personId: string) => Instant | null> {
  const ways = await listWays(db, [...personIds]);
  return (personId) => {
    const own = ways.find((one) => one.personId === personId);
    return own && own.mailAddress !== '' ? afterQuiet(now, own.zone, own.quiet) : null;
  };
}

async function whoIsTold(db: Db): Promise<(brandId: string, ownerId: string) => Promise<string[]>> {
  const brands = new Map((await listBrands(db)).map((brand) => [brand.id, brand]));
  const peopleOf = new Map<string, ReturnType<typeof listPeopleOfBrand>>();
  return async (brandId, ownerId) => {
    if (!peopleOf.has(brandId)) peopleOf.set(brandId, listPeopleOfBrand(db, brandId));
    const people = await peopleOf.get(brandId)!;
    const brand = brands.get(brandId);
    const maySend = (role: (typeof people)[number]['role']) =>
      may({ role, brandIds: [brandId] }, 'send', { brandId, ...(brand && { allows: allowsOf(brand) }) }).ok;
    const owner = people.find(({ id }) => id === ownerId);
    const managers = people.filter(({ role }) => role === 'manager');
    return [
      ...new Set([...(owner ? [owner] : []), ...(owner && maySend(owner.role) ? [] : managers)].map(({ id }) => id)),
    ];
  };
}
