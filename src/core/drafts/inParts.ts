import { composeField } from '../captions/compose';
import { countText } from '../captions/count';
import { partNumber, splitThread } from '../captions/splitThread';
import type { ScoredSentence } from '../extracts/analyse';
import { countPart, partsRule } from '../posts/parts';
import { fieldRule, type PartsRule } from '../rulesheets/types';
import type { DraftedCaption } from './caption';
import { oneOf } from './chance';
import type { DraftOrder, DraftSource } from './draft';
import { passagesOf } from './passage';
import { phrasesOf } from './phrases';
import { said, sentencesIn, textOf, type Paragraph, type Said } from './saying';
import { titlesFrom } from './titles';
import { type Body, POINTS, pointsOf, titleOf } from './form';

/** Parts of a thread, at most: longer ones are not read to their end. */
const THREAD_PARTS = 8;

/** What a thread may tell, the best first: a passage of the piece as it stands, else its best points after a hook. */
function* threadTexts(
  source: DraftSource,
  order: DraftOrder,
  caption: DraftedCaption,
  mostPoints: number,
): Generator<Paragraph[]> {
  const saidOf = (sentences: readonly ScoredSentence[]) => sentences.map((sentence) => said(source, sentence));
  for (const passage of passagesOf(source, order.from[0] ?? null)) yield passage.map(saidOf);
  const [hook] = caption.paragraphs[0]!;
  for (let most = mostPoints; most >= 2; most--)
    yield [
      [hook!],
      ...pointsOf(source, order, most).map((extract) =>
        saidOf(
          source.analysis.sentences.filter(
            ({ start, end, opensAt = start }) => opensAt >= extract.start && end <= extract.end,
          ),
        ).filter(({ text }) => text !== hook!.text),
      ),
    ];
}

export function threadOf(source: DraftSource, order: DraftOrder, caption: DraftedCaption): Body | null {
  const parts = partsRule(order.sheet, order.format);
  const rule = fieldRule(order.sheet, 'caption');
  if (!parts || !rule) return null;
  const behind = composeField(
    { headline: '', caption: 'x', hashtags: caption.hashtags, link: caption.link },
    rule,
    order.sheet.hashtagLimit,
  );
  const firstLimit = Math.min(parts.limit, rule.limit - (countText(behind, rule) - 1));
  for (const paragraphs of threadTexts(source, order, caption, Math.min(POINTS.thread, parts.most - 1))) {
    const thread = splitThread(textOf(paragraphs), {
      ...rule,
      limit: parts.limit,
      firstLimit,
      most: parts.most,
      numbered: true,
    });
    if (!thread.ok || thread.value.parts.length < 2 || thread.value.parts.length > THREAD_PARTS) continue;
    const numbered = thread.value.parts.map((text, at) => text + partNumber(at, thread.value.parts.length));
    const place = (text: string) => numbered.findIndex((part) => part.includes(text));
    return {
      words: { caption: numbered[0]! },
      parts: numbered.slice(1),
      sentences: paragraphs.flat().map((one) => {
        const at = place(one.text);
        return at <= 0 ? { field: 'caption' as const, ...one } : { field: 'parts' as const, part: at - 1, ...one };
      }),
    };
  }
  return null;
}

/** Slides or frames: a title, one point each, something to close with. Steps of a list go before other points. */
export function slidesOf(source: DraftSource, order: DraftOrder, caption: DraftedCaption, most: number): Body | null {
  const rule = partsRule(order.sheet, order.format);
  if (!rule) return null;
  const steps = source.extracts.filter(({ kind }) => kind === 'listStep');
  const listed =
    steps.length >= 3 ? [...steps].sort((one, other) => one.start - other.start) : pointsOf(source, order, rule.most);
  const closing = oneOf(
    phrasesOf(source.analysis.language)?.closing ?? [],
    order.seed,
    'closing',
    order.sheet.slug,
    order.format,
  );
  const fits = (text: string) => countPart(text, order.sheet) <= rule.limit;
  const room = Math.min(rule.most, most) - 1 - (closing && fits(closing) ? 1 : 0);
  const points = listed.flatMap((extract) => shortPoint(source, order, rule, extract) ?? []).slice(0, room);
  const title = titleSlide(source, order, rule);
  const slides: Said[] = [
    ...(title ? [title] : []),
    ...points.filter(({ text }) => text !== title?.text),
    ...(closing && fits(closing) ? [{ text: closing, origin: 'phrase' as const }] : []),
  ];
  if (slides.length < 2) return null;
  return {
    words: { caption: textOf(caption.paragraphs) },
    parts: slides.map(({ text }) => text),
    sentences: [
      ...sentencesIn('caption', caption.paragraphs),
      ...slides.map((slide, part) => ({ field: 'parts' as const, part, ...slide })),
    ],
  };
}

function titleSlide(source: DraftSource, order: DraftOrder, rule: PartsRule): Said | null {
  const caption = fieldRule(order.sheet, 'caption');
  return caption
    ? titleOf(
        source,
        { ...order, from: [], clip: null, titlesTaken: [] },
        { ...caption, limit: rule.limit, fold: null },
      )
    : null;
}

/** An extract as the text of a slide: whole where it fits, else the best of its sentences, else a clause of it. */
function shortPoint(
  { analysis }: DraftSource,
  { sheet }: DraftOrder,
  { limit }: PartsRule,
  { start, end }: { start: number; end: number },
): Said | null {
  const caption = fieldRule(sheet, 'caption');
  const fits = (text: string) => countPart(text, sheet) <= limit;
  const whole = analysis.text.slice(start, end).replace(/\s+/g, ' ');
  if (fits(whole)) return { text: whole, origin: 'piece' };
  const inside = analysis.sentences
    .filter(
      (sentence) =>
        (sentence.opensAt ?? sentence.start) >= start && sentence.end <= end && !sentence.traits.has('leaning'),
    )
    .sort((one, other) => other.score - one.score)
    .map((sentence) => analysis.text.slice(sentence.start, sentence.end).replace(/\s+/g, ' '));
  const text =
    inside.find((one) => one.length >= 25 && fits(one)) ??
    inside.flatMap((one) => (caption ? titlesFrom(one, limit, caption) : []))[0];
  return text === undefined ? null : { text, origin: 'piece' };
}
