import { cardKindOf, cardSizes, readCard, type Card, type CardColours } from '../cards/card';
import type { FanOutPost } from '../fanOut/ground';
import { formatRule, type RuleSheet } from '../rulesheets/types';

/** Days after which what nobody decided on is folded away. */
export const FOLDED_AFTER_DAYS = 30;

/** Formats that a picture made of words serves well. */
const PICTURED = ['photo', 'boardPicture', 'story'];
/** Layouts in turn, so that cards drawn up together differ. */
const IN_TURN: readonly Card['layout'][] = ['ruled', 'plate', 'margin'];

/** The card that comes with a proposal made from an extract; null where it needs no picture, or its words do not make one. */
export function cardFor(
  post: Pick<FanOutPost, 'format' | 'from'>,
  place: number,
  by: string,
  sheet: RuleSheet,
  colours: readonly CardColours[],
): Card | null {
  const [extract] = post.from;
  if (!extract || extract.kind === 'clip' || !PICTURED.includes(post.format)) return null;
  const card = readCard({
    ...{
      layout: IN_TURN[place % IN_TURN.length]!,
      kind: cardKindOf(extract.kind),
      text: extract.text,
      by: by.slice(0, 80),
    },
    ...colours[place % colours.length]!,
    ...cardSizes(formatRule(sheet, post.format))[0]!,
    ...{ picture: null, follows: null },
  });
  return card.ok ? card.value : null;
}
