import { fieldsOf, type Format, type RuleSheet, type TextFieldName, type TextFieldRule } from '../rulesheets/types';
import { hashtagKey, hashtagsIn, readHashtags } from './hashtags';
import { linkSpans } from './links';
import { measureText, surelyFit, type Measure } from './count';

/** One of the ordered parts of a post: a slide, a frame, or a part of a thread after its first. */
export interface Part {
  id: string;
  text: string;
  /** The picture it shows; null for none. */
  pictureId: string | null;
}

/** The words of a post as people type them. */
export interface Words extends Partial<Record<TextFieldName, string>> {
  headline: string;
  caption: string;
  /** As typed: with or without signs, set apart by white space or commas. */
  hashtags: string;
  link: string;
  parts?: readonly Part[];
}

/** A field's text as it would be sent. */
export interface ComposedField {
  name: TextFieldName;
  text: string;
}

/** A composed field held against its rule. */
export interface FieldFit extends Measure {
  rule: TextFieldRule;
  /** The composed text. Where the rule composes more than the typed text, the typed text is its beginning. */
  text: string;
  /** Units left; negative when over. */
  left: number;
}

/** What was typed into a field. */
export const typedText = (words: Words, name: TextFieldName): string => words[name] ?? '';

/**
 * Composes one field of a post: by default the caption, a blank line, the link, a blank line, and those hashtags that
 * are not in the caption already. A link that stands in the caption is not repeated. A part that is empty leaves no
 * blank line.
 */
export function composeField(words: Words, rule: TextFieldRule, hashtagLimit: number | null): string {
  const typed = typedText(words, rule.name);
  const parts = rule.parts.map((part) => {
    if (part === 'text') return typed;
    if (part === 'link') return holdsLink(typed, words.link.trim()) ? '' : words.link.trim();
    return hashtagLimit === 0 ? '' : newHashtags(words).join(' ');
  });
  return parts.filter((part) => part.trim() !== '').join('\n\n');
}

const holdsLink = (text: string, link: string): boolean =>
  linkSpans(text).some((at) => text.slice(at.start, at.end) === link);

/** Whether a composed field fits, told without composing or counting it. False does not mean that it is over. */
export function surelyFitsComposed(words: Words, rule: TextFieldRule): boolean {
  const takes = (part: 'link' | 'hashtags') => rule.parts.includes(part);
  const texts = [typedText(words, rule.name), takes('link') ? words.link : '', takes('hashtags') ? words.hashtags : ''];
  // A hashtag gains its sign at most, and each part a blank line.
  const more = (takes('hashtags') ? words.hashtags.length : 0) + 2 * rule.parts.length;
  return surelyFit(texts, rule, more);
}

/** Whether a post carries no more hashtags than that, told without reading them. False does not mean that it carries more. */
export const surelyFewHashtags = (words: Pick<Words, 'caption' | 'hashtags'>, most: number): boolean =>
  words.caption.split(/[#＃]/).length - 1 + words.hashtags.split(/[\s,;#＃]+/).filter(Boolean).length <= most;

/** The hashtags of the hashtag field that the caption does not hold already. */
function newHashtags(words: Pick<Words, 'caption' | 'hashtags'>): string[] {
  const inCaption = new Set(hashtagsIn(words.caption).map(hashtagKey));
  return readHashtags(words.hashtags).filter((tag) => !inCaption.has(hashtagKey(tag)));
}

/** All hashtags a post would carry, in the caption or after it. */
export const allHashtags = (words: Pick<Words, 'caption' | 'hashtags'>): string[] => [
  ...hashtagsIn(words.caption),
  ...newHashtags(words),
];

/** The texts that would be sent, one for each field the rule sheet names for the format. */
export function composeTexts(words: Words, sheet: RuleSheet, format: Format): ComposedField[] {
  return fieldsOf(sheet, format).map((rule) => ({
    name: rule.name,
    text: composeField(words, rule, sheet.hashtagLimit),
  }));
}

/** Every field of a post, composed and counted. */
export function fitTexts(words: Words, sheet: RuleSheet, format: Format): FieldFit[] {
  return fieldsOf(sheet, format).map((rule) => {
    const text = composeField(words, rule, sheet.hashtagLimit);
    const measure = measureText(text, rule);
    return { rule, text, ...measure, left: rule.limit - measure.count };
  });
}
