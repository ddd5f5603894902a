import type { RuleSheet } from '../rulesheets/types';
import { SHIPPED_RULE_SHEETS } from '../rulesheets/shipped';

/**
 * Who delivers the posts of a brand: people, by hand; made-up networks, for practice; or those networks as if they were real ones,
 * which only a demo has.
 */
export const DELIVERS = ['byHand', 'practice', 'networks'] as const;
export type Delivers = (typeof DELIVERS)[number];

/** Rule sheets, by slug, whose networks answer Bimlo. One that was copied names a network that is nowhere. */
const ANSWERING = new Set(SHIPPED_RULE_SHEETS.filter(({ automatic }) => automatic).map(({ slug }) => slug));

/** Whether a network answers under that slug. */
export const answers = (slug: string): boolean => ANSWERING.has(slug);

/** Whether posts on a network are delivered by Bimlo for such a brand: its rules say so, it answers, and the brand wants it. */
export const carries = ({ automatic, slug }: Pick<RuleSheet, 'automatic' | 'slug'>, delivers: Delivers): boolean =>
  automatic && answers(slug) && delivers !== 'byHand';
