/**
 * How good extracts and drafts are on texts of different kinds, against sentences that an editor marked: `npm run bench:repurpose`.
 * With `-- --speed` it measures coverage, a fan-out and cards as well; `-- --show` prints the extracts.
 * Texts whose names begin with `untouched` were never looked at while anything was tuned; they are read only with `-- --untouched`.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fitTexts } from '@/core/captions/compose';
import { partFaults, partsRule } from '@/core/posts/parts';
import { analyse, type Analysis } from '@/core/extracts/analyse';
import { findClips } from '@/core/extracts/clips';
import { EXTRACT_LENGTH, findExtracts, overlaps, type Extract, type Taken } from '@/core/extracts/extracts';
import { overlapOf } from '@/core/extracts/rank';
import { draftFanOut } from '@/core/fanOut/draftFanOut';
import type { FanOutGround } from '@/core/fanOut/ground';
import { singleRow } from '@/core/fanOut/fanOut';
import { plainlyKept, readingOf, readSource } from '@/core/reading/readSource';
import { writtenOf } from '@/core/posts/written';
import { SHIPPED_RULE_SHEETS } from '@/core/rulesheets/shipped';

const FOLDER = 'bench/texts';
/** Extracts that are looked at. */
const BEST = 10;

/** The talk of the demo, which has times; its key stands in a file of its own, a sentence or two a line. */
const TALK = { file: 'demo/fennel-moor/transcripts/rings-that-vanish.vtt', keys: 'talk.keys.txt' };

/** A text with the stretches that an editor marked in it, in offsets of the text as it is read. */
interface Marked {
  name: string;
  kept: FanOutGround['kept'];
  key: Taken[];
}

/** Reads a text whose key stands in double braces. */
function readMarked(name: string): Marked {
  const marked = readFileSync(join(FOLDER, name), 'utf8');
  const kept = keptOf(marked.replace(/\{\{|\}\}/g, ''));
  const keys = [...marked.matchAll(/\{\{([^{}]*)\}\}/g)].map(({ 1: words }) => words!);
  return { name, kept, key: keys.map((words) => placeOf(words, kept, name)) };
}

function readTalk(): Marked {
  const read = readSource(readFileSync(TALK.file, 'utf8'), 'talk.vtt');
  if (!read.ok) throw new Error(read.refusal.message);
  const keys = readFileSync(join(FOLDER, TALK.keys), 'utf8').trim().split('\n');
  return { name: 'talk, timed', kept: read.value, key: keys.map((words) => placeOf(words, read.value, TALK.file)) };
}

const keptOf = (source: string): FanOutGround['kept'] => plainlyKept(source);

/** Where marked words stand in the text as it is read, however they are spaced. */
function placeOf(words: string, kept: FanOutGround['kept'], name: string): Taken {
  const plain = (spaced: string) => spaced.replace(/\s+/g, ' ');
  const { text } = readingOf(kept);
  const wanted = plain(readingOf(keptOf(words)).text).trim();
  const start = plain(text).indexOf(wanted);
  if (start < 0) throw new Error(`${name}: “${wanted.slice(0, 40)}” is not in the text as it is read`);
  const at = offsetsOf(text);
  return { start: at[start]!, end: at[start + wanted.length - 1]! + 1 };
}

/** Where each character of a text with single spaces stands in the text itself. */
function offsetsOf(text: string): number[] {
  const at: number[] = [];
  for (let index = 0; index < text.length; index++)
    if (!/\s/.test(text[index]!) || !/\s/.test(text[index - 1] ?? 'x')) at.push(index);
  return at;
}

const isIn = (key: readonly Taken[], sentence: Taken) => key.some((one) => overlaps(one, sentence));

/** Whether most sentences of a stretch lie in the key. */
function isHit({ sentences }: Analysis, key: readonly Taken[], stretch: Taken): boolean {
  const own = sentences.filter(({ start, end, opensAt = start }) => opensAt >= stretch.start && end <= stretch.end);
  return own.filter((sentence) => isIn(key, sentence)).length * 2 > own.length;
}

/** The first stretches of a text that are long enough for an extract. */
const firstOnes = ({ sentences }: Analysis): Taken[] =>
  sentences
    .filter(({ start, end }) => end - start >= EXTRACT_LENGTH.least && end - start <= EXTRACT_LENGTH.most)
    .slice(0, BEST);

interface Figures {
  name: string;
  sentences: number;
  marked: number;
  hits: number;
  chance: number;
  first: number;
  leaning: number;
  cut: number;
  alike: number;
  extracts: Extract[];
}

function measure({ name, kept, key }: Marked): Figures {
  const reading = readingOf(kept);
  const analysis = analyse({ ...reading, ...kept });
  const extracts = findExtracts(analysis, BEST);
  const marked = analysis.sentences.filter((sentence) => isIn(key, sentence)).length;
  const hitsOf = (list: readonly Taken[]) => list.filter((one) => isHit(analysis, key, one)).length;
  const openerOf = ({ start }: Taken) =>
    analysis.sentences.find((sentence) => (sentence.opensAt ?? sentence.start) === start);
  const contentOf = ({ start, end }: Taken) =>
    new Set(
      analysis.sentences
        .filter((one) => (one.opensAt ?? one.start) >= start && one.end <= end)
        .flatMap(({ content }) => [...content]),
    );
  const isPunctuated = /[.!?]\s/.test(reading.text);
  const endsWhole = ({ start, end }: Taken) =>
    /(^|[.!?…:]["”’)]*\s+|\n)$/.test(reading.text.slice(0, start)) &&
    /[.!?…]["”’)“]*$/.test(reading.text.slice(0, end));
  let alike = 0;
  extracts.forEach((one, at) =>
    extracts
      .slice(at + 1)
      .forEach((other) => void (alike += overlapOf(contentOf(one), contentOf(other)) >= 0.4 ? 1 : 0)),
  );
  return {
    ...{ name, sentences: analysis.sentences.length, marked, hits: hitsOf(extracts) },
    chance: (BEST * marked) / analysis.sentences.length,
    first: hitsOf(firstOnes(analysis)),
    leaning: extracts.filter((one) => openerOf(one)?.traits.has('leaning')).length,
    cut: isPunctuated ? extracts.filter((one) => !endsWhole(one)).length : 0,
    ...{ alike, extracts },
  };
}

/** How many drafts of all formats on all shipped networks there are, and those that a rule sheet would refuse. */
function draftFaults({ kept }: Marked): { all: number; outside: string[] } {
  let all = 0;
  const outside: string[] = [];
  for (const seed of [1, 2]) {
    const ground: FanOutGround = {
      ...{ kept, title: 'A title for it', link: 'https://moor.example/x' },
      rows: SHIPPED_RULE_SHEETS.flatMap(({ kind, formats }) =>
        formats.map(({ format }) => ({ ...singleRow(kind, format), count: 3 })),
      ),
      channels: SHIPPED_RULE_SHEETS.map((sheet) => ({ id: sheet.slug, name: sheet.name, sheet })),
      ...{ judged: [], chosen: {}, on: null, used: {}, existing: {}, under: null, wordsPerMinute: 150, seed },
      shelf: { hashtags: ['#NightSky', '#Bread'] },
    };
    for (const { channelId, format, drafts } of draftFanOut(ground).posts) {
      const sheet = SHIPPED_RULE_SHEETS.find(({ slug }) => slug === channelId)!;
      for (const draft of drafts) {
        all++;
        const parts = draft.parts.map((text, at) => ({ id: `${at}`, text, pictureId: null }));
        const words = writtenOf({ headline: '', caption: '', hashtags: '', link: '', ...draft.words, parts });
        const isOver = fitTexts(words, sheet, format).some(({ overAt }) => overAt !== null);
        const rule = partsRule(sheet, format);
        // A part that still lacks its picture is not outside of the rules, it is not finished.
        const hasFaults = rule !== null && partFaults(parts, { ...rule, needs: 'text' }, sheet).length > 0;
        if (isOver || hasFaults) outside.push(`${channelId} ${format}`);
      }
    }
  }
  return { all, outside };
}

/** Clips of the demo talk: whether they begin and end at sentence edges, to a cue, and lie apart. */
function clipFaults(): { clips: number; cutSentences: number; overlapping: number } {
  const { kept } = readTalk();
  const reading = readingOf(kept);
  const clips = findClips(analyse({ ...reading, ...kept }));
  const isWhole = ({ start, end }: Taken) =>
    /(^|[.!?]["”]?\s+|\n)$/.test(reading.text.slice(0, start)) && /[.!?]["”]?$/.test(reading.text.slice(0, end));
  const overlapping = clips.filter((one, at) => clips.slice(at + 1).some((other) => overlaps(one, other))).length;
  return { clips: clips.length, cutSentences: clips.filter((clip) => !isWhole(clip)).length, overlapping };
}

const withUntouched = process.argv.includes('--untouched');
const shows = process.argv.includes('--show');
const names = readdirSync(FOLDER)
  .filter((name) => name !== TALK.keys && (withUntouched || !name.startsWith('untouched')))
  .sort();
const texts = [...names.map(readMarked), readTalk()];
const all = texts.map(measure);
const sum = (list: readonly Figures[], of: (figures: Figures) => number) =>
  list.reduce((total, one) => total + of(one), 0);
const pooled = (list: readonly Figures[]) => {
  const [hits, chance, first] = [
    sum(list, ({ hits: n }) => n),
    sum(list, ({ chance: n }) => n),
    sum(list, ({ first: n }) => n),
  ];
  return `${hits} hits of ${list.length * BEST}: ${(hits / chance).toFixed(2)} times by chance (2.5 wanted), ${(hits / Math.max(1, first)).toFixed(2)} times the first ten (1.5 wanted)`;
};
console.table(
  all.map(({ name, sentences, marked, hits, chance, first, leaning, cut, alike, extracts }) => ({
    ...{ name, sentences, marked, hits, chance: Number(chance.toFixed(2)), first, extracts: extracts.length },
    ...{ leaning, cut, alike },
  })),
);
console.log(`all texts: ${pooled(all)}`);
const untouched = all.filter(({ name }) => name.startsWith('untouched'));
if (untouched.length > 0) console.log(`untouched: ${pooled(untouched)}`);
const total = sum(all, ({ extracts }) => extracts.length);
console.log(`extracts that open with a leaning word: ${sum(all, ({ leaning }) => leaning)} of ${total} (5% at most)`);
console.log(
  `extracts cut in mid-sentence: ${sum(all, ({ cut }) => cut)} (none); pairs alike by 40% or more: ${sum(all, ({ alike }) => alike)} (none)`,
);
const drafted = texts.map(draftFaults);
console.log(
  `drafts inside their rule sheet: ${drafted.reduce((n, { all: made, outside }) => n + made - outside.length, 0)} of ${drafted.reduce((n, { all: made }) => n + made, 0)} (all)`,
  [...new Set(drafted.flatMap(({ outside }) => outside))].join(', '),
);
console.log('clips of the demo talk:', clipFaults());
if (shows)
  for (const { name, extracts } of all) {
    console.log(`\n${name}`);
    for (const { kind, text, reason } of extracts) console.log(`  ${kind}: ${text}  [${reason}]`);
  }
if (process.argv.includes('--speed')) await (await import('./repurposeSpeed')).measureSpeed();
