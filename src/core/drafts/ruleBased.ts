import { countText } from '../captions/count';
import { fieldsOf, formatRule, type Format, type TextFieldRule } from '../rulesheets/types';
import type { Draft, DraftedSentence, DraftHelper, DraftOrder, DraftShelf, DraftSource } from './draft';
import { agendaOf } from './formats/agenda';
import { articleOf } from './formats/article';
import { captionOnly, draftCaption, type DraftedCaption } from './formats/caption';
import { letterOf } from './formats/letter';
import { scriptOf } from './formats/script';
import { nearSlides, carouselOf, storyOf } from './formats/slides';
import { threadOf } from './formats/thread';
import type { Body } from './form';
import { keywordsOf } from './keywords';
import type { Said } from './saying';
import { titleOf } from './titles';

/**
 * Drafts from a piece's own sentences, by rules and a seed, without anything from outside. Every text is made of whole sentences that
 * are understood where they stand; what the piece gives nothing for is not made. Always within the rule sheet.
 */
export const ruleBasedHelper: DraftHelper = (source, shelf, order) => {
  if (!formatRule(order.sheet, order.format)) return null;
  let openings = order.openingsTaken;
  const near = order.format === 'carousel' && order.from.length === 0 ? nearSlides(source, order) : undefined;
  let made = madeOf(source, shelf, near ? { ...order, near } : order);
  for (let turn = 1; turn < TURNS && made?.twice !== undefined; turn++) {
    openings = [...openings, made.twice];
    made = madeOf(source, shelf, { ...order, ...(near && { near }), openingsTaken: openings });
  }
  return made && withFields(source, order, made.body, made.caption);
};

/** Openings that are tried until none of the parts says the same. */
const TURNS = 4;

/** A body with its caption, and how that opens where a part of a post of the whole piece says it once more. */
function madeOf(
  source: DraftSource,
  shelf: DraftShelf,
  order: DraftOrder,
): { body: Body; caption: DraftedCaption; twice: string | undefined } | null {
  const caption = draftCaption(source, shelf, order);
  const body = caption && (FORMS[order.format] ?? ((_source, _order, own) => captionOnly(own)))(source, order, caption);
  if (!body) return null;
  const opening = caption.paragraphs[0]?.[0]?.text;
  const isTwice = order.from.length === 0 && opening !== undefined && body.parts.some((part) => part.includes(opening));
  return { body, caption, twice: isTwice ? opening : undefined };
}

type Form = (source: DraftSource, order: DraftOrder, caption: DraftedCaption) => Body | null;

const FORMS: Partial<Record<Format, Form>> = {
  thread: threadOf,
  carousel: carouselOf,
  story: storyOf,
  newsletter: letterOf,
  article: articleOf,
  shortVideo: scriptOf,
  live: agendaOf,
};

/** A draft with its title and keywords; null where it needs a title and there is none. */
function withFields(source: DraftSource, order: DraftOrder, body: Body, caption: DraftedCaption): Draft | null {
  const words: Draft['words'] = { hashtags: caption.hashtags, link: caption.link, ...body.words };
  const sentences: DraftedSentence[] = [...body.sentences];
  for (const rule of fieldsOf(order.sheet, order.format)) {
    if (words[rule.name] !== undefined) continue;
    if (rule.name === 'headline') {
      const title = titleOf(source, order, rule, body.words.preheader);
      if (!title && rule.required) return null;
      words.headline = title?.text ?? '';
      if (title) sentences.unshift({ field: 'headline', ...title });
    } else if (rule.name === 'keywords') words.keywords = keywordField(source, rule).text;
  }
  return { variant: order.variant === null ? null : caption.variant, words, parts: body.parts, sentences };
}

function keywordField({ analysis, others }: DraftSource, rule: TextFieldRule): Said {
  let text = '';
  for (const { words } of keywordsOf(analysis, 12, others)) {
    const longer = text === '' ? words : `${text}, ${words}`;
    if (countText(longer, rule) > rule.limit) break;
    text = longer;
  }
  return { text, origin: 'piece' };
}
