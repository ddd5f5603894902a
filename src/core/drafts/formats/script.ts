import { spokenSeconds } from '../../captions/spoken';
import { mayBeSaid } from '../../extracts/analyse';
import { formatRule } from '../../rulesheets/types';
import type { DraftOrder, DraftSource } from '../draft';
import type { Body } from '../form';
import { placesIn, said, sentencesIn, textOf, type Said } from '../saying';
import { captionOnly, type DraftedCaption } from './caption';

/** Seconds that the script of a short video takes at most, where its network does not ask for less. */
const SCRIPT_SECONDS = 45;

/** A script: what a clip says; else an extract, carried on by what follows it in its paragraph, as far as it is spoken in time. */
export function scriptOf(source: DraftSource, order: DraftOrder, caption: DraftedCaption): Body | null {
  const script = order.clip ? clipSaid(source, order.clip) : carried(source, order);
  if (script.length === 0) return captionOnly(caption);
  const [hook] = caption.paragraphs[0] ?? [];
  return {
    words: { caption: textOf(caption.paragraphs), script: textOf([script]), ...(hook && { coverIdeas: hook.text }) },
    parts: [],
    sentences: [
      ...sentencesIn('caption', caption.paragraphs),
      ...sentencesIn('script', [script]),
      ...(hook ? [{ field: 'coverIdeas' as const, ...hook }] : []),
    ],
  };
}

const clipSaid = (source: DraftSource, clip: { start: number; end: number }): Said[] =>
  placesIn(source.analysis, clip).map((at) => said(source, source.analysis.sentences[at]!));

function carried(source: DraftSource, { from, sheet, format, wordsPerMinute }: DraftOrder): Said[] {
  const { sentences } = source.analysis;
  const stretch = from[0] ?? source.extracts[0];
  if (!stretch) return [];
  const most = Math.min(SCRIPT_SECONDS, formatRule(sheet, format)?.video?.secondsMax ?? SCRIPT_SECONDS);
  const inside = placesIn(source.analysis, stretch);
  const [first] = inside;
  if (first === undefined) return [said(source, stretch)];
  const script: Said[] = [];
  for (let at = first; at < sentences.length; at++) {
    const sentence = sentences[at]!;
    if (sentence.block !== sentences[first]!.block || !mayBeSaid(sentence)) break;
    const { start, opensAt = start, end } = sentence;
    const next = said(source, { start: at === first ? Math.max(opensAt, stretch.start) : opensAt, end });
    if (spokenSeconds(textOf([[...script, next]]), wordsPerMinute) > most) break;
    script.push(next);
  }
  while (script.length > 1 && /[?:,;–—]["”’»)]*$/u.test(script.at(-1)!.text)) script.pop();
  return script;
}
