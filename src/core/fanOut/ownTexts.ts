import { fitTexts } from '../captions/compose';
import { countPart, partsRule } from '../posts/parts';
import { writtenOf } from '../posts/written';
import type { Draft, OwnTexts } from '../drafts/draft';
import type { Format, RuleSheet } from '../rulesheets/types';

/** How much of its room a text of a post in preparation takes. */
export interface TextRoom {
  /** The text's own name on its network; “Part 2” for a part. */
  label: string;
  /** A text of the rule sheet by its name, or a part by its place. */
  of: string | number;
  count: number;
  limit: number;
}

/** The texts of a draft as somebody has changed them, each with the room it takes on its network. */
export function roomOf(
  draft: Pick<Draft, 'words' | 'parts'> | undefined,
  own: OwnTexts,
  sheet: RuleSheet,
  format: Format,
): TextRoom[] {
  const parts = (own.parts ?? draft?.parts ?? []).map((text, at) => ({ id: `${at}`, text, pictureId: null }));
  const words = { headline: '', caption: '', hashtags: '', link: '', ...draft?.words, ...own.words };
  const rule = partsRule(sheet, format);
  return [
    ...fitTexts(writtenOf({ ...words, parts }), sheet, format).map(({ rule: { name, label, limit }, count }) => ({
      ...{ label, of: name, count, limit },
    })),
    ...(rule
      ? parts.map(({ text }, at) => ({
          label: `Part ${at + 1}`,
          of: at,
          count: countPart(text, sheet),
          limit: rule.limit,
        }))
      : []),
  ];
}

/** What of it does not fit, in words: “Caption: 12 too many”. */
export const overIn = (room: readonly TextRoom[]): string[] =>
  room.flatMap(({ label, count, limit }) => (count > limit ? [`${label}: ${count - limit} too many`] : []));
