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

/** What a brand may let its makers do beside making. */
export type Allowance = 'send' | 'exchange';

/** What something is about: a brand, or with null the house as a whole. */
interface Subject {
  brandId: string | null;
  /** What the brand lets its makers do; nothing where it is not said. */
  allows?: readonly Allowance[];
}

/** A brand as far as it says what its makers may. */
export interface MakersRules {
  asksSignOff: boolean;
  /** Null: as it asks for sign-off or not. */
  makersSend: boolean | null;
  makersExchange: boolean;
}

/** What a brand lets its makers do: they send unless it asks for sign-off, or says otherwise. */
export const allowsOf = ({ asksSignOff, makersSend, makersExchange }: MakersRules): Allowance[] => [
  ...((makersSend ?? !asksSignOff) ? (['send'] as const) : []),
  ...(makersExchange ? (['exchange'] as const) : []),
];

/** A row of the table: who may, and where. */
export interface Right {
  roles: readonly Role[];
  /** `brand`: only of a brand they work for. `house`: it belongs to no brand. */
  of: 'brand' | 'house';
  /** For the refusal: “Only a manager …”. */
  words: string;
  /** Makers may too, where the brand allows them this. */
  makersIf?: Allowance;
}

const EVERYBODY = ROLES;
const MAKING = ['manager', 'maker'] as const;
const MANAGING = ['manager'] as const;
const ofBrand = (words: string, roles: readonly Role[], makersIf?: Allowance): Right => ({
  ...{ roles, of: 'brand', words },
  ...(makersIf && { makersIf }),
});
const ofHouse = (words: string, roles: readonly Role[]): Right => ({ roles, of: 'house', words });

/** All that can be asked for, and who may: pages and routes, reads and writes go by this one table. */
export const RIGHTS = {
  look: ofBrand('looks at it', EVERYBODY),
  keepViews: ofBrand('keeps views', EVERYBODY),
  chooseWhoOneIs: ofHouse('chooses who one is', EVERYBODY),
  lookAtSelf: ofHouse('looks at their own days', EVERYBODY),

  catchIdeas: ofBrand('catches ideas', MAKING),
  changePieces: ofBrand('changes pieces', MAKING),
  changePosts: ofBrand('changes posts', MAKING),
  doSteps: ofBrand('changes steps', MAKING),
  planBatchDays: ofBrand('plans batch days', MAKING),
  keepShelf: ofBrand('changes the shelf', MAKING),
  keepFiles: ofBrand('adds and removes files', MAKING),

  send: ofBrand('schedules posts and marks them as published', MANAGING, 'send'),

  signOff: ofBrand('signs off', ['manager', 'reviewer']),

  releaseRestored: ofBrand('releases what waits since a restore', MANAGING),
  waive: ofBrand('waives what the team wants', MANAGING),
  exchange: ofBrand('imports and exports', MANAGING, 'exchange'),
  keepKnownDates: ofBrand('changes known dates', MANAGING),
  setRhythm: ofBrand('sets rhythms', MANAGING),
  runRepeats: ofBrand('changes repeats', MANAGING),
  manageBrand: ofBrand('changes settings', MANAGING),
  lookAtOthersDesk: ofHouse('looks at the desk of somebody else', MANAGING),
  manageHouse: ofHouse('changes settings', MANAGING),
} as const satisfies Record<string, Right>;

/** Something that can be asked for. */
export type Deed = keyof typeof RIGHTS;

/** Whether a role may do something of some brand at all. */
export const couldDo = (role: Role, deed: Deed): boolean => {
  const right: Right = RIGHTS[deed];
  return right.roles.includes(role) || (role === 'maker' && right.makersIf !== undefined);
};

/**
 * Whether somebody may do something about something.
 *
 * @param actor null for Bimlo itself, which may all it does by itself
 */
export function may(actor: Actor | null, deed: Deed, { brandId, allows = [] }: Subject): Result<true> {
  if (actor === null) return accept(true);
  const right: Right = RIGHTS[deed];
  if (right.of === 'brand' && (brandId === null || !actor.brandIds.includes(brandId)))
    return refuse('notYours', 'This belongs to a brand you do not work for.');
  if (right.roles.includes(actor.role)) return accept(true);
  if (actor.role === 'maker' && right.makersIf && allows.includes(right.makersIf)) return accept(true);
  const who = right.roles.map((role) => `a ${role}`).join(' or ');
  return refuse('notYours', `Only ${who} ${right.words}.`);
}
