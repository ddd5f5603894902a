import { accept, refuse, type Result } from '../refusal';

/** What a person may do here: managers everything, makers make, reviewers give verdicts. */
export const ROLES = ['manager', 'maker', 'reviewer'] as const;
export type Role = (typeof ROLES)[number];

/** Who asks, as far as their rights depend on it. */
export interface Actor {
  role: Role;
  /** The brands they work for. */
  brandIds: readonly string[];
}

/** What something is about: a brand, or with null the house as a whole. */
export interface Subject {
  brandId: string | null;
}

/** A row of the table: who may, and where. */
interface Right {
  roles: readonly Role[];
  /** `brand`: only of a brand they work for. `house`: it belongs to no brand. */
  of: 'brand' | 'house';
  /** For the refusal: “Only a manager …”. */
  words: string;
}

const EVERYBODY = ROLES;
const ofBrand = (words: string, roles: readonly Role[] = EVERYBODY): Right => ({ roles, of: 'brand', words });
const ofHouse = (words: string, roles: readonly Role[] = EVERYBODY): Right => ({ roles, of: 'house', words });

/** All that can be asked for, and who may: pages and routes, reads and writes go by this one table. */
export const RIGHTS = {
  look: ofBrand('looks at it'),
  chooseWhoOneIs: ofHouse('chooses who one is'),
  lookAtSelf: ofHouse('looks at their own days'),

  catchIdeas: ofBrand('catches ideas'),
  changePieces: ofBrand('changes pieces'),
  changePosts: ofBrand('changes posts'),
  schedule: ofBrand('schedules posts'),
  signOff: ofBrand('signs off', ['manager', 'reviewer']),
  releaseRestored: ofBrand('releases what waits since a restore', ['manager']),
  waive: ofBrand('waives what the team wants', ['manager']),
  doSteps: ofBrand('changes steps'),
  planBatchDays: ofBrand('plans batch days'),
  keepShelf: ofBrand('changes the shelf'),
  keepFiles: ofBrand('adds and removes files'),
  keepViews: ofBrand('keeps views'),
  importAndExport: ofBrand('imports and exports'),
  setRhythm: ofBrand('sets rhythms'),
  runSeries: ofBrand('changes series'),

  manageBrand: ofBrand('changes settings', ['manager']),
  manageHouse: ofHouse('changes settings', ['manager']),
} as const satisfies Record<string, Right>;

/** Something that can be asked for. */
export type Deed = keyof typeof RIGHTS;

/**
 * Whether somebody may do something about something.
 *
 * @param actor null for Bimlo itself, which may all it does by itself
 */
export function may(actor: Actor | null, deed: Deed, { brandId }: Subject): Result<true> {
  if (actor === null) return accept(true);
  const right: Right = RIGHTS[deed];
  if (right.of === 'brand' && (brandId === null || !actor.brandIds.includes(brandId)))
    return refuse('notYours', 'This belongs to a brand you do not work for. Switch to somebody who does.');
  if (right.roles.includes(actor.role)) return accept(true);
  const who = right.roles.map((role) => `a ${role}`).join(' or ');
  return refuse('notYours', `Only ${who} ${right.words}. Ask one, or work as one.`);
}
