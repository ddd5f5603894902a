import { composeField } from '../captions/compose';
import { countText } from '../captions/count';
import { fieldRule } from '../rulesheets/types';
import type { DraftOrder } from './draft';
import type { Body } from './form';
import { sentencesIn, textOf, type Paragraph } from './saying';

/** Whether paragraphs of Markdown fit a text with a link behind them. */
export function fitsRich(paragraphs: readonly Paragraph[], { sheet }: DraftOrder, link: string): boolean {
  const rule = fieldRule(sheet, 'caption')!;
  const words = { headline: '', caption: textOf(paragraphs), hashtags: '', link };
  return countText(composeField(words, rule, sheet.hashtagLimit), rule) <= rule.limit;
}

/** Paragraphs as Markdown that stays within the limit: what does not fit is left out from the end. */
export function richBody(paragraphs: readonly Paragraph[], order: DraftOrder, link: string): Body {
  const kept = [...paragraphs];
  while (kept.length > 1 && !fitsRich(kept, order, link)) kept.pop();
  return { words: { caption: textOf(kept) }, parts: [], sentences: sentencesIn('caption', kept) };
}
