import { countText } from '../../captions/count';
import { fieldsOf, type TextFieldRule } from '../../rulesheets/types';
import { oneOf } from '../chance';
import type { DraftOrder, DraftSource } from '../draft';
import { asMarkdown, pointsBeside, type Body } from '../form';
import { phrasesOf } from '../phrases';
import { richBody } from '../richBody';
import { said, standing, textOf, type Paragraph, type Said } from '../saying';
import type { DraftedCaption } from './caption';

/** Points of a letter. */
const POINTS = 3;
/** Letters of a preheader, at least. */
const LEAST_PREHEADER = 20;

/** A letter: how the piece's best thought goes, then three points of it, a line each, and the way to the whole. */
export function letterOf(source: DraftSource, order: DraftOrder, caption: DraftedCaption): Body | null {
  const phrases = phrasesOf(source.analysis.language);
  const marked = (one: Said, before = ''): Said => ({ ...one, text: `${before}${asMarkdown(one.text)}` });
  const lead = caption.paragraphs.map((paragraph) => paragraph.map((one) => marked(one)));
  const inLead = textOf(caption.paragraphs);
  const points = pointsBeside(source, inLead, POINTS);
  const heading = oneOf(phrases?.points ?? [], order.seed, 'points');
  const list: Paragraph[] = points.map((point) => [marked(said(source, point), '- ')]);
  const toThePiece = caption.link === '' ? undefined : oneOf(phrases?.toThePiece ?? [], order.seed, 'link');
  const body = richBody(
    [
      ...lead,
      ...(heading && list.length > 1 ? [[{ text: `## ${heading}`, origin: 'phrase' as const }]] : []),
      ...list,
      ...(toThePiece ? [[{ text: toThePiece, origin: 'phrase' as const }]] : []),
    ],
    order,
    caption.link,
  );
  const rule = fieldsOf(order.sheet, order.format).find(({ name }) => name === 'preheader');
  const preheader = rule && preheaderOf(source, rule, body.words.caption ?? '');
  if (!preheader) return body;
  return {
    ...body,
    words: { ...body.words, preheader: preheader.text },
    sentences: [{ field: 'preheader', ...preheader }, ...body.sentences],
  };
}

/** The best of the piece that fits the preheader and does not stand in the letter: an extract, else a sentence that stands alone. */
function preheaderOf(source: DraftSource, rule: TextFieldRule, letter: string): Said | null {
  const { sentences } = source.analysis;
  const byScore = [...sentences.keys()].sort((one, other) => sentences[other]!.score - sentences[one]!.score);
  const fits = ({ text }: Said) =>
    text.length >= LEAST_PREHEADER && countText(text, rule) <= rule.limit && !letter.includes(asMarkdown(text));
  for (const extract of source.extracts) {
    const one = said(source, extract);
    if (fits(one)) return one;
  }
  for (const at of byScore) {
    const [one] = sentences[at]!.traits.has('listed') ? [] : (standing(source, at, at + 1) ?? []);
    if (one && fits(one)) return one;
  }
  return null;
}
