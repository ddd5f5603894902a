import { RIGHTS, ROLES, type Allowance, type Deed, type Right, type Role } from './may';

/** Rows of the table of rights as people read it: what is done, by the deed that stands for it. */
const ROWS: readonly { what: string; deed: Deed }[] = [
  { what: 'Look at everything, find and print it; their own desk, views and theme', deed: 'look' },
  {
    what: 'Catch ideas; write, plan and move posts up to ready, set them aside, delete and bring them back; pieces, pictures, steps, shelf and library',
    deed: 'changePosts',
  },
  {
    what: 'Schedule posts, move or unschedule what is scheduled, publish now, post by hand, mark as published',
    deed: 'send',
  },
  { what: 'Sign posts off, and withdraw their own sign-off', deed: 'signOff' },
  { what: 'Waive what is missing; rhythms, repeats, known dates', deed: 'waive' },
  { what: 'Import and export posts', deed: 'exchange' },
  { what: 'Change brands, channels, people, rule sheets, prep sheets and fan-outs', deed: 'manageBrand' },
];

/** A row of the table of rights, for one brand. */
interface RightInWords {
  what: string;
  who: Record<Role, boolean>;
  /** For makers it is as the brand's settings say. */
  isSet: boolean;
}

/** The table of rights as people read it. @param allows what the brand lets its makers do */
export const rightsInWords = (allows: readonly Allowance[]): RightInWords[] =>
  ROWS.map(({ what, deed }) => {
    const right: Right = RIGHTS[deed];
    const isAllowed = right.makersIf !== undefined && allows.includes(right.makersIf);
    const who = Object.fromEntries(
      ROLES.map((role) => [role, right.roles.includes(role) || (role === 'maker' && isAllowed)]),
    ) as Record<Role, boolean>;
    return { what, who, isSet: right.makersIf !== undefined };
  });
