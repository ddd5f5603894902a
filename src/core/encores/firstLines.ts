import { composeField, type Words } from '../captions/compose';
import { countText } from '../captions/count';
import { analyse } from '../extracts/analyse';
import { fieldRule, type RuleSheet } from '../rulesheets/types';
import { withoutEnd } from '../text/ends';

/** Where the first line of a caption is from. */
export type LineOrigin = 'asItWas' | 'itsOwn' | 'piece' | 'title';

/** What people read for each. */
export const LINE_ORIGIN_WORDS: Record<LineOrigin, string> = {
  asItWas: 'as it was',
  itsOwn: 'another sentence of it first',
  piece: 'a sentence of the piece first',
  title: 'the title first',
};

/** A caption with another first line. */
interface Reopened {
  caption: string;
  origin: LineOrigin;
}

/** Words of a sentence that can open a post, at least. */
const LEAST_WORDS = 4;
/** Characters of a caption whose sentences are looked at: each is tried by counting the whole caption. */
const LOOKED_AT = 5_000;

/**
 * The same caption with other first lines: one of its own sentences brought to the front, a sentence of its piece, the piece's title.
 * Nothing else of it is changed, all fit the network's limit, and the first line stands before the fold.
 *
 * @param extracts sentences of the piece, the best first
 * @returns the better first; empty where there is no other way to open it
 */
export function reopen(
  words: Pick<Words, 'caption' | 'hashtags' | 'link'>,
  { title, extracts }: { title: string; extracts: readonly string[] },
  sheet: RuleSheet,
): Reopened[] {
  const rule = fieldRule(sheet, 'caption');
  const { caption } = words;
  if (!rule || caption.trim() === '') return [];
  const fits = (text: string) =>
    countText(composeField({ headline: '', ...words, caption: text }, rule, sheet.hashtagLimit), rule) <= rule.limit;
  const sentences = sentencesOfCaption(caption);
  const [first] = sentences;
  if (!first) return [];
  const opening = caption.slice(first.start, first.end);
  const rest = `${caption.slice(0, first.start)}${caption.slice(first.end)}`.trim();
  if (!fits(rest)) return [];
  const shows = (line: string) => rule.fold?.units == null || countText(line, rule) <= rule.fold.units;
  const said = (line: string) => caption.toLowerCase().includes(withoutEnd(line.toLowerCase(), /[.!?…]/u));

  const found: Reopened[] = [];
  const offer = (line: string, text: string, origin: LineOrigin) => {
    if (text !== caption && shows(line) && fits(text) && !text.startsWith(opening))
      found.push({ caption: text, origin });
  };
  for (const { start, end } of sentences.slice(1).filter(({ opens }) => opens)) {
    const line = caption.slice(start, end);
    const others = `${caption.slice(0, start).trimEnd()}${glue(caption, start, end)}${caption.slice(end).trimStart()}`;
    offer(line, `${line}\n\n${others.trim()}`, 'itsOwn');
  }
  const before = (line: string, origin: LineOrigin) => {
    if (said(line)) return;
    const added = `${line}\n\n${caption.trim()}`;
    offer(line, fits(added) ? added : `${line}\n\n${rest}`, origin);
  };
  for (const line of extracts) before(line, 'piece');
  before(title, 'title');
  return found;
}

/** The sentences of a caption, with whether each can stand first: it leans on none before it and says enough. */
function sentencesOfCaption(caption: string): { start: number; end: number; opens: boolean }[] {
  const looked = caption.slice(0, LOOKED_AT);
  const blocks = [...looked.matchAll(/\S[^\n]*/g)].map(({ 0: line, index }) => ({
    kind: 'paragraph' as const,
    start: index,
    end: index + line.trimEnd().length,
  }));
  const { sentences } = analyse({ text: looked, blocks });
  // What runs on beyond what is looked at is no whole sentence.
  const whole = looked.length < caption.length && sentences.length > 1 ? sentences.slice(0, -1) : sentences;
  return whole.map(({ start, end, traits }) => {
    const text = caption.slice(start, end);
    const isTag = /^[#@]|https?:\/\//.test(text);
    const opens = !isTag && !traits.has('leaning') && !traits.has('pronoun') && !traits.has('housekeeping');
    return { start, end, opens: opens && text.split(/\s+/).length >= LEAST_WORDS };
  });
}

/** The white space that stays where a sentence was taken out: the wider of the two beside it. */
function glue(text: string, start: number, end: number): string {
  const before = text.slice(withoutEnd(text.slice(0, start), /\s/).length, start);
  const after = /^\s*/.exec(text.slice(end))![0];
  return [before, after].find((space) => space.includes('\n')) ?? (before || after);
}
