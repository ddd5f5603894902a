import type { Clock, Ids } from '@/core/clock';
import { readTitle } from '@/core/pieces/piece';
import { SHIPPED_RULE_SHEETS } from '@/core/rulesheets/shipped';
import type { Result } from '@/core/refusal';
import { readZone } from '@/core/time/plan';
import { insertRuleSheets, listRuleSheets } from '@/data/brands/channels';
import { existsAnybody, insertPerson, lockPeople } from '@/data/people/people';
import { addBrand, type BrandInput } from '../brands/brands';
import { freeSlug } from '../brands/freeSlug';
import { acting, attempt, must, refused, type Db } from '../useCase';

/** The first person of a house and the first brand they work for. */
export interface Beginning {
  person: string;
  brand: Pick<BrandInput, 'name' | 'zone' | 'weekStart'>;
}

/** What was begun. */
export interface Begun {
  personId: string;
  slug: string;
}

/** Whether nobody works here yet: then whoever comes begins it. */
export const isEmpty = async (db: Db): Promise<boolean> => !(await existsAnybody(db));

/**
 * Begins a data folder that is empty: the rule sheets that Bimlo ships, the first person, who is its manager, and their brand.
 * Only ever once: as soon as somebody works here, only a manager makes brands and people.
 */
export async function begin(
  { db, clock, ids }: { db: Db; clock: Clock; ids: Ids },
  { person, brand }: Beginning,
): Promise<Result<Begun>> {
  return attempt(() =>
    db.transaction(async (tx) => {
      await lockPeople(tx);
      if (await existsAnybody(tx))
        refused({ code: 'begun', message: 'Somebody works here already. Reload, and choose who you are.' });
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
      return { personId: id, slug: first.slug };
    }),
  );
}
