import { type Name, mentionOf } from '../shelf/shelf';
import { fieldRule, type RuleSheet } from '../rulesheets/types';
import { segmentsOf } from '../text/segments';
import { composeField, type Words } from './compose';
import { countText } from './count';
import { readHashtags } from './hashtags';

/** What becomes of a text that is longer than the other network takes: it is cut, or stays and is marked. */
export type CarryHow = 'fitted' | 'asItIs';

/** A text carried to a sibling. */
interface Carried {
  caption: string;
  hashtags: string;
  /** Whether something was left out so that it fits. */
  shortened: boolean;
}

/**
 * Carries a caption and hashtags to a sibling on another network: names are named as they are called there, and, if it is to
 * be fitted, the text ends with the last sentence that fits (else with the last word and “…”), the hashtags with the last
 * one allowed. Headings, lists and line breaks stay as they are. What the sibling's own link takes is counted in.
 */
export function carryText(
  from: Pick<Words, 'caption' | 'hashtags'> & { network: string },
  to: Pick<Words, 'headline' | 'link'>,
  sheet: RuleSheet,
  names: readonly Pick<Name, 'name' | 'handles'>[],
  how: CarryHow,
): Carried {
  const caption = renameIn(from.caption, names, from.network, sheet.slug);
  const rule = fieldRule(sheet, 'caption');
  if (how === 'asItIs' || !rule) return { caption, hashtags: from.hashtags, shortened: false };
  const tags = readHashtags(from.hashtags);
  // A network without hashtags is sent none of them anyway.
  const allowed = sheet.hashtagLimit ? tags.slice(0, sheet.hashtagLimit) : tags;
  const hashtags = allowed.length === tags.length ? from.hashtags : allowed.join(' ');
  const fits = (text: string) =>
    countText(composeField({ ...to, caption: text, hashtags }, rule, sheet.hashtagLimit), rule) <= rule.limit;
  const fitted = longestThatFits(caption, fits);
  return { caption: fitted, hashtags, shortened: fitted !== caption || hashtags !== from.hashtags };
}

const sentences = new Intl.Segmenter('en', { granularity: 'sentence' });
const words = new Intl.Segmenter('en', { granularity: 'word' });

function longestThatFits(text: string, fits: (text: string) => boolean): string {
  if (fits(text)) return text;
  const bySentence = longestPrefix(endsOf(sentences, text), (end) => fits(text.slice(0, end).trimEnd()));
  if (bySentence > 0) return text.slice(0, bySentence).trimEnd();
  const byWord = longestPrefix(endsOf(words, text), (end) => fits(`${text.slice(0, end).trimEnd()}…`));
  return byWord > 0 ? `${text.slice(0, byWord).trimEnd()}…` : '';
}

function* endsOf(segmenter: Intl.Segmenter, text: string): Generator<number> {
  for (const { index, segment } of segmentsOf(text, segmenter)) yield index + segment.length;
}

/**
 * The last of the ends for which it holds, 0 for none; it holds up to some end and not beyond. Ends far beyond that one are
 * not looked for.
 */
function longestPrefix(ends: Iterable<number>, holds: (end: number) => boolean): number {
  const seen: number[] = [];
  let looked = 1;
  for (const end of ends)
    if (seen.push(end) === looked) {
      if (!holds(end)) break;
      looked *= 2;
    }
  let [low, high] = [0, seen.length];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (holds(seen[middle - 1]!)) low = middle;
    else high = middle - 1;
  }
  return low === 0 ? 0 : seen[low - 1]!;
}

/** A text with everybody named as they are called on the other network. */
function renameIn(
  text: string,
  names: readonly Pick<Name, 'name' | 'handles'>[],
  fromNetwork: string,
  toNetwork: string,
): string {
  if (fromNetwork === toNetwork) return text;
  const byHandle = new Map(
    names.flatMap((name) => (name.handles[fromNetwork] ? [[name.handles[fromNetwork], name]] : [])),
  );
  return text.replace(/@[\p{L}\p{N}_.-]*[\p{L}\p{N}_]/gu, (handle) => {
    const name = byHandle.get(handle);
    return name ? mentionOf(name, toNetwork) : handle;
  });
}
