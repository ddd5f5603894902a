import { readTitle } from '@/core/pieces/piece';
import { SHIPPED_RULE_SHEETS } from '@/core/rulesheets/shipped';
import { accept, refuse, type Result } from '@/core/refusal';
import { readPassword } from '@/core/signIn/password';
import { readZone } from '@/core/time/plan';
import { insertRuleSheets, listRuleSheets } from '@/data/brands/channels';
import { existsAnybody, insertPerson, lockPeople } from '@/data/people/people';
import { savePasswordHash } from '@/data/signIn/credentials';
import { hashPassword } from '@/data/signIn/passwords';
import { addBrand, type BrandInput } from '../brands/brands';
import { freeSlug } from '../brands/freeSlug';
import type { From, House } from '../signIn/house';
import { beginSignIn, type SignedIn } from '../signIn/signIn';
import { acting, attempt, must, refused, type Db } from '../useCase';

/**
 * The first person of a house and the first brand they work for.
 *
 * @internal
 */
export interface Beginning {
  person: string;
  /** Empty where none is wanted yet. */
  password: string;
  brand: Pick<BrandInput, 'name' | 'zone' | 'weekStart'>;
}

/** What was begun. */
interface Begun extends SignedIn {
  slug: string;
}

/** Whether nobody works here yet: then whoever comes begins it. */
export const isEmpty = async (db: Db): Promise<boolean> => !(await existsAnybody(db));

/**
 * Begins a data folder that is empty: the rule sheets that Bimlo ships, the first person, who is its manager, and their brand.
 * Only ever once: as soon as somebody works here, only a manager makes brands and people.
 *
 * @param isOnlyHere whether no other machine reaches this Bimlo: then the one person may do without a password
 */
export async function begin(
  { db, clock, ids }: House,
  { person, password, brand }: Beginning,
  from: From,
  isOnlyHere: boolean,
): Promise<Result<Begun>> {
  if (password === '' && !isOnlyHere)
    return refuse('noPassword', 'Choose a password: this Bimlo can be reached from other machines.', 'password');
  const read = password === '' ? accept(null) : readPassword(password, [person]);
  if (!read.ok) return read;
  const hash = read.value === null ? null : await hashPassword(read.value);
  return attempt(() =>
    db.transaction(async (tx) => {
      await lockPeople(tx);
      if (await existsAnybody(tx))
        refused({ code: 'begun', message: 'Somebody works here already. Reload, and sign in.' });
      const name = must(readTitle(person, 'person'));
      if ((await listRuleSheets(tx)).length === 0)
        await insertRuleSheets(
          tx,
          SHIPPED_RULE_SHEETS.map((sheet) => ({ id: ids(), sheet })),
        );
      const id = ids();
      const slug = await freeSlug(name, 'person', () => Promise.resolve(false));
      const zone = must(readZone(brand.zone));
      await insertPerson(tx, { id, slug, name, role: 'manager', zone, position: 0 }, []);
      const first = await addBrand(acting(tx, { clock, ids }, id), { ...brand, daysOff: [] });
      if (hash !== null) await savePasswordHash(tx, id, hash, clock.now());
      const { signInId } = await beginSignIn(tx, { clock, ids }, id, from, 'begun');
      return { signInId, personId: id, slug: first.slug };
    }),
  );
}
