/**
 * How good extracts and drafts are on texts of different kinds, against what we marked in them, text by text: `npm run
 * bench:repurpose`. With `-- --show` it prints extracts and drafts, with `-- --speed` it measures coverage, a fan-out and cards as
 * well. Ends with an error where a bound is broken.
 */
import { findClips } from '@/core/clips/clips';
import { analyse } from '@/core/extracts/analyse';
import { overlaps } from '@/core/extracts/extracts';
import { draftFanOut } from '@/core/fanOut/draftFanOut';
import { SHIPPED_FAN_OUTS } from '@/core/fanOut/shipped';
import { plainlyKept, readingOf } from '@/core/reading/readSource';
import { SHIPPED_RULE_SHEETS } from '@/core/rulesheets/shipped';
import { measureDrafts } from './repurpose/drafts';
import { BEST, measureExtracts, WANTED } from './repurpose/extracts';
import { testChecker } from './repurpose/planted';
import { readPhotoSet, readTexts } from './repurpose/texts';

const shows = process.argv.includes('--show');
const broken: string[] = [];
const bound = (holds: boolean, what: string) => {
  if (!holds) broken.push(what);
};

const texts = readTexts();
const extracts = texts.map(measureExtracts);
console.log(`Extracts: of the best ${BEST} of each text, those in what we marked as usable, and in the best of it.`);
console.table(
  extracts.map(({ name, sentences, usable, hits, best, first, random, alike, extracts: { length } }) => ({
    ...{ name, sentences, 'we marked': usable, extracts: length, usable: hits, best },
    ...{ 'first of paragraphs': first, 'at random': Number(random.toFixed(1)), alike },
  })),
);
for (const { name, hits, first, random, alike } of extracts) {
  bound(hits >= WANTED, `${name}: ${hits} of ${BEST} extracts are usable, ${WANTED} wanted`);
  bound(hits > first && hits > random, `${name}: extracts are no better than first sentences or chance`);
  bound(alike === 0, `${name}: ${alike} pairs of extracts are alike`);
}
const worst = extracts.reduce((one, other) => (other.hits < one.hits ? other : one));
const total = extracts.reduce((sum, { hits }) => sum + hits, 0);
console.log(`usable: ${total} of ${extracts.length * BEST}, the worst ${worst.name} with ${worst.hits}`);

const checker = testChecker(texts);
console.log(
  `\nChecker: finds ${checker.found} of ${checker.planted} planted faults (90% wanted), and something in ${checker.alarms.length} of ${checker.good} good posts (5% at most).`,
);
for (const one of [
  ...checker.missed.map((text) => `  missed ${text}`),
  ...checker.alarms.map((text) => `  alarm ${text}`),
])
  console.log(one);
bound(checker.found >= checker.planted * 0.9, 'the checker misses too many faults');
bound(checker.alarms.length < checker.good * 0.05, 'the checker cries too often');

const drafts = texts.map(measureDrafts);
const formats = [...new Set(drafts.flatMap(({ byFormat }) => Object.keys(byFormat)))].sort();
console.log('\nDrafts: posts of the usual fan-out by format, and what the checker finds in them.');
console.table(
  drafts.map(({ name, words, posts, channels, byFormat, outside, findings, same }) => ({
    ...{ name, words, posts, channels },
    ...Object.fromEntries(formats.map((format) => [format, byFormat[format] ?? 0])),
    ...{ 'outside their rules': outside.length, found: findings.length, same },
  })),
);
for (const { name, words, posts, channels, byFormat, outside, findings, same, notes } of drafts) {
  for (const { what, where, text } of findings) console.log(`  ${name}, ${where}: ${what}: ${text}`);
  for (const note of notes) console.log(`  ${name}, ${note}`);
  bound(outside.length === 0, `${name}: outside of a rule sheet: ${outside.join(', ')}`);
  bound(findings.length === 0, `${name}: the checker finds ${findings.length}`);
  bound(same === 0, `${name}: ${same} posts say what another says`);
  const isProse = words >= 1_500 && name !== 'ramble.txt';
  if (isProse) bound(posts >= 12 && channels >= 8, `${name}: ${posts} posts on ${channels} channels, 12 on 8 wanted`);
  if (isProse)
    for (const format of ['thread', 'newsletter', 'article'])
      bound((byFormat[format] ?? 0) > 0, `${name}: no ${format}`);
}

const pictures = readPhotoSet().map((alt, at) => ({ id: `${at}`, alt }));
const photoSet = draftFanOut({
  ...{ kept: plainlyKept(''), pictures, title: 'A harbour in four pictures', link: '', chosen: {}, on: null, used: {} },
  rows: SHIPPED_FAN_OUTS.find(({ slug }) => slug === 'photo-set')!.rows,
  channels: SHIPPED_RULE_SHEETS.map((sheet) => ({ id: sheet.slug, name: sheet.name, sheet })),
  ...{ judged: [], existing: {}, under: null, wordsPerMinute: 150, seed: 1, shelf: { hashtags: [] } },
});
const saidOfPictures = photoSet.posts.map(({ drafts: [draft] }) => draft?.words.caption ?? '');
console.log(
  `\nPhoto set of ${pictures.length}: ${photoSet.posts.length} posts, no two alike; ${photoSet.rows
    .map(({ note }) => note)
    .filter(Boolean)
    .join('; ')}`,
);
bound(new Set(saidOfPictures).size === saidOfPictures.length, 'photo set: two posts say the same');
bound(photoSet.posts.length >= 4, 'photo set: fewer than four posts');

const talk = texts.find(({ name }) => name === 'talk, timed')!;
const reading = readingOf(talk.kept);
const clips = findClips(analyse({ ...reading, ...talk.kept }));
const isWhole = ({ start, end }: { start: number; end: number }) =>
  /(^|[.!?]["”]?\s+|\n)$/.test(reading.text.slice(0, start)) && /[.!?]["”]?$/.test(reading.text.slice(0, end));
const cut = clips.filter((clip) => !isWhole(clip)).length;
const overlapping = clips.filter((one, at) => clips.slice(at + 1).some((other) => overlaps(one, other))).length;
console.log(`Clips of the demo talk: ${clips.length}, ${cut} cut in a sentence, ${overlapping} overlapping.`);
bound(cut === 0 && overlapping === 0, 'clips are cut in sentences, or overlap');

if (shows)
  for (const [at, { name, extracts: own }] of extracts.entries()) {
    console.log(`\n## ${name}`);
    for (const { kind, text, reason } of own) console.log(`  ${kind}: ${text}  [${reason}]`);
    for (const {
      channelId,
      format,
      drafts: [draft],
    } of drafts[at]!.made)
      console.log(
        `  — ${channelId} ${format}: ${[draft!.words.headline, draft!.words.caption, ...draft!.parts].filter(Boolean).join(' | ').replace(/\s+/g, ' ').slice(0, 600)}`,
      );
  }
if (process.argv.includes('--speed')) await (await import('./repurposeSpeed')).measureSpeed();
if (broken.length > 0) {
  console.error(`\nBroken bounds:\n${broken.map((what) => `  ${what}`).join('\n')}`);
  process.exitCode = 1;
}
