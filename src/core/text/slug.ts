import { withoutEnds } from './ends';

/** A name as a short name for addresses: small letters, digits and single dashes, at most 40; empty where nothing of it is left. */
export const slugOf = (name: string): string =>
  withoutEnds(
    name
      .normalize('NFKD')
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-'),
    /-/,
  ).slice(0, 40);
