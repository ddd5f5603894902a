import { composeField } from '../captions/compose';
import { countText } from '../captions/count';
import { spokenSeconds } from '../captions/spoken';
import type { ScoredSentence } from '../extracts/analyse';
import { fieldRule, fieldsOf, formatRule, type TextFieldRule } from '../rulesheets/types';
import { draftCaption, type DraftedCaption } from './caption';
import { oneOf } from './chance';
import type { Draft, DraftedSentence, DraftHelper, DraftOrder, DraftSource } from './draft';
import { keywordsOf } from './keywords';
import { phrasesOf } from './phrases';
import { said, sentencesIn, textOf, type Paragraph, type Said } from './saying';
import { titlesFrom } from './titles';
import { type Body, POINTS, pointsOf, titleOf } from './form';
import { threadOf, slidesOf } from './inParts';

/** Seconds that the script of a short video takes at most, where its network does not ask for less. */
const SCRIPT_SECONDS = 45;
/**
 * Drafts from a piece's own sentences, by rules and a seed, without anything from outside: hook, body and call to action in a
 * caption; parts of a thread; slides, frames; subject, lead and points of a letter; the outline of an article; a script; an
 * agenda. Always within the rule sheet.
 */
export const ruleBasedHelper: DraftHelper = (source, shelf, order) => {
  if (!formatRule(order.sheet, order.format)) return null;
  const caption = draftCaption(source, shelf, order);
  if (!caption) return null;
  const draft = FORMS[order.format]?.(source, order, caption) ?? captionOnly(caption);
  return withFields(source, order, draft, caption);
};

const captionOnly = ({ paragraphs }: DraftedCaption): Body => ({
  words: { caption: textOf(paragraphs) },
  parts: [],
  sentences: sentencesIn('caption', paragraphs),
});

const FORMS: Partial<
  Record<DraftOrder['format'], (source: DraftSource, order: DraftOrder, caption: DraftedCaption) => Body | null>
> = {
  thread: threadOf,
  carousel: (source, order, caption) => slidesOf(source, order, caption, Infinity),
  story: (source, order, caption) => slidesOf(source, order, caption, 4),
  newsletter: letterOf,
  article: outlineOf,
  shortVideo: scriptOf,
  live: agendaOf,
};

const withFields = (source: DraftSource, order: DraftOrder, body: Body, caption: DraftedCaption): Draft => {
  const words: Draft['words'] = { hashtags: caption.hashtags, link: caption.link, ...body.words };
  const sentences: DraftedSentence[] = [...body.sentences];
  for (const rule of fieldsOf(order.sheet, order.format)) {
    if (words[rule.name] !== undefined) continue;
    const text =
      rule.name === 'headline'
        ? titleOf(source, order, rule)
        : rule.name === 'keywords'
          ? keywordField(source, rule)
          : null;
    if (text === null) continue;
    words[rule.name] = text.text;
    if (rule.name === 'headline') sentences.unshift({ field: 'headline', ...text });
  }
  return { variant: order.variant === null ? null : caption.variant, words, parts: body.parts, sentences };
};

function keywordField({ analysis, others }: DraftSource, rule: TextFieldRule): Said {
  let text = '';
  for (const { words } of keywordsOf(analysis, 12, others)) {
    const longer = text === '' ? words : `${text}, ${words}`;
    if (countText(longer, rule) > rule.limit) break;
    text = longer;
  }
  return { text, origin: 'piece' };
}

/** Marks that would begin a heading, a list or a quotation are words where a sentence begins with them. */
const asMarkdown = (text: string): string =>
  text.replace(/^([#>+-]|\d+[.)])(?=\s)/, '\\$1').replace(/([*_`])/g, '\\$1');
const marked = (one: Said, before = ''): Said => ({ ...one, text: `${before}${asMarkdown(one.text)}` });

/** Paragraphs as Markdown that stays within the limit: what does not fit is left out from the end. */
function richBody(paragraphs: readonly Paragraph[], { sheet }: DraftOrder, link: string): Body {
  const rule = fieldRule(sheet, 'caption')!;
  const kept = [...paragraphs];
  const fits = () =>
    countText(
      composeField({ headline: '', caption: textOf(kept), hashtags: '', link }, rule, sheet.hashtagLimit),
      rule,
    ) <= rule.limit;
  while (kept.length > 1 && !fits()) kept.pop();
  return { words: { caption: textOf(kept) }, parts: [], sentences: sentencesIn('caption', kept) };
}

function letterOf(source: DraftSource, order: DraftOrder, caption: DraftedCaption): Body {
  const phrases = phrasesOf(source.analysis.language);
  const lead = caption.paragraphs.map((paragraph) => paragraph.map((one) => marked(one)));
  const last = lead.at(-1)!;
  const isCall = lead.length > 1 && last.some(({ origin }) => origin === 'shelf' || origin === 'phrase');
  const call = isCall ? [lead.pop()!] : [];
  const inLead = textOf(caption.paragraphs);
  const points = pointsOf(source, order, POINTS.letter + 3)
    .filter(({ text }) => !inLead.includes(text.slice(0, 40)))
    .slice(0, POINTS.letter);
  const heading = oneOf(phrases?.points ?? [], order.seed, 'points');
  const list: Paragraph[] = points.map((extract) => [
    marked({ text: extract.text.replace(/\s+/g, ' '), origin: 'piece' }, '- '),
  ]);
  const body = richBody(
    [
      ...lead,
      ...(heading && list.length > 0 ? [[{ text: `## ${heading}`, origin: 'phrase' as const }]] : []),
      ...list,
      ...call,
    ],
    order,
    caption.link,
  );
  const rule = fieldsOf(order.sheet, order.format).find(({ name }) => name === 'preheader');
  const preheader = rule && preheaderOf(source, rule, inLead);
  if (!preheader) return body;
  return {
    ...body,
    words: { ...body.words, preheader: preheader.text },
    sentences: [{ field: 'preheader', ...preheader }, ...body.sentences],
  };
}

/** The best own sentence that fits the preheader and does not stand in the lead. */
function preheaderOf(source: DraftSource, rule: TextFieldRule, lead: string): Said | null {
  const [best] = source.analysis.sentences
    .filter(({ traits }) => !traits.has('leaning') && !traits.has('housekeeping'))
    .map((sentence) => ({ one: said(source, sentence), score: sentence.score }))
    .filter(({ one: { text } }) => text.length >= 20 && countText(text, rule) <= rule.limit && !lead.includes(text))
    .sort((one, other) => other.score - one.score);
  return best?.one ?? null;
}

/** Sections that an outline makes of a piece without headings. */
const SECTIONS = 5;

/** The outline of an article: a heading a section, below it the section's best sentences in their order. */
function outlineOf(source: DraftSource, order: DraftOrder, caption: DraftedCaption): Body {
  const { blocks, sentences, text } = source.analysis;
  const headings = blocks.flatMap((block, at) =>
    block.kind === 'heading' && (block.level ?? 1) > 1 ? [{ at, title: text.slice(block.start, block.end) }] : [],
  );
  const inLead = new Set(caption.paragraphs.slice(0, 1).flatMap((paragraph) => paragraph.map((one) => one.text)));
  const ranked = sentences.filter(
    (sentence) => !sentence.traits.has('housekeeping') && !inLead.has(said(source, sentence).text),
  );
  const groups: { title: string | null; own: ScoredSentence[] }[] =
    headings.length >= 2
      ? headings.map(({ at, title }, index) => ({
          title,
          own: ranked.filter(({ block }) => block > at && block < (headings[index + 1]?.at ?? Infinity)),
        }))
      : Array.from({ length: SECTIONS }, (_, index) => ({
          title: null,
          own: ranked.slice(
            Math.floor((index * ranked.length) / SECTIONS),
            Math.floor(((index + 1) * ranked.length) / SECTIONS),
          ),
        }));
  const rule = fieldRule(order.sheet, 'caption')!;
  const lead = caption.paragraphs.slice(0, 1).map((paragraph) => paragraph.map((one) => marked(one)));
  const paragraphs = groups.flatMap(({ title, own }): Paragraph[] => {
    const best = [...own].sort((one, other) => other.score - one.score).filter(({ score }) => score > 0);
    if (best.length === 0) return [];
    const chosen = best.slice(0, POINTS.outline).sort((one, other) => one.start - other.start);
    const heading =
      title ??
      best
        .filter(({ traits }) => !traits.has('leaning'))
        .flatMap((sentence) => titlesFrom(said(source, sentence).text, 60, rule))[0];
    const head: Paragraph[] = heading ? [[{ text: `## ${heading}`, origin: 'piece' }]] : [];
    return [...head, chosen.map((sentence) => marked(said(source, sentence)))];
  });
  return richBody([...lead, ...paragraphs], order, caption.link);
}

/** A script: what a clip says; else an extract, carried on by what follows it, as far as it is spoken in time. */
function scriptOf(source: DraftSource, order: DraftOrder, caption: DraftedCaption): Body {
  const { sentences } = source.analysis;
  const most = Math.min(SCRIPT_SECONDS, formatRule(order.sheet, order.format)?.video?.secondsMax ?? SCRIPT_SECONDS);
  const stretch = order.clip ?? order.from[0] ?? source.extracts[0];
  if (!stretch) return captionOnly(caption);
  const first = sentences.findIndex(({ start, opensAt = start }) => opensAt >= stretch.start);
  const script: Said[] = [];
  for (let at = first; at >= 0 && at < sentences.length; at++) {
    const sentence = sentences[at]!;
    if (order.clip ? sentence.end > order.clip.end : sentence.block !== sentences[first]!.block) break;
    const next = said(source, sentence);
    if (!order.clip && spokenSeconds([...script, next].map(({ text }) => text).join(' '), order.wordsPerMinute) > most)
      break;
    script.push(next);
  }
  const [hook] = caption.paragraphs[0] ?? [];
  return {
    words: { caption: textOf(caption.paragraphs), script: textOf([script]), coverIdeas: hook?.text ?? source.title },
    parts: [],
    sentences: [
      ...sentencesIn('caption', caption.paragraphs),
      ...sentencesIn('script', [script]),
      { field: 'coverIdeas', ...(hook ?? { text: source.title, origin: 'title' as const }) },
    ],
  };
}

/** The agenda of a live broadcast: the sections of the piece, and the questions it asks. */
function agendaOf(source: DraftSource, _order: DraftOrder, caption: DraftedCaption): Body {
  const { blocks, text, sentences, language } = source.analysis;
  const sections = blocks
    .filter(({ kind, level }) => kind === 'heading' && (level ?? 1) > 1)
    .map((block): Said => ({ text: `- ${text.slice(block.start, block.end)}`, origin: 'piece' }));
  const questions = sentences
    .filter(({ traits }) => traits.has('question') && !traits.has('housekeeping'))
    .sort((one, other) => other.score - one.score)
    .slice(0, POINTS.agenda)
    .map((sentence): Said => ({ text: `- ${said(source, sentence).text}`, origin: 'piece' }));
  const heading = phrasesOf(language)?.questions;
  const agenda: Said[] = [
    ...sections,
    ...(heading && questions.length > 0 ? [{ text: `${heading}:`, origin: 'phrase' as const }] : []),
    ...questions,
  ];
  return {
    words: { caption: textOf(caption.paragraphs), agenda: agenda.map(({ text: line }) => line).join('\n') },
    parts: [],
    sentences: [...sentencesIn('caption', caption.paragraphs), ...sentencesIn('agenda', [agenda])],
  };
}
