import { countText } from '../captions/count';
import type { Words } from '../captions/compose';
import { fieldsOf, type Format, type RuleSheet } from '../rulesheets/types';
import type { Stage } from '../stages/stages';

/** Whether a post is made: what it holds is meant as it stands. */
const isMade = (stage: Stage): boolean => stage === 'ready' || stage === 'scheduled' || stage === 'published';

/** What the title field of a format begins as: the working title where it fits, nothing where there is no such field. */
export function headlineFrom(title: string, sheet: RuleSheet, format: Format): string {
  const rule = fieldsOf(sheet, format).find(({ name }) => name === 'headline');
  return rule && countText(title, rule) <= rule.limit ? title : '';
}

/** A post as far as its title field depends on it. */
interface Titled {
  title: string;
  headline: string;
  stage: Stage;
}

/**
 * What the title field of a post is after its working title, format or channel changed: while it is not made, one that still
 * is the working title follows that, and an empty one begins as it where the format is another.
 */
export function headlineAfter(
  before: Titled,
  after: Pick<Titled, 'title'>,
  to: { sheet: RuleSheet; format: Format; isOther: boolean },
): string {
  const { headline, title, stage } = before;
  const isFree =
    !isMade(stage) && (headline === title ? after.title !== title || to.isOther : headline === '' && to.isOther);
  return isFree ? headlineFrom(after.title, to.sheet, to.format) || headline : headline;
}

/**
 * Whether somebody wrote something that would be sent. The title field begins as the working title: while a post is not made,
 * that alone is nothing written.
 */
export const hasOwnWords = ({
  caption,
  headline,
  title,
  stage,
}: Pick<Words, 'headline' | 'caption'> & Titled): boolean =>
  caption.trim() !== '' || (headline.trim() !== '' && (headline.trim() !== title || isMade(stage)));
