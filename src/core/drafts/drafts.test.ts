import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fitTexts } from '../captions/compose';
import { countText } from '../captions/count';
import { analyse } from '../extracts/analyse';
import { findClips } from '../extracts/clips';
import { findExtracts } from '../extracts/extracts';
import { draftPosts } from '../fanOut/draftPosts';
import { dealRow, type FanOutRow } from '../fanOut/fanOut';
import { SHIPPED_FAN_OUTS } from '../fanOut/shipped';
import { readMarkdown } from '../reading/readingText';
import { readingOf, readSource } from '../reading/readSource';
import { countPart, partFaults, partsRule } from '../posts/parts';
import { SHIPPED_RULE_SHEETS } from '../rulesheets/shipped';
import { fieldRule, FORMATS, type Format, type RuleSheet } from '../rulesheets/types';
import type { Draft, DraftOrder, DraftSource } from './draft';
import { countOthers, keywordsOf } from './keywords';
import { ruleBasedHelper } from './ruleBased';
import { titlesFrom } from './titles';

const TALK = `# Rings that vanish

## Seeing them edge on

Every fifteen years the planet tips far enough that we look along the plane of its rings. The sheet of rings is thin, and in places it is ten metres thick. Where are the rings, people on the terrace ask?

So for a few weeks a small telescope shows a planet with nothing round it at all. If you scale the rings to a football pitch, they would be thinner than the paint on the lines. I like that one.

## What the log book says

The log book of the observatory holds sixty years of evenings. “On the second of March there was no ring, and an hour later a thread,” somebody wrote in pencil. What would you have written in the log book?

1. Look for the planet in the south after dinner, when the moon is down.
2. Wait until the telescope has cooled on the terrace for an hour.
3. Count the moons that the glare of the rings hides in other years.
`;
const LINK = 'https://fennelmoor.example/talks/rings';
const SHELF = { hashtags: ['#Rings', '#Harbour', '#LogBook', '#Telescope'] };
const sourceOf = (markdown: string, link = LINK): DraftSource => {
  const reading = readMarkdown(markdown);
  const analysis = analyse(reading, 'en');
  return { title: reading.title ?? 'A talk', link, analysis, extracts: findExtracts(analysis, 24) };
};
const TALK_SOURCE = sourceOf(TALK);
const sheetOf = (slug: string) => SHIPPED_RULE_SHEETS.find((sheet) => sheet.slug === slug)!;
const order = (slug: string, format: Format, more: Partial<DraftOrder> = {}): DraftOrder => ({
  sheet: sheetOf(slug),
  format,
  variant: null,
  from: TALK_SOURCE.extracts.slice(0, 1),
  clip: null,
  titlesTaken: [],
  under: null,
  wordsPerMinute: 150,
  seed: 1,
  ...more,
});
const draft = (slug: string, format: Format, more: Partial<DraftOrder> = {}) =>
  ruleBasedHelper(TALK_SOURCE, SHELF, order(slug, format, more))!;

/** What is wrong with a draft by its rule sheet. */
function faults(one: Draft, sheet: RuleSheet, format: Format): string[] {
  const parts = one.parts.map((text, at) => ({ id: `${at}`, text, pictureId: `${at}` }));
  const words = { headline: '', caption: '', hashtags: '', link: '', ...one.words, parts };
  const fits = fitTexts(words, sheet, format);
  const rule = partsRule(sheet, format);
  return [
    ...fits.filter(({ left }) => left < 0).map(({ rule: { name }, left }) => `${name} ${left}`),
    ...fits
      .filter(({ rule: { required, name }, text }) => required && name === 'headline' && text === '')
      .map(() => 'no title'),
    ...(rule ? partFaults(parts, rule, sheet).map(({ code, index }) => `${code} ${index}`) : []),
    ...(rule && parts.length > rule.most - (rule.needs === 'text' ? 1 : 0) ? ['too many parts'] : []),
  ];
}

const EVERY = SHIPPED_RULE_SHEETS.flatMap((sheet) => sheet.formats.map(({ format }) => [sheet.slug, format] as const));

describe('drafts', () => {
  it('exist for all eleven formats', () =>
    expect(new Set(EVERY.map(([, format]) => format))).toEqual(new Set(FORMATS)));

  it.each(EVERY)('for %s, %s keep to the rule sheet, with the hook before the cut', (slug, format) => {
    for (const variant of [null, 'question', 'claim', 'number'] as const) {
      const one = ruleBasedHelper(
        TALK_SOURCE,
        SHELF,
        order(slug, format, { variant, from: TALK_SOURCE.extracts.slice(2, 3) }),
      );
      if (!one) continue;
      const sheet = sheetOf(slug);
      expect(faults(one, sheet, format)).toEqual([]);
      const rule = fieldRule(sheet, 'caption')!;
      const hook = one.sentences.find(({ field }) => field === 'caption')!;
      if (rule.fold?.units) expect(countText(hook.text, rule)).toBeLessThanOrEqual(rule.fold.units);
    }
  });

  it('say of each sentence where it comes from, and what they say of the piece is there', () => {
    for (const [slug, format] of EVERY) {
      const { words, parts, sentences } = draft(slug, format);
      for (const { field, part, text, origin } of sentences) {
        const stands = field === 'parts' ? parts[part!]! : words[field]!;
        expect(stands).toContain(text);
        const plain = text.replace(/^- |^## |\\(?=[#>+*_`-])/g, '').replace(/…$/, '');
        if (origin === 'piece') expect(TALK.replace(/\s+/g, ' ').toLowerCase()).toContain(plain.toLowerCase());
      }
      const said = sentences.filter(({ field }) => field === 'caption').map(({ text }) => text);
      const rest = said.reduce((left, text) => left.replace(text, ''), words.caption ?? '');
      expect(rest.replace(/\d{1,3}\/\d{1,3}/, '').trim()).toBe('');
    }
  });

  it('open with a question, a claim or a number; a variant the piece gives nothing for is left out', () => {
    const hook = (variant: DraftOrder['variant'], from = TALK_SOURCE.extracts.slice(0, 1)) =>
      ruleBasedHelper(TALK_SOURCE, SHELF, order('benchfeed', 'text', { variant, from }))?.words.caption?.split('\n')[0];
    const extract = TALK_SOURCE.extracts.find(({ text }) => text.includes('ten metres') || text.includes('fifteen'))!;
    expect(hook('question', [extract])).toMatch(/\?$/);
    expect(hook('number', [extract])).toMatch(/fifteen|ten/);
    const without = sourceOf('# Fog\n\nThe ferry waits in the harbour until the fog has gone from the pier.');
    expect(ruleBasedHelper(without, SHELF, order('benchfeed', 'text', { variant: 'question', from: [] }))).toBeNull();
    expect(
      ruleBasedHelper(without, SHELF, order('benchfeed', 'text', { variant: 'claim', from: [] }))?.words.caption,
    ).toContain('ferry');
  });

  it('of a thread are split at sentences and numbered', () => {
    const { words, parts } = draft('pithline', 'thread', { from: [] });
    expect(words.caption).toMatch(/ 1\/\d+$/);
    parts.forEach((part, at) => expect(part.endsWith(` ${at + 2}/${parts.length + 1}`)).toBe(true));
  });

  it('of a carousel take the steps of a list, between a title and something to close with', () => {
    const { parts } = draft('glassrow', 'carousel', { from: [] });
    expect(parts[0]).toBe('Rings that vanish');
    expect(parts.slice(1, 4).map((text) => text.split(' ')[0])).toEqual(['Look', 'Wait', 'Count']);
    expect(parts).toHaveLength(5);
  });

  it('of a letter have a subject, a preheader, a lead and points; of an article the headings of the piece', () => {
    const letter = draft('lettermill', 'newsletter', { from: [] });
    expect(letter.words.headline).toBe('Rings that vanish');
    expect(letter.words.preheader!.length).toBeGreaterThan(20);
    expect(letter.words.caption).toMatch(/\n\n## [^\n]+\n\n- /);
    const outline = draft('inkfold', 'article', { from: [] }).words.caption!;
    expect(outline).toContain('## Seeing them edge on');
    expect(outline).toContain('## What the log book says');
  });

  it('of five board pictures have five titles', () => {
    const row: FanOutRow = {
      network: 'pictureBoard',
      format: 'boardPicture',
      count: 5,
      source: { of: 'extracts', kinds: [] },
      offset: 0,
      gap: 7,
    };
    const posts = draftPosts(
      ruleBasedHelper,
      TALK_SOURCE,
      dealRow(row, 0, TALK_SOURCE.extracts, [], []),
      { sheet: sheetOf('corkwall'), format: 'boardPicture' },
      { shelf: SHELF, under: null, wordsPerMinute: 150, seed: 1 },
      [],
    );
    expect(posts).toHaveLength(5);
    expect(new Set(posts.map(({ drafts }) => drafts[0]?.words.headline?.toLowerCase())).size).toBe(5);
  });

  it('of a short video say the words of their clip; a script keeps to its time', () => {
    const { words } = draft('tallclip', 'shortVideo');
    expect(words.script!.split(/\s+/).length).toBeLessThanOrEqual(115);
    expect(words.coverIdeas).not.toBe('');
  });

  it('stay under a length of one’s own, and carry hashtags only for what the piece is about', () => {
    const { words } = draft('glassrow', 'photo', { under: 125 });
    const rule = fieldRule(sheetOf('glassrow'), 'caption')!;
    expect(
      countText(
        fitTexts(
          { headline: '', caption: words.caption!, hashtags: words.hashtags!, link: '' },
          sheetOf('glassrow'),
          'photo',
        )[0]!.text,
        rule,
      ),
    ).toBeLessThanOrEqual(125);
    expect(words.hashtags).toContain('#Rings');
    expect(words.hashtags).not.toContain('#Harbour');
  });

  it('are the same for the same seed', () => {
    expect(draft('benchfeed', 'text')).toEqual(draft('benchfeed', 'text'));
    const calls = new Set(Array.from({ length: 20 }, (_, seed) => draft('benchfeed', 'text', { seed }).words.caption));
    expect(calls.size).toBeGreaterThan(1);
  });

  it('keep to every rule sheet whatever the text', () => {
    const word = fc.stringMatching(/^[a-zé月🪐-🪙]{1,12}$/u);
    const sentence = fc
      .tuple(fc.array(word, { minLength: 1, maxLength: 30 }), fc.constantFrom('.', '?', '!', '…', ''))
      .map(([words, mark]) => `${words.join(' ')}${mark}`);
    const text = fc
      .array(
        fc.array(sentence, { minLength: 1, maxLength: 4 }).map((list) => list.join(' ')),
        { minLength: 1, maxLength: 5 },
      )
      .map((list) => `# ${list[0]!.slice(0, 190)}\n\n${list.join('\n\n')}`);
    fc.assert(
      fc.property(text, fc.constantFrom(...EVERY), fc.nat(3), (markdown, [slug, format], seed) => {
        const source = sourceOf(markdown, seed % 2 ? LINK : '');
        const one = ruleBasedHelper(source, SHELF, {
          ...order(slug, format, { from: source.extracts.slice(0, 1) }),
          seed,
        });
        if (one)
          expect(faults(one, sheetOf(slug), format).filter((fault) => !fault.startsWith('no title'))).toEqual([]);
      }),
      { numRuns: 300 },
    );
  });
});

describe('fan-outs', () => {
  const rows = (slug: string) => SHIPPED_FAN_OUTS.find((fanOut) => fanOut.slug === slug)!.rows;

  it('ask only for formats that a shipped network of that kind takes', () => {
    for (const { rows: own } of SHIPPED_FAN_OUTS)
      for (const { network, format } of own)
        expect(
          SHIPPED_RULE_SHEETS.some(
            (sheet) => sheet.kind === network && sheet.formats.some((rule) => rule.format === format),
          ),
        ).toBe(true);
  });

  it('deal each extract once a channel, make fewer where there are fewer, and pass over what is used', () => {
    const row = rows('talk').find(({ format }) => format === 'boardPicture')!;
    const taken = [TALK_SOURCE.extracts[0]!].map(({ start, end }) => ({ start, end }));
    const dealt = dealRow({ ...row, count: 50 }, 0, TALK_SOURCE.extracts, [], taken);
    expect(dealt.length).toBe(TALK_SOURCE.extracts.length - 1);
    expect(new Set(dealt.map(({ from }) => from[0]!.start)).size).toBe(dealt.length);
    expect(dealRow(row, 0, TALK_SOURCE.extracts, [], taken)).toEqual([]);
  });

  it('make a timed talk into clips, an untimed one into extracts instead', () => {
    const cues = TALK.split(/(?<=[.?])\s+/).map(
      (line, at) =>
        `00:${String(Math.floor(at / 6)).padStart(2, '0')}:${String((at * 10) % 60).padStart(2, '0')}.000 --> 00:${String(Math.floor(at / 6)).padStart(2, '0')}:${String(((at * 10) % 60) + 9).padStart(2, '0')}.000\n${line.replace(/[#\d]/g, '').trim()}`,
    );
    const read = readSource(`WEBVTT\n\n${cues.join('\n\n')}`);
    if (!read.ok) throw new Error(read.refusal.message);
    const clips = findClips(analyse({ ...readingOf(read.value), ...read.value }), { most: 3, apartMs: 1_000 });
    const row = rows('talk').find(({ source }) => source.of === 'clips')!;
    expect(dealRow(row, 0, TALK_SOURCE.extracts, clips, []).every(({ clip }) => clip !== null)).toBe(true);
    expect(dealRow(row, 0, TALK_SOURCE.extracts, [], []).every(({ from }) => from.length === 1)).toBe(true);
  });
});

describe('keywords and titles', () => {
  it('are the words and phrases a text comes back to', () => {
    const words = keywordsOf(TALK_SOURCE.analysis, 8).map((keyword) => keyword.words);
    expect(words).toContain('log book');
    expect(words).toContain('rings');
    expect(words).not.toContain('log');
    const rare = keywordsOf(TALK_SOURCE.analysis, 3, { count: 100, holding: (word) => (word === 'rings' ? 100 : 1) });
    expect(rare.map((keyword) => keyword.words)).not.toContain('rings');
    const others = countOthers(['Rings, rings and rings.', 'The rings again', 'Nothing of it.']);
    expect([others.count, others.holding('rings'), others.holding('log')]).toEqual([3, 2, 0]);
  });

  it('of a sentence are the sentence, and its clauses where it is too long', () => {
    const rule = fieldRule(sheetOf('corkwall'), 'headline')!;
    expect(titlesFrom('“Nobody stole them at all.”', 60, rule)).toEqual(['Nobody stole them at all']);
    expect(titlesFrom('On the second of March, in pencil, somebody wrote that there was no ring.', 40, rule)).toEqual([
      'On the second of March, in pencil',
      'On the second of March',
      'Somebody wrote that there was no ring',
    ]);
    expect(titlesFrom('Nothing ‘opens and, later, never’ closes', 20, rule)).toEqual([]);
  });

  it('count parts as captions are', () => expect(countPart('月', sheetOf('pithline'))).toBe(2));
});
