/** The stages of a post in the order of the work. The order carries meaning: notches and jumps go by it. */
export const STAGES = ['drafting', 'production', 'signOff', 'ready', 'scheduled', 'published'] as const;
/** Where a post stands, or that it was set aside. */
export type Stage = (typeof STAGES)[number] | 'setAside';

/** All values a post's stage can hold. */
export const ALL_STAGES: readonly Stage[] = [...STAGES, 'setAside'];

/** What people read. */
export const STAGE_LABELS: Record<Stage, string> = {
  drafting: 'drafting',
  production: 'production',
  signOff: 'sign-off',
  ready: 'ready',
  scheduled: 'scheduled',
  published: 'published',
  setAside: 'set aside',
};

/** How many of the six notches are filled: drafting 1 to published 6; 0 for a post set aside. */
export const notchesOf = (stage: Stage): number => (STAGES as readonly Stage[]).indexOf(stage) + 1;
